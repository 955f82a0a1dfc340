import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { type Cutter, cutterSchema, profileHeight, profileOf } from '../cutter/cutter';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import type { HolePass } from '../passes/hole/schema';
import type { SetupView } from '../setup/view';
import { errorsOf, plainSetup, planShapes, proposed, wrongIn } from './plan-test-kit';

const bit = (id: string): Cutter => DRAWER.find((c) => c.id === id)!;
const [mill, ball, drill] = [bit('em6'), bit('ball6'), bit('drill6')];

/** A low panel in a board of 100 x 70 x 18, with holes beside it. */
function pinned(cutter: Cutter, change: (p: HolePass, j: SetupView) => void = () => {}): SetupView {
  const board = { x: 100, y: 70, thickness: 18, material: materialNamed('maple') };
  const job = plainSetup({ name: 'Pins', order: '', machine: HOBBY_MACHINE, rough: mill, finish: ball, board });
  job.layers = [
    {
      ...newShape({ id: 'p', name: 'p' }, { kind: 'rectangle' }, { kind: 'flat' }, board),
      size: { x: 40, y: 30 },
      rise: 3,
    },
  ];
  job.cell = 0.2;
  if (!job.cutters.some((c) => c.id === cutter.id)) job.cutters.push(cutter);
  const pass = proposed('hole', job, cutter);
  change(pass, job);
  job.passes.push(pass);
  return job;
}

/** Depth and width of the hole around a place, as the proof left it, mm. */
function holeAt(plan: Awaited<ReturnType<typeof planShapes>>, x: number, y: number) {
  const { cut } = plan;
  let [deepest, area] = [0, 0];
  for (let k = 0; k < cut.data.length; k++) {
    const dx = cut.originX + (k % cut.width) * cut.cell - x;
    const dy = cut.originY + Math.floor(k / cut.width) * cut.cell - y;
    if (Math.hypot(dx, dy) > 9) continue;
    deepest = Math.min(deepest, cut.data[k]);
    if (cut.data[k] < -0.5) area += cut.cell ** 2;
  }
  return { deepest: -deepest, across: 2 * Math.sqrt(area / Math.PI) };
}

test('a drill pecks: as deep as asked, chips cleared between, its point in the wood', async () => {
  const plan = await planShapes(pinned(drill, (p) => Object.assign(p, { depth: 9, peck: 4 })));
  expect(errorsOf(plan)).toEqual([]);
  for (const x of [6, 94]) {
    const h = holeAt(plan, x, 35);
    // The point lies between the middles of cells, 0.14 mm from the nearest at most.
    expect(Math.abs(h.deepest - 9)).toBeLessThan(0.15 / Math.tan((59 * Math.PI) / 180));
    expect(Math.abs(h.across - 6)).toBeLessThan(0.2);
  }
  // 118 degrees is the usual point of a twist drill (common practice, no source): its height is R / tan(59).
  expect(profileHeight(profileOf(drill), 3)).toBeCloseTo(3 / Math.tan((59 * Math.PI) / 180), 9);
  const { text } = plan.summary.programs.at(-1)!;
  // Two holes of ceil(9 / 4) pecks; out of the hole before each but the first.
  expect(text.match(/^(G1 )?Z-\d.* F250$|^G1 Z-[\d.]+( F250)?$/gm)!.length).toBe(6);
  expect(text.match(/^(G0 )?Z1$/gm)!.length).toBe(6);
  expect(Math.abs(plan.summary.thinnest - 9)).toBeLessThan(0.1);
});

test('a wide hole is milled in helices of arcs, right through, and no post is left in its middle', async () => {
  const plan = await planShapes(
    pinned(mill, (p) => Object.assign(p, { diameter: 16, depth: null, peck: 2, places: [{ x: 10, y: 14 }] })),
  );
  expect(errorsOf(plan)).toEqual([]);
  const h = holeAt(plan, 10, 14);
  expect(h.deepest).toBeCloseTo(18.5, 1);
  expect(Math.abs(h.across - 16)).toBeLessThan(0.15);
  const { text } = plan.summary.programs.at(-1)!;
  expect(text.match(/Z-[\d.]+ I\S+ J/g)!.length).toBeGreaterThan(10);
  // All cells under the hole are gone.
  const { cut } = plan;
  for (let k = 0; k < cut.data.length; k++) {
    const r = Math.hypot(cut.originX + (k % cut.width) * 0.2 - 10, cut.originY + Math.floor(k / cut.width) * 0.2 - 14);
    if (r < 7.8) expect(cut.data[k]).toBeCloseTo(-18.5, 4);
  }
  expect(plan.summary.findings.map((f) => f.rule)).not.toContain('bite');
  // The board beside it is as thick as the trench leaves it.
  expect(plan.summary.thinnest).toBeCloseTo(15, 1);
});

test('bits that cannot make the hole are told with the reason', () => {
  const said = (c: Cutter, change: Parameters<typeof pinned>[1]) => wrongIn(pinned(c, change));
  expect(said(drill, () => {})).toBe('');
  expect(said(mill, (p) => Object.assign(p, { diameter: 5 }))).toContain('wider than a hole');
  expect(said(mill, (p) => Object.assign(p, { diameter: 6.35 }))).toContain('does not cut at its centre');
  expect(said(drill, (p) => Object.assign(p, { diameter: 8 }))).toContain('drills holes of 6 mm only');
  expect(said(ball, (p) => Object.assign(p, { diameter: 9 }))).toContain('need a drill or an end mill');
  expect(said(drill, (_, j) => Object.assign(j.passes[1], { cutter: drill.id }))).toContain('makes holes only');
  expect(cutterSchema.safeParse({ ...drill, includedAngle: 0 }).success).toBe(false);
});
