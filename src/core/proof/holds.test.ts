import { expect, test } from 'vitest';
import { type HeightField, makeField } from '../field/height-field';
import { whatHolds } from './holds';

/** A board of 60 x 40 x 10 mm in which a trench of 4 mm is cut around 30 x 16 mm; `floor` is what is left under the trench at a place. */
function trenched(floor: (x: number, y: number) => number, cell = 0.1): HeightField {
  const wood = makeField({ width: 60 / cell, height: 40 / cell, cell, originX: cell / 2, originY: cell / 2 }, 10);
  for (let k = 0; k < wood.data.length; k++) {
    const x = wood.originX + (k % wood.width) * cell;
    const y = wood.originY + Math.floor(k / wood.width) * cell;
    const [dx, dy] = [Math.abs(x - 30) - 15, Math.abs(y - 20) - 8];
    if (Math.max(dx, dy) > 0 && Math.max(dx, dy) < 4) wood.data[k] = floor(x, y);
  }
  return wood;
}

test('a whole board, and a trench with a stout floor, hold', () => {
  expect(
    whatHolds(
      trenched(() => 10),
      [],
    ),
  ).toEqual({ loose: [], weak: [] });
  expect(
    whatHolds(
      trenched(() => 2),
      [],
    ),
  ).toEqual({ loose: [], weak: [] });
});

test('a trench that goes through frees the piece inside; its area and a place in it are told', () => {
  const { loose, weak } = whatHolds(
    trenched(() => 0),
    [],
  );
  expect(weak).toEqual([]);
  expect(loose).toHaveLength(1);
  expect(loose[0].area).toBeCloseTo(30 * 16, 0);
  expect(Math.abs(loose[0].x - 30)).toBeLessThan(15);
  expect(Math.abs(loose[0].y - 20)).toBeLessThan(8);
});

test('a skin of a quarter millimetre holds a piece hardly: how thick, and by what section', () => {
  const { loose, weak } = whatHolds(
    trenched(() => 0.25),
    [],
  );
  expect(loose).toEqual([]);
  expect(weak).toHaveLength(1);
  expect(Math.abs(weak[0].neck - 0.25)).toBeLessThan(0.06);
  // Right around the piece, where the way is shortest: 2 (30 + 16) mm of it; a lattice tells lengths along its axes 5 % short.
  expect(weak[0].section / (0.25 * 92)).toBeGreaterThan(0.93);
  expect(weak[0].section / (0.25 * 92)).toBeLessThan(1.03);
});

test('a rib that is high but narrow is a neck too', () => {
  // 0.6 mm of board on either side of y = 20.3 crosses the trench to the right.
  const { weak } = whatHolds(
    trenched((x, y) => (x > 45 && Math.abs(y - 20.25) < 0.3 ? 10 : 0), 0.05),
    [],
  );
  expect(weak).toHaveLength(1);
  expect(weak[0].neck).toBeGreaterThan(0.15);
  expect(weak[0].neck).toBeLessThan(0.65);
  // What is averaged away at its sides makes it narrower, never wider.
  expect(weak[0].section).toBeLessThan(6.1);
  expect(weak[0].section).toBeGreaterThan(3);
});

test('what a clamp stands on is held, and what was the frame then flies; chips do not count', () => {
  const clamp = {
    id: 'c',
    kind: 'clamp' as const,
    outline: [
      { x: 25, y: 18 },
      { x: 35, y: 22 },
    ],
    height: 10,
    keptFree: 5,
  };
  const { loose } = whatHolds(
    trenched(() => 0),
    [clamp],
  );
  expect(loose).toHaveLength(1);
  expect(loose[0].area).toBeCloseTo(60 * 40 - 38 * 24, 0);
  // Tape is no clamp: it is judged by who asks.
  expect(
    whatHolds(
      trenched(() => 0),
      [{ ...clamp, kind: 'tape' }],
    ).loose[0].area,
  ).toBeCloseTo(480, 0);
  const chip = trenched(() => 0);
  for (let k = 0; k < chip.data.length; k++) {
    const [x, y] = [chip.originX + (k % chip.width) * 0.1, chip.originY + Math.floor(k / chip.width) * 0.1];
    if (Math.abs(x - 30) < 15 && Math.abs(y - 20) < 8 && (x > 19 || y > 14)) chip.data[k] = 0;
  }
  expect(whatHolds(chip, []).loose).toHaveLength(0);
});
