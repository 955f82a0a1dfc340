import fc from 'fast-check';
import { expect, test } from 'vitest';
import { profileOf } from '../cutter/cutter';
import { DRAWER } from '../doc/defaults';
import { boardGrid } from '../field/height-field';
import { SEGMENT } from '../kernels/segment';
import { movesByPlace, movesOver } from './moves-by-place';

const ball = DRAWER.find((c) => c.id === 'ball3')!;
const R = ball.diameter / 2;

test('over a window come the moves whose bit meets it, each once', () => {
  // Evenly over the board: a double of any size would nearly always lie close to 0.
  const hundredths = (min: number, max: number) => fc.integer({ min: 100 * min, max: 100 * max }).map((v) => v / 100);
  const place = hundredths(-8, 48);
  const depth = hundredths(-3, 1);
  const step = fc.oneof(hundredths(-2, 2), hundredths(-40, 40));
  const move = fc
    .tuple(place, place, depth, step, step, depth)
    .map(([x, y, z, dx, dy, end]) => [x, y, z, x + dx, y + dy, end]);
  const window = fc.record({
    i: fc.integer({ min: 0, max: 180 }),
    j: fc.integer({ min: 0, max: 130 }),
    width: fc.integer({ min: 1, max: 20 }),
    height: fc.integer({ min: 1, max: 20 }),
  });
  const board = boardGrid(40, 30, 0.2);
  fc.assert(
    fc.property(fc.array(move, { maxLength: 40 }), window, (moves, w) => {
      // Every move by its place in the list, which the seventh number carries.
      const segments = Float64Array.from(moves.flatMap((m, n) => [...m, n]));
      const g = { cell: 0.2, width: w.width, height: w.height, originX: w.i * 0.2 + 0.1, originY: w.j * 0.2 + 0.1 };
      const over = movesOver(movesByPlace({ profile: profileOf(ball), segments }, board), g);
      const met = Array.from({ length: over.length / SEGMENT }, (_, n) => over[n * SEGMENT + 6]).sort((a, b) => a - b);
      const within = (a: number, b: number, from: number, cells: number) =>
        Math.min(a, b) - R <= from + cells * 0.2 && Math.max(a, b) + R >= from - 0.2;
      const wanted = moves.flatMap(([ax, ay, az, bx, by, bz], n) =>
        !(az > 0 && bz > 0) && within(ax, bx, g.originX, g.width) && within(ay, by, g.originY, g.height) ? [n] : [],
      );
      expect(met).toEqual(wanted);
    }),
    { numRuns: 300 },
  );
});
