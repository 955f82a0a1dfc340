import { beforeAll, describe, expect, test } from 'vitest';
import { withEdits } from '../src/core/doc/edits';
import { errorsOf, planWhole, type SetupPlan } from '../src/core/plan/plan-test-kit';
import { variantsOf } from '../src/core/plan/variants';
import type { SetupView } from '../src/core/setup/view';
import { contentLoader } from '../src/server/content';
import { onCell, placesMet, planDemo, plaqueTests } from './acceptance-test-kit';
import { demoJobOf } from './shop';

/** The cell that the arranged plaque asks for, and a coarser one, mm: how far a path cuts too deep beside a bend grows with the square of the cell. */
const OWN = 0.099;
const COARSE = 0.2;

describe('the demo plaque: 300 x 200 x 19 mm, 6.35 end mill, 3.175 ball, 8 % stepover', () => {
  const planned = plaqueTests(() => planDemo('OE-101'), 1e6);

  test('the figures of its passes are within reach of what prototypes did', () => {
    const plan = planned();
    const [rough, finish] = plan.summary.passes;
    const ideal = plan.summary.programs[0].volume / (rough.stepdown * rough.stepover * (1800 / 60));
    expect(rough.seconds / ideal).toBeLessThan(1.6);
    // Prototypes reached 1.11 with walls taken at full feed; downwards the tip bounds it, the
    // plunge feed down a wall and more down a slope, and so do the ramps and short rings of levels where more stands than the ball takes at once.
    expect(finish.seconds / (finish.cutLength / (1800 / 60))).toBeLessThan(1.28);
    // Rows make 0.7; rings around steep ground are of shorter moves, and long moves through air are left out.
    expect(finish.moves / finish.cutLength).toBeLessThan(0.8);
    expect(finish.stepover).toBeCloseTo(0.08 * 3.175, 6);
  });
});

describe('the arranged plaque: flats by the end mill, words by a V bit on the field and along the ribbon, cut out', () => {
  let plan: SetupPlan;
  let job: SetupView;
  beforeAll(async () => {
    ({ plan, job } = await planDemo('OE-100', onCell(COARSE)));
  });
  /** Differences of the proof from the target within a box, mm. */
  const within = (x0: number, y0: number, x1: number, y1: number) => {
    const { target: t, cut } = plan;
    let [low, high] = [Infinity, -Infinity];
    for (let k = 0; k < t.data.length; k++) {
      const x = t.originX + (k % t.width) * t.cell;
      const y = t.originY + Math.floor(k / t.width) * t.cell;
      if (x < x0 || x > x1 || y < y0 || y > y1) continue;
      low = Math.min(low, cut.data[k] - t.data[k]);
      high = Math.max(high, cut.data[k] - t.data[k]);
    }
    return { low, high };
  };

  test('the proof, from the programs as written, has no gouge over what its cell allows and no error', () => {
    let deepest = 0;
    for (const d of plan.deviation) deepest = Math.min(deepest, d);
    expect(deepest).toBeGreaterThan(-0.02 * (COARSE / OWN) ** 2);
    // The proof itself holds to 0.02 mm on any cell.
    expect(errorsOf(plan).filter((e) => !e.startsWith('gouge'))).toEqual([]);
  });

  test('the field is level within 0.01 mm', () => {
    // A stretch of the field between the words and the frame, free of layers.
    const { low, high } = within(60, 128, 90, 140);
    expect(low).toBeGreaterThanOrEqual(-0.002);
    expect(high - low).toBeLessThan(0.01);
  });

  test('clearing the field saves minutes against the ball alone: its other way, planned by itself', async () => {
    // Both on a coarse grid, on which the minutes are nearly the same.
    const { job: demo, files } = await demoJobOf('OE-100');
    const own = { ...demo, cell: 0.4 };
    const load = contentLoader((h) => files.get(h)!.bytes);
    const [other] = variantsOf(own, 'face');
    expect(other.id).toBe('without-flats');
    const cleared = await planWhole(own, load);
    const ball = await planWhole(withEdits(own, other.edits), load);
    expect(Math.abs(cleared.summary.seconds / plan.summary.seconds - 1)).toBeLessThan(0.15);
    expect(ball.summary.seconds - cleared.summary.seconds).toBeGreaterThan(4 * 60);
  });

  test('words are cut into the field and into the ribbon, each as deep from its own ground', () => {
    const { cut, target: t } = plan;
    const deepestIn = (id: string) => {
      const l = job.layers.find((o) => o.id === id)!;
      let depth = 0;
      let ground = -Infinity;
      for (let k = 0; k < t.data.length; k++) {
        const x = t.originX + (k % t.width) * t.cell - l.centre.x;
        const y = t.originY + Math.floor(k / t.width) * t.cell - l.centre.y;
        if (Math.abs(x) > l.size.x / 2 || Math.abs(y) > l.size.y / 2) continue;
        depth = Math.min(depth, cut.data[k]);
        ground = Math.max(ground, cut.data[k]);
      }
      return { depth, ground };
    };
    const [field, ribbon] = [deepestIn('flour'), deepestIn('motto')];
    // The field lies 4 mm below the panel's top, which is 1.6 mm below the highest ear; the ribbon stands above it.
    expect(field.ground).toBeCloseTo(-5.6, 1);
    expect(field.depth).toBeLessThan(field.ground - 0.6);
    expect(ribbon.ground).toBeGreaterThan(field.ground + 2);
    expect(ribbon.depth).toBeLessThan(ribbon.ground - 0.6);
  });

  test('the piece hangs by its four tabs alone, each of the section that was asked for', () => {
    const [c] = plan.summary.cutouts;
    expect(c.joined).toBeNull();
    expect(c.tabs).toHaveLength(4);
    for (const t of c.tabs) {
      expect(Math.abs(t.thickness - 6.3)).toBeLessThan(0.02);
      expect(Math.abs(t.length - 20)).toBeLessThan(0.3);
      expect(t.section).toBeGreaterThan(6.3 * 20);
    }
  });
});

