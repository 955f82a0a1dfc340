import { expect, test } from 'vitest';
import { boardGrid, cellPlace } from '../field/height-field';
import type { Frame } from '../setup/frame';
import { restsHollow } from './checks/rests-hollow';
import { restsOf, strainOf } from './rests';
import { wholeBoard } from './solid';

const [X, Y, THICK] = [120, 80, 12];
/** Seen from a setup that turns the board over left to right. */
const turned: Frame = { turned: { about: 'about-y', over: X }, thickness: THICK };

/** A board whose face is cut to a depth where a place says so. */
function cutWhere(depth: number, where: (x: number, y: number) => boolean) {
  const solid = wholeBoard(boardGrid(X, Y, 0.25), THICK);
  solid.top = solid.top.map((z, k) => {
    const { x, y } = cellPlace(solid.grid, k);
    return where(x, y) ? -depth : z;
  });
  return solid;
}

test('a board that nothing is cut of below lies flat', () => {
  expect(
    restsOf(
      cutWhere(3, () => false),
      turned,
    ),
  ).toBeNull();
  expect(strainOf(null)).toBe(0);
});

test('over a round recess it spans its diameter, with the wood that is left; the share is that of the closed form', () => {
  const [cx, cy, r] = [50, 40, 30];
  const rests = restsOf(
    cutWhere(4, (x, y) => Math.hypot(x - cx, y - cy) < r),
    turned,
  )!;
  expect(Math.abs(rests.span - 2 * r)).toBeLessThan(1.5);
  expect(rests.wood).toBeCloseTo(8, 6);
  // As it lies: its middle on the other side.
  expect(Math.hypot(rests.x - (X - cx), rests.y - cy)).toBeLessThan(1);
  expect(Math.abs(rests.share - (1 - (Math.PI * r * r) / (X * Y)))).toBeLessThan(0.015);
});

test('told beyond fifteen times the wood, and where nothing stands at all', () => {
  const found = (depth: number, r: number) => {
    const rests = restsOf(
      cutWhere(depth, (x, y) => Math.hypot(x - 60, y - 40) < r),
      turned,
    )!;
    return restsHollow.laid!({ view: { setup: { id: 'back' } } as never, rests });
  };
  // 60 mm over 8 mm of wood is 7.5 times, over 3 mm it is 20.
  expect(found(4, 30)).toEqual([]);
  expect(found(9, 30)).toMatchObject([{ rule: 'rests-hollow', severity: 'warning', subject: { setup: 'back' } }]);
  const none = restsOf(
    cutWhere(2, () => true),
    turned,
  )!;
  expect(none.share).toBe(0);
  expect(strainOf(none)).toBe(Infinity);
});
