import { beforeAll, describe, expect, test } from 'vitest';
import { demoJobOf } from '../../../demo/shop';
import { contentLoader } from '../../server/content';
import { MASK } from '../arrange/target';
import { withEdits } from '../doc/edits';
import type { HeightField } from '../field/height-field';
import { cutterOffset } from '../kernels/cutter-offset';
import type { SetupView } from '../setup/view';
import { setupView } from '../setup/view';
import { errorsOf, planWhole, type SetupPlan, setupPlan } from './plan-test-kit';
import type { Plan } from './summary';
import { variantsOf } from './variants';

/** Ridge of a ball between passes, h = R - sqrt(R^2 - (s / 2)^2): any machining handbook. mm. */
const scallop = (R: number, s: number) => R - Math.sqrt(R * R - (s / 2) ** 2);

/** Plans a demo job in this thread, with nothing stored, on the cell that it works out where none is given. */
async function planDemo(
  order: Parameters<typeof demoJobOf>[0],
  cell?: number,
): Promise<{ job: SetupView; plan: SetupPlan; whole: Plan }> {
  const { job: demo, files } = await demoJobOf(order);
  const job = cell === undefined ? demo : { ...demo, cell };
  const load = contentLoader((h) => files.get(h)!.bytes);
  const whole = await planWhole(job, load);
  return { job: setupView(job), plan: setupPlan(whole), whole };
}

/** Surface left by closing a field with a ball: where the ball fits, it is the field itself. */
function closeWithBall(f: HeightField, R: number): Float32Array {
  const t = (r: number) => R - Math.sqrt(Math.max(0, R * R - r * r));
  const up = cutterOffset(f, R, t).map((v) => -v) as Float32Array;
  return cutterOffset({ ...f, data: up }, R, t).map((v) => -v) as Float32Array;
}

/** The cell that the arranged plaque asks for, and a coarser one, mm: how far a path cuts too deep beside a bend grows with the square of the cell. */
const OWN = 0.099;
const COARSE = 0.2;

const CLIFF = Math.tan((75 * Math.PI) / 180);

