import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import type { Cutter } from '../cutter/cutter';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { cutoutDepths, depthOfLap } from '../passes/cutout/depths';
import type { CutoutPass } from '../passes/cutout/schema';
import { orderProblem } from '../passes/order';
import type { SetupView } from '../setup/view';
import { cutoutFacts } from './plan-passes';
import { changed, errorsOf, plainSetup, planShapes, proposed, wrongIn } from './plan-test-kit';

const mill: Cutter = DRAWER.find((c) => c.id === 'em6')!;
const ball: Cutter = DRAWER.find((c) => c.id === 'ball6')!;
/** A rounded panel of 80 x 50, 6 mm high, in a board of 19. */
function panel(change: (p: CutoutPass, j: SetupView) => void = () => {}): SetupView {
  const board = { x: 120, y: 90, thickness: 19, material: materialNamed('maple') };
  const job = plainSetup({ name: 'Panel', order: '', machine: HOBBY_MACHINE, rough: mill, finish: ball, board });
  job.layers = [
    {
      ...newShape({ id: 'panel', name: 'panel' }, { kind: 'rounded', radius: 12 }, { kind: 'flat' }, board),
      size: { x: 80, y: 50 },
      rise: 6,
    },
  ];
  job.cell = 0.2;
  const cutout = proposed('cutout', job, mill);
  change(cutout, job);
  job.passes.push(cutout);
  return job;
}
const planned = (change?: Parameters<typeof panel>[0]) => planShapes(panel(change));

/** Wood of one thickness, mm. */
const even = (thickness: number) => ({ most: thickness, least: thickness });

test('the cut-out leaves the piece joined by its tabs alone, each of the section that was asked for', async () => {
  const plan = await planned();
  expect(errorsOf(plan)).toEqual([]);
  const [c] = plan.summary.cutouts;
  expect(c.joined).toBeNull();
  expect(c.tabs).toHaveLength(4);
  for (const t of c.tabs) {
    expect(Math.abs(t.thickness - 6.3)).toBeLessThan(0.02);
    expect(Math.abs(t.length - 9)).toBeLessThan(0.4);
    expect(t.section).toBeGreaterThan(9 * 6.3);
    // On the straight runs: the corners' roundings begin 12 mm from the panel's corners.
    expect(Math.abs(t.x - 60) < 28 || Math.abs(t.y - 45) < 13).toBe(true);
  }
  const facts = cutoutFacts(plan.summary.passes.find((p) => p.kind === 'cutout'))!;
  // The trench is open: all of it to within what roughing and the ball leave standing there.
  expect(facts.start).toBeLessThan(-4);
  expect(facts.start).toBeGreaterThan(-6.1);
  expect(facts.bottom).toBe(-19.5);
  expect(facts.levels).toBe(Math.ceil((facts.start + 19.5) / 2.54));
  // The thinnest place is of the piece, not of the slot.
  expect(plan.summary.thinnest).toBeGreaterThanOrEqual(13 - 1e-3);
  // Written with arcs, and read back as such.
  expect(plan.summary.programs.at(-1)!.text.match(/^G[23] /gm)!.length).toBeGreaterThan(20);
});

test('depths add up to the board, and laps are counted from the stepdown', () => {
  // Common practice, no source: started 0.75 in down in a 1 in board, 0.25 in is left; passes = ceil(depth / stepdown).
  const pass = { ...proposed('cutout', panel(), mill), into: 0, floor: 0, stepdown: 3.175 };
  const d = cutoutDepths(pass, even(25.4), -19.05, mill);
  expect(d.bottom).toBe(-25.4);
  expect(-19.05 - d.bottom).toBeCloseTo(6.35, 9);
  expect(d.levels).toBe(2);
  expect(cutoutDepths({ ...pass, into: 0.5 }, even(25.4), -19.05, mill).levels).toBe(3);
  expect(cutoutDepths(pass, even(25.4), 0, mill).levels).toBe(8);
  // Two stages: the first leaves its floor, and tabs are never higher than what stands.
  const two = cutoutDepths({ ...pass, floor: 0.8, tabs: { ...pass.tabs, thickness: 10 } }, even(25.4), -19.05, mill);
  expect(two).toMatchObject({ floor: -25.4 + 0.8, bottom: -25.4, levels: 2, tabTop: -19.05 });
});

test('the first lap of a compression bit goes deeper than its upcut part, and the rest in even laps', () => {
  const pass = { ...proposed('cutout', panel(), mill), into: 0, floor: 0, stepdown: 3 };
  const bit = { ...mill, helix: 'compression' as const, upcut: 5, maxStepdown: 8 };
  const d = cutoutDepths(pass, even(20), 0, bit);
  expect(d.first).toBe(5.5);
  expect(d.levels).toBe(1 + Math.ceil(14.5 / 3));
  expect([1, 2, 6].map((n) => depthOfLap(d, n))).toEqual([-5.5, -5.5 - 14.5 / 5, -20]);
  // A diameter where the part is not known; never deeper than the bit bears or the board is; other bits go down evenly.
  expect(cutoutDepths(pass, even(20), 0, { ...bit, upcut: 0 }).first).toBeCloseTo(mill.diameter + 0.5, 9);
  expect(cutoutDepths(pass, even(20), 0, { ...bit, maxStepdown: 4 }).first).toBe(4);
  expect(cutoutDepths(pass, even(4), 0, bit)).toMatchObject({ first: 4, levels: 1 });
  expect(cutoutDepths(pass, even(20), 0, mill)).toMatchObject({ first: 20 / 7, levels: 7 });
});

