import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Line } from './lines';
import { TOUCH, Web } from './web';

type Node = [x: number, y: number];

/** A straight line between two places, or a ring that begins at one, 1 mm deep in the middle. */
function line([x0, y0]: Node, [x1, y1]: Node): Line {
  const closed = x0 === x1 && y0 === y1;
  const middle = closed ? [x0 + 3, y0 + 3, -1] : [(x0 + x1) / 2, (y0 + y1) / 2, -1];
  return {
    points: Float64Array.from([x0, y0, -0.5, ...middle, x1, y1, -0.2]),
    surface: new Float64Array(3),
    closed,
    done: false,
  };
}

const ends = ({ points: p }: Line, turned: boolean): [Node, Node] => {
  const [a, b]: [Node, Node] = [
    [p[0], p[1]],
    [p[p.length - 3], p[p.length - 2]],
  ];
  return turned ? [b, a] : [a, b];
};
const same = (a: Node, b: Node) => Math.hypot(a[0] - b[0], a[1] - b[1]) < TOUCH;
const lengthOf = ({ points: p }: Line) => Math.hypot(p[3] - p[0], p[4] - p[1]) + Math.hypot(p[6] - p[3], p[7] - p[4]);

/** Cuts all lines as a web tells, and checks every step. @returns how often the tip has to come out of the wood */
function walk(lines: Line[], reach: number): number {
  const web = new Web(lines, reach);
  const cut = new Set<Line>();
  let at: Node | null = null;
  let hops = 0;
  for (;;) {
    const next = web.next(at && { x: at[0], y: at[1] });
    if (!next) break;
    let gone = 0;
    for (const way of next.back) {
      const [from, to] = ends(way.line, way.turned);
      expect(cut.has(way.line)).toBe(true);
      expect(same(from, at!)).toBe(true);
      gone += lengthOf(way.line);
      at = to;
    }
    expect(gone).toBeLessThanOrEqual(reach);
    const [from, to] = ends(next.line, next.turned);
    if (next.back.length > 0) expect(same(from, at!)).toBe(true);
    if (!at || !same(from, at)) hops++;
    expect(cut.has(next.line)).toBe(false);
    cut.add(next.line);
    at = to;
  }
  expect(cut.size).toBe(lines.length);
  return hops;
}

test('every line is cut once, and the ways back go along lines that have been cut, no further than a hop is worth (property)', () => {
  const node = fc.tuple(fc.nat(5), fc.nat(5)).map(([x, y]): Node => [10 * x, 10 * y]);
  fc.assert(
    fc.property(fc.array(fc.tuple(node, node), { minLength: 1, maxLength: 30 }), fc.nat(60), (pairs, reach) => {
      walk(
        pairs.map(([a, b]) => line(a, b)),
        reach,
      );
    }),
  );
});

test('a stroke with a spur on either side is cut without coming out of the wood', () => {
  const spurs: [Node, Node][] = [
    [
      [0, 0],
      [10, 0],
    ],
    [
      [10, 0],
      [10, 2],
    ],
    [
      [10, 0],
      [10, -2],
    ],
    [
      [10, 0],
      [30, 0],
    ],
    [
      [30, 0],
      [32, 1],
    ],
    [
      [30, 0],
      [32, -1],
    ],
  ];
  expect(
    walk(
      spurs.map(([a, b]) => line(a, b)),
      12,
    ),
  ).toBe(1);
  // Where no way back is worth it, it comes out at the end of each dead end but the last.
  expect(
    walk(
      spurs.map(([a, b]) => line(a, b)),
      0,
    ),
  ).toBeGreaterThan(2);
});
