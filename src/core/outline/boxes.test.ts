import * as fc from 'fast-check';
import { expect, test } from 'vitest';
import { clipBox, growBox, joinBoxes } from './boxes';
import type { Bounds } from './polygon';

const near = (a: Bounds, b: Bounds, apart: number) =>
  a.x0 < b.x1 + apart && b.x0 < a.x1 + apart && a.y0 < b.y1 + apart && b.y0 < a.y1 + apart;

/** The plain definition: as long as any two lie too near, the box around both takes their place. */
function joinedPlainly(boxes: Bounds[], apart: number): Bounds[] {
  const out = [...boxes];
  for (;;) {
    const pair = out.flatMap((a, i) => out.slice(i + 1).map((b) => [a, b])).find(([a, b]) => near(a, b, apart));
    if (!pair) return out;
    const [a, b] = pair;
    out.splice(out.indexOf(a), 1);
    out.splice(out.indexOf(b), 1);
    out.push({
      x0: Math.min(a.x0, b.x0),
      y0: Math.min(a.y0, b.y0),
      x1: Math.max(a.x1, b.x1),
      y1: Math.max(a.y1, b.y1),
    });
  }
}

const box = fc
  .tuple(
    fc.integer({ min: 0, max: 90 }),
    fc.integer({ min: 0, max: 90 }),
    fc.integer({ min: 1, max: 15 }),
    fc.integer({ min: 1, max: 15 }),
  )
  .map(([x0, y0, w, h]) => ({ x0, y0, x1: x0 + w, y1: y0 + h }));
const sorted = (all: Bounds[]) => all.map((b) => [b.x0, b.y0, b.x1, b.y1].join(' ')).sort();

test('boxes that lie too near are joined as their plain definition says, in any order', () => {
  fc.assert(
    fc.property(fc.array(box, { maxLength: 14 }), fc.integer({ min: 0, max: 6 }), (boxes, apart) => {
      const joined = joinBoxes(boxes, apart);
      expect(sorted(joined)).toEqual(sorted(joinedPlainly(boxes, apart)));
      expect(sorted(joinBoxes([...boxes].reverse(), apart))).toEqual(sorted(joined));
    }),
  );
});

test('a box is grown on every side and cut to its board', () => {
  expect(growBox({ x0: 1, y0: 2, x1: 3, y1: 4 }, 2)).toEqual({ x0: -1, y0: 0, x1: 5, y1: 6 });
  expect(clipBox({ x0: -1, y0: 0, x1: 5, y1: 6 }, { x: 4, y: 10 })).toEqual({ x0: 0, y0: 0, x1: 4, y1: 6 });
  expect(clipBox({ x0: 5, y0: 0, x1: 6, y1: 6 }, { x: 4, y: 10 })).toBeNull();
});