test('a compression bit whose first lap stays in its upcut part is told, and another is not', async () => {
  const view = panel();
  const bit = { ...mill, id: 'comp', number: 9, helix: 'compression' as const, upcut: 9, maxStepdown: 3.175 };
  view.cutters.push(bit);
  const pass = { ...proposed('cutout', view, bit), id: 'out' };
  view.passes = [pass];
  const told = async (v: SetupView) => (await planShapes(v)).summary.findings.filter((f) => f.rule === 'upcut-lap');
  expect((await told(view)).map((f) => f.figures)).toMatchObject([{ first: 3.175, upcut: 9 }]);
  expect(await told(changed(view, { cutters: [{ ...bit, upcut: 2 }] }))).toEqual([]);
});

test.each<[string, (p: CutoutPass, j: SetupView) => void]>([
  ['from the top', (p) => Object.assign(p, { start: 'top' })],
  [
    'with upright tabs, few and long',
    (p) => Object.assign(p, { tabs: { count: 2, length: 20, thickness: 4, sloped: false, at: null } }),
  ],
  ['in two stages', (p) => Object.assign(p, { last: 0.4, floor: 0.8 })],
  ['with nothing left at the side', (p) => Object.assign(p, { last: 0 })],
  ['with a floor and nothing at the side', (p) => Object.assign(p, { last: 0, floor: 0.5 })],
  ['on the line of a larger outline', (p) => Object.assign(p, { side: 'on', outline: { ...p.outline, grow: 5 } })],
  ['with sharp corners, larger', (p) => Object.assign(p, { outline: { ...p.outline, grow: 3, corner: 'sharp' } })],
  [
    'with a hole in it',
    (p, j) => {
      j.layers.push({
        ...newShape({ id: 'hole', name: 'hole' }, { kind: 'circle' }, { kind: 'flat' }, j.board),
        size: { x: 24, y: 24 },
        join: 'carve',
        rise: 2,
      });
      p.outline = { ...p.outline, holes: true, less: ['hole'] };
    },
  ],
  [
    'inside a circle',
    (p, j) => {
      j.layers[0] = { ...j.layers[0], size: { x: 60, y: 60 }, centre: { x: 60, y: 45 } };
      Object.assign(p, { side: 'inside', outline: { ...p.outline, grow: -8 } });
    },
  ],
])('a cut-out %s: the proof finds no gouge, no rapid in wood, and only tabs between the sides', async (_, change) => {
  const plan = await planned(change);
  expect(errorsOf(plan)).toEqual([]);
  // No lap, no way in or out bites deeper than the bit may.
  expect(plan.summary.findings.map((f) => f.rule)).not.toContain('bite');
  const { tabs } = cutoutFacts(plan.summary.passes.find((p) => p.kind === 'cutout'))!;
  const [c] = plan.summary.cutouts;
  expect(c.joined).toBeNull();
  expect(c.tabs).toHaveLength(tabs.length);
  const pass = panel(change).passes.at(-1) as CutoutPass;
  for (const t of c.tabs) {
    expect(Math.abs(t.thickness - pass.tabs.thickness)).toBeLessThan(0.02);
    // Along the tip's line; around a small circle the chord is a little shorter than the arc.
    expect(Math.abs(t.length - pass.tabs.length)).toBeLessThan(0.6);
  }
});

test('without tabs it is said that the piece comes loose; tabs go where the hand sets them', async () => {
  const loose = await planned((p) => Object.assign(p.tabs, { count: 0 }));
  expect(loose.summary.findings.map((f) => f.rule)).toContain('no-tabs');
  const set = await planned((p) => Object.assign(p.tabs, { count: 1, at: [{ x: 75, y: 10 }] }));
  const [t] = set.summary.cutouts[0].tabs;
  expect(t.x).toBeCloseTo(75, 3);
  expect(t.y).toBeCloseTo(20 - 3.175, 3);
});

test('what cannot be cut out is refused with the reason', () => {
  const said = (change: Parameters<typeof panel>[0]) => wrongIn(panel(change));
  expect(said(() => {})).toBe('');
  expect(said((p) => Object.assign(p, { cutter: ball.id }))).toContain('a cut-out needs an end mill');
  expect(said((p) => Object.assign(p, { outline: { ...p.outline, of: ['gone'] } }))).toContain(
    '"gone", which is not on this board',
  );
  expect(said((p) => Object.assign(p.tabs, { at: [{ x: 1, y: 1 }] }))).toContain('4 tabs, but places for 1');
  expect(said((p) => Object.assign(p, { floor: 9 }))).toContain('thicker than the tabs');
  expect(orderProblem([{ kind: 'cutout' }, { kind: 'finish' }])).toBe(
    'finishing after the cut-out would work on a piece that hangs by its tabs only',
  );
});
