import { beforeAll, describe, expect, test } from 'vitest';
import { drawerBit, type SetupPlan } from '../src/core/plan/plan-test-kit';
import { barOf } from '../src/core/proof/bar';
import { planDemo } from './acceptance-test-kit';
import { deepestOf, overReach } from './round-test-kit';

describe('the rolling pin: 300 x 50 mm, a comb and bees all around, 3.175 ball along it', () => {
  let plan: SetupPlan;
  beforeAll(async () => {
    ({ plan } = await planDemo('OE-108'));
  });

  test('nothing is told of it, and nothing is cut deeper than 0.02 mm along the normal', () => {
    expect(plan.summary.findings.map((f) => f.rule)).toEqual([]);
    expect(deepestOf(plan)).toBeGreaterThan(-0.02);
  });

  test('it is cut within 0.03 mm along the normal of what its ball can reach, away from wood that stays, and meets itself at the seam', () => {
    const { width, height } = plan.cut;
    expect(overReach(plan, drawerBit('ball3'))).toBeLessThan(0.03);
    // From the last row to the first the surface goes on as it does between any two rows.
    const step = (j: number) => {
      let most = 0;
      for (let i = 0; i < width; i++)
        most = Math.max(most, Math.abs(plan.cut.data[j * width + i] - plan.cut.data[((j + 1) % height) * width + i]));
      return most;
    };
    const steps = Array.from({ length: height }, (_, j) => step(j));
    expect(steps[height - 1]).toBeLessThanOrEqual(Math.max(...steps.slice(0, -1)));
  });

  test('a core stays, and the hours are those of a morning', () => {
    expect(plan.summary.thinnest).toBeGreaterThan(22);
    expect(plan.summary.seconds / 3600).toBeGreaterThan(1);
    expect(plan.summary.seconds / 3600).toBeLessThan(3);
  });
});

describe('the peel handle: square stock turned round, a contour, flutes, a flat with two screw holes, sawn off at both ends', () => {
  let plan: SetupPlan;
  beforeAll(async () => {
    ({ plan } = await planDemo('OE-109'));
  });

  test('nothing is told of it, it is cut within 0.03 mm of what its ball can reach and nowhere deeper than 0.02 mm, along the normal', () => {
    expect(plan.summary.findings.map((f) => f.rule)).toEqual([]);
    expect(deepestOf(plan)).toBeGreaterThan(-0.02);
    expect(overReach(plan, drawerBit('ball6'))).toBeLessThan(0.03);
  });

  test('its passes come in the order of the work, in as many programs as bits are changed, and the cut-off leaves 8 mm', () => {
    expect(plan.summary.passes.map((p) => p.id)).toEqual(['turn', 'rough', 'finish', 'hole', 'part']);
    expect(plan.summary.programs.map((p) => p.passes)).toEqual([['turn', 'rough'], ['finish'], ['hole'], ['part']]);
    const bar = barOf(plan.cut, 16);
    expect(bar?.core.radius).toBeCloseTo(4, 1);
  });

  test('the flat is one plane, 10 mm from the axis, on both sides of the seam', () => {
    const { width, height, cell, originX, originY, data } = plan.cut;
    let seen = 0;
    for (let j = 0; j < height; j++)
      for (let i = 0; i < width; i++) {
        const [x, y] = [originX + i * cell, originY + j * cell];
        const turn = y / 16 > Math.PI ? y / 16 - 2 * Math.PI : y / 16;
        // Away from its walls, its rim and the holes.
        if (x < 58 || x > 68 || Math.abs(turn) > 0.6) continue;
        seen++;
        const off = (16 + data[j * width + i]) * Math.cos(turn) - 10;
        expect(Math.abs(off)).toBeLessThan(0.03);
      }
    expect(seen).toBeGreaterThan(5_000);
  });
});