test('the scroll bracket: drilled, sawn out by arcs, and held by its tabs', async () => {
  const { plan } = await planDemo('OE-104', onCell(0.25));
  expect(errorsOf(plan)).toEqual([]);
  const [c] = plan.summary.cutouts;
  expect(c.joined).toBeNull();
  expect(c.tabs).toHaveLength(5);
  for (const t of c.tabs) expect(Math.abs(t.length - 12)).toBeLessThan(0.6);
  // Through-holes: nothing of the board is left under them.
  const { cut } = plan;
  const at = (x: number, y: number) =>
    cut.data[Math.round((y - cut.originY) / cut.cell) * cut.width + Math.round((x - cut.originX) / cut.cell)];
  expect(at(34, 86)).toBeLessThan(-18);
  expect(at(250, 90)).toBeLessThan(-18);
  const text = plan.summary.programs.at(-1)!.text;
  expect(text.match(/ I\S+ J/g)!.length).toBeGreaterThan(200);
});

test('the bread board: both sides proven in one solid, its slot hollow, its halves meet', async () => {
  const demo = await planDemo('OE-106', onCell(0.25));
  const { summary } = demo.whole;
  expect(summary.findings.filter((f) => f.severity !== 'note').map((f) => f.rule)).toEqual([]);
  const [board] = summary.boards;
  // Where the piece hangs: a recess of 3 mm, a slot 12 mm deep with a head of 3.5 mm leave a lip of 5.5 mm.
  expect(board.thinnest).toBeCloseTo(12 - 3.5 - 3, 1);
  expect(board.undercuts).toHaveLength(1);
  expect(summary.setups.map((s) => s.cutouts.length)).toEqual([0, 1]);
  expect(placesMet(demo, 0)).toBeGreaterThan(2_000);
});

test('four brass tokens and their jig: proven without a bit going straight down into the metal, the pieces on their tabs', async () => {
  const demo = await planDemo('OE-107', onCell(0.1));
  const { summary } = demo.whole;
  expect(summary.findings.filter((f) => f.severity !== 'note').map((f) => f.rule)).toEqual([]);
  expect(summary.boards.map((b) => b.id)).toEqual(['jig', 'board']);
  // A plate of 4 mm, 0.6 mm sunk from each side.
  expect(summary.boards[1].thinnest).toBeCloseTo(4 - 2 * 0.6, 1);
  expect(summary.setups.map((s) => s.cutouts.map((c) => c.tabs.length))).toEqual([[8], [12], []]);
  expect(placesMet(demo, 1)).toBeGreaterThan(5_000);
});
