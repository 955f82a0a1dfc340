import fc from 'fast-check';
import { expect, test } from 'vitest';
import { DRAWER } from '../../doc/defaults';
import { HEIGHTS } from '../../plan/plan-test-kit';
import { mostSkim, planSkim, skimDepths } from './plan';
import type { SkimPass } from './schema';

const mill = DRAWER.find((c) => c.id === 'em6')!;
const skim = (change: Partial<SkimPass> = {}): SkimPass => ({
  id: 's',
  kind: 'skim',
  cutter: 'em6',
  stepover: 2.5,
  stepdown: 0.8,
  points: [{ x: 0, y: 0, thickness: 21.5 }],
  ...change,
});

test('every place of the board is passed over in every go, which take at most the stepdown each (property)', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 20, max: 200, noNaN: true }),
      fc.double({ min: 20, max: 200, noNaN: true }),
      fc.double({ min: 0.5, max: 3.1, noNaN: true }),
      fc.double({ min: 0.2, max: 3, noNaN: true }),
      (x, y, stepover, stepdown) => {
        const pass = skim({ stepover, stepdown });
        const board = { x, y, thickness: 20 };
        const d = planSkim(pass, mill, board, HEIGHTS).data;
        const { high, skims } = skimDepths(pass, 20);
        expect(high).toBeCloseTo(1.5, 9);
        const rows = new Map<number, number[]>();
        for (let k = 4; k < d.length; k += 4) {
          if (d[k + 3] === 0) continue;
          const long = Math.abs(d[k] - d[k - 4]);
          if (long < 1e-9) {
            // Down and across only beside the board.
            expect(d[k] < -3.175 || d[k] > x + 3.175).toBe(true);
            continue;
          }
          expect(long).toBeCloseTo(x + 2 * (3.175 + 1), 6);
          expect(d[k + 1]).toBe(d[k - 3]);
          rows.set(d[k + 2], [...(rows.get(d[k + 2]) ?? []), d[k + 1]]);
        }
        const levels = [...rows.keys()].sort((a, b) => b - a);
        expect(levels).toHaveLength(skims);
        levels.forEach((z, i) => {
          expect((levels[i - 1] ?? high) - z).toBeLessThanOrEqual(stepdown + 1e-9);
          const ys = rows.get(z)!.sort((a, b) => a - b);
          expect(ys[0]).toBe(0);
          expect(ys.at(-1)).toBeCloseTo(y, 9);
          for (let k = 1; k < ys.length; k++) expect(ys[k] - ys[k - 1]).toBeLessThanOrEqual(stepover + 1e-9);
        });
        expect(levels.at(-1)).toBeCloseTo(0, 9);
        expect(d[d.length - 2]).toBe(HEIGHTS.everything);
      },
    ),
    { numRuns: 20 },
  );
});

test('a board that is as thin as it is to be is left alone; one that is too uneven is more than the bit passes over', () => {
  expect(
    planSkim(skim({ points: [{ x: 0, y: 0, thickness: 20 }] }), mill, { x: 50, y: 50, thickness: 20 }, HEIGHTS).moves,
  ).toBe(0);
  expect(mostSkim(HEIGHTS)).toBeLessThan(HEIGHTS.everything);
  expect(skimDepths(skim(), 19.99).skims).toBe(2);
});
