import * as fc from 'fast-check';
import { expect, test } from 'vitest';
import { onScreen } from '../board-view/layout';
import {
  heightMarks,
  isInView,
  lengthOf,
  placeOn,
  shareOn,
  spanOfHeights,
  stretchInView,
  stripAlong,
  stripTall,
} from './strip-place';

const room = { width: 800, height: 400 };
const near = { scale: 20, x0: -1500, y0: 1900, turned: false };

test('of a section that runs through the view the stretch in view is shown, below its own place on the board', () => {
  const seen = stretchInView({ x0: 0, y0: 90, x1: 300, y1: 90 }, near, room);
  expect(seen.x0).toBeCloseTo(75, 9);
  expect(seen.x1).toBeCloseTo(115, 9);
  expect([seen.y0, seen.y1]).toEqual([90, 90]);
  const along = stripAlong(seen, near, { x: 300 });
  expect(along.left).toBeCloseTo(0, 9);
  expect(along.end).toBeCloseTo(800, 9);
  expect(along.at(0.25)).toBeCloseTo(onScreen(near).px(placeOn(seen, 0.25).x), 9);
});

test('a stretch lies on its section and in the view, whichever way it runs and however it lies (property)', () => {
  const mm = fc.double({ min: 0, max: 300, noNaN: true });
  fc.assert(
    fc.property(mm, mm, mm, mm, fc.boolean(), (x0, y0, x1, y1, turned) => {
      const section = { x0, y0, x1, y1 };
      const layout = turned ? { scale: 20, x0: 2300, y0: -1500, turned } : near;
      const seen = stretchInView(section, layout, room);
      if (lengthOf(section) < 1e-6 || seen === section) return;
      const { px, py } = onScreen(layout);
      for (const t of [0, 1]) {
        const p = placeOn(seen, t);
        expect(
          Math.hypot(...[placeOn(section, shareOn(section, p)!)].map((q) => Math.hypot(q.x - p.x, q.y - p.y))),
        ).toBeLessThan(1e-6);
        expect(px(p.x)).toBeGreaterThan(-1e-6);
        expect(px(p.x)).toBeLessThan(room.width + 1e-6);
        // One that runs along the board lies below its own place even while that is above or below the view.
        if (!isInView(section, layout, room)) continue;
        if (Math.abs(x1 - x0) >= 0.99 * lengthOf(section)) continue;
        expect(py(p.y)).toBeGreaterThan(-1e-6);
        expect(py(p.y)).toBeLessThan(room.height + 1e-6);
      }
      const along = stripAlong(seen, layout, { x: 300 });
      expect(along.share(along.at(0.3))).toBeCloseTo(0.3, 6);
    }),
  );
});

test('heights are drawn as tall as there is room for, from the highest to the lowest that stands in view', () => {
  const span = spanOfHeights([[-1, -3], null, new Float32Array([-2, -60])], -20);
  expect(span).toEqual({ top: -1, low: -20 });
  const { top, tall, v } = stripTall(span, 5, 95, false);
  expect([top, tall, v]).toEqual([-1, 1, 5]);
  expect(stripTall({ top: 0, low: -0.1 }, 1, 100, false).tall).toBe(8);
  const free = stripTall({ top: 0, low: -10 }, 1, 124, true);
  expect(free.top).toBeCloseTo(1.2, 9);
  expect(free.v).toBeCloseTo(10 > free.tall ? 8 : 10, 0);
});

test('marks of heights are round and stand apart', () => {
  expect(heightMarks(0, -10, 10, 1, 25)).toEqual([-10, -5, 0]);
  expect(heightMarks(0.2, -0.3, 300, 1, 25).map((z) => Number(z.toFixed(3)))).toEqual([-0.3, -0.2, -0.1, 0, 0.1, 0.2]);
  for (const z of heightMarks(0, -20, 8, 25.4, 25)) expect((z / 25.4) * 5).toBeCloseTo(Math.round((z / 25.4) * 5), 9);
});