describe('the demo plaque: 300 x 200 x 19 mm, 6.35 end mill, 3.175 ball, 8 % stepover', () => {
  let plan: SetupPlan;
  beforeAll(async () => {
    ({ plan } = await planDemo('OE-101'));
  }, 300_000);

  test('nowhere more than 0.02 mm below the target, nowhere more above it than the ridge of the slope and 0.04 mm', () => {
    const { target, cut, mask } = plan;
    const { width: w, height: h, cell } = target;
    const t = target.data;
    const closed = closeWithBall(target, 1.5875);
    let below = 0;
    let above = -Infinity;
    let seen = 0;
    for (let j = 1; j < h - 1; j++) {
      for (let i = 1; i < w - 1; i++) {
        const k = j * w + i;
        if (mask[k] === MASK.waste) continue;
        const steep = Math.max(...[1, -1, w, -w].map((d) => Math.abs(t[k + d] - t[k])));
        if (steep > CLIFF * cell) {
          // One cell sideways is allowed at a wall.
          let low = Infinity;
          for (const a of [-w, 0, w]) for (const b of [-1, 0, 1]) low = Math.min(low, t[k + a + b]);
          below = Math.min(below, cut.data[k] - low);
          continue;
        }
        const gx = (t[k + 1] - t[k - 1]) / (2 * cell);
        const gy = (t[k + w] - t[k - w]) / (2 * cell);
        const cosine = 1 / Math.sqrt(1 + gx * gx + gy * gy);
        const d = (cut.data[k] - t[k]) * cosine;
        below = Math.min(below, d);
        if (mask[k] !== MASK.cut || closed[k] - t[k] > 0.002) continue;
        seen++;
        above = Math.max(above, d - scallop(1.5875, Math.min(3.175, 0.254 / cosine)));
      }
    }
    expect(seen).toBeGreaterThan(1e6);
    expect(below).toBeGreaterThanOrEqual(-0.02);
    // Judged between the cells that the plan has read: what stands at edges between them counts too.
    expect(above).toBeLessThanOrEqual(0.04);
  });

  test('after roughing nowhere less than the stock to leave, less 0.02 mm, to the side as well as below', () => {
    const rough = plan.rough as HeightField;
    const q = 1 - 0.02;
    const grown = cutterOffset(plan.target, q, (r) => q - Math.sqrt(Math.max(0, q * q - r * r)));
    let least = Infinity;
    for (let k = 0; k < grown.length; k++) {
      if (plan.mask[k] === MASK.keep) continue;
      // The board itself ends at 0.
      least = Math.min(least, rough.data[k] - Math.min(0, grown[k] + q));
    }
    expect(least).toBeGreaterThanOrEqual(-1e-4);
  });

  test('nothing is cut where the mask says keep, and the proof has no error', () => {
    let deepest = 0;
    plan.mask.forEach((m, k) => {
      if (m === MASK.keep) deepest = Math.min(deepest, plan.cut.data[k]);
    });
    expect(deepest).toBe(0);
    expect(errorsOf(plan)).toEqual([]);
  });

  test('the figures of its passes are within reach of what prototypes did', () => {
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

test('the cookie mould leaves the top around it untouched', async () => {
  const { plan } = await planDemo('OE-103', 0.2);
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
}, 300_000);

describe('the arranged plaque: flats by the end mill, words by a V bit on the field and along the ribbon, cut out', () => {
  let plan: SetupPlan;
  let job: SetupView;
  beforeAll(async () => {
    ({ plan, job } = await planDemo('OE-100', COARSE));
  }, 300_000);
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
  }, 300_000);

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
  const { plan } = await planDemo('OE-104', 0.25);
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
}, 300_000);

/** Every place that a program feeds to, by a reader of a few lines of its own: X, Y and Z words that last, in mm from the near left corner of the top. */
function placesFed(text: string): [number, number, number][] {
  const at: Record<string, number> = { X: 0, Y: 0, Z: 0, G: 0 };
  const out: [number, number, number][] = [];
  for (const line of text.split('\n').filter((l) => !l.startsWith('('))) {
    for (const [, word, value] of line.matchAll(/([XYZ]|G(?=0*[0123]\b))(-?[\d.]+)/g)) at[word] = Number(value);
    if (at.G > 0 && /[XYZ]/.test(line)) out.push([at.X, at.Y, at.Z]);
  }
  return out;
}

describe('the bread stamp', () => {
  let demo: Awaited<ReturnType<typeof planDemo>>;
  beforeAll(async () => {
    demo = await planDemo('OE-105', 0.25);
  }, 300_000);

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

/**
 * Holds the solid of a board against its programs, through a reader of a few lines and half a turn of space about the line x = W / 2: no wood stands
 * where a tip has been, above it on the face, below it on the back.
 * @returns how many places were looked at
 */
function placesMet({ whole, job }: Awaited<ReturnType<typeof planDemo>>, board: number): number {
  const { x: W, thickness: T, setups } = job.document.boards[board];
  const up = new Map(setups.map((s) => [s.id, s.up]));
  const { grid, top, bottom } = whole.solids[board];
  const k = (x: number, y: number) =>
    Math.round((y - grid.originY) / grid.cell) * grid.width + Math.round((x - grid.originX) / grid.cell);
  let seen = 0;
  for (const { setup, text } of whole.summary.programs) {
    if (!up.has(setup)) continue;
    for (const [x, y, z] of placesFed(text)) {
      if (z > -0.3 || z < -T / 3) continue;
      const face = up.get(setup) === 'face';
      const [sx, sz] = face ? [x, z] : [W - x, -T - z];
      const cell = k(sx, y);
      if (face) expect(top[cell]).toBeLessThan(sz + 0.35);
      else expect(bottom[cell]).toBeGreaterThan(sz - 0.35);
      seen++;
    }
  }
  return seen;
}

test('the bread board: both sides proven in one solid, its slot hollow, its halves meet', async () => {
  const demo = await planDemo('OE-106', 0.25);
  const { summary } = demo.whole;
  expect(summary.findings.filter((f) => f.severity !== 'note').map((f) => f.rule)).toEqual([]);
  const [board] = summary.boards;
  // Where the piece hangs: a recess of 3 mm, a slot 12 mm deep with a head of 3.5 mm leave a lip of 5.5 mm.
  expect(board.thinnest).toBeCloseTo(12 - 3.5 - 3, 1);
  expect(board.undercuts).toHaveLength(1);
  expect(summary.setups.map((s) => s.cutouts.length)).toEqual([0, 1]);
  expect(placesMet(demo, 0)).toBeGreaterThan(2_000);
}, 300_000);

test('four brass tokens and their jig: proven without a bit going straight down into the metal, the pieces on their tabs', async () => {
  const demo = await planDemo('OE-107', 0.1);
  const { summary } = demo.whole;
  expect(summary.findings.filter((f) => f.severity !== 'note').map((f) => f.rule)).toEqual([]);
  expect(summary.boards.map((b) => b.id)).toEqual(['jig', 'board']);
  // A plate of 4 mm, 0.6 mm sunk from each side.
  expect(summary.boards[1].thinnest).toBeCloseTo(4 - 2 * 0.6, 1);
  expect(summary.setups.map((s) => s.cutouts.map((c) => c.tabs.length))).toEqual([[8], [12], []]);
  expect(placesMet(demo, 1)).toBeGreaterThan(5_000);
}, 300_000);
