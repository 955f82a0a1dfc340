import { beforeAll, describe, expect, test } from 'vitest';
import { MASK } from '../src/core/arrange/target';
import { errorsOf } from '../src/core/plan/plan-test-kit';
import { onCell, placesMet, planDemo, plaqueTests } from './acceptance-test-kit';

// What of the sample jobs is soon planned. All of them at their own cells, and the plaque in its own size, stand in acceptance.full.test.ts.

describe('the relief of the demo plaque on a board of 110 x 80 mm, 6.35 end mill, 3.175 ball, 8 % stepover', () => {
  plaqueTests(
    () =>
      planDemo('OE-101', (view) => {
        Object.assign(view.board, { x: 110, y: 80 });
        const [layer] = view.layers;
        layer.size = { x: layer.size.x / 3, y: layer.size.y / 3 };
        layer.centre = { x: 55, y: 40 };
        layer.rise /= 2;
      }),
    1e5,
  );
});

test('the cookie mould leaves the top around it untouched', async () => {
  const { plan } = await planDemo('OE-103', onCell(0.2));
  let kept = 0;
  let touched = 0;
  plan.mask.forEach((m, k) => {
    if (m !== MASK.keep) return;
    kept++;
    if (plan.cut.data[k] !== 0) touched++;
  });
  expect(touched).toBe(0);
  expect(kept / plan.mask.length).toBeGreaterThan(0.5);
  expect(plan.summary.deepest).toBeCloseTo(9, 1);
  expect(errorsOf(plan)).toEqual([]);
});

describe('the bread stamp', () => {
  let demo: Awaited<ReturnType<typeof planDemo>>;
  beforeAll(async () => {
    demo = await planDemo('OE-105', onCell(0.25));
  });

  test('both faces are proven in one solid, the web is what both leave, and the disc hangs on its tabs', () => {
    const { summary } = demo.whole;
    expect(summary.findings.filter((f) => f.severity !== 'note').map((f) => f.rule)).toEqual([]);
    // 18 mm less 6 mm of each side: the disc's rise and its motif's, down to the ground around it.
    expect(Math.abs(summary.boards[0].thinnest - 6)).toBeLessThan(0.05);
    expect(summary.boards[0].openings).toEqual([]);
    const [cut] = summary.setups[1].cutouts;
    expect(cut.joined).toBeNull();
    expect(cut.tabs).toHaveLength(4);
    for (const t of cut.tabs) {
      expect(t.holds).toBe(true);
      expect(Math.abs(t.thickness - 3)).toBeLessThan(0.25);
    }
  });

  test('an independent reader and half a turn of space find the back where the solid has it (rigid motion)', () => {
    expect(placesMet(demo, 0)).toBeGreaterThan(20_000);
  });
});
