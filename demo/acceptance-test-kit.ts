import { beforeAll, expect, test } from 'vitest';
import { MASK } from '../src/core/arrange/target';
import type { HeightField } from '../src/core/field/height-field';
import { cutterOffset } from '../src/core/kernels/cutter-offset';
import { errorsOf, planWhole, type SetupPlan, setupPlan } from '../src/core/plan/plan-test-kit';
import type { Plan } from '../src/core/plan/summary';
import type { SetupView } from '../src/core/setup/view';
import { setupView } from '../src/core/setup/view';
import { contentLoader } from '../src/server/content';
import { demoJobOf } from './shop';

/** Ridge of a ball between passes, h = R - sqrt(R^2 - (s / 2)^2): any machining handbook. mm. */
const scallop = (R: number, s: number) => R - Math.sqrt(R * R - (s / 2) ** 2);

/** A job on another cell than its own, mm. */
export const onCell = (cell: number) => (view: SetupView) => {
  view.cell = cell;
};

/** Plans a demo job in this thread, with nothing stored. */
export async function planDemo(
  order: Parameters<typeof demoJobOf>[0],
  change: (view: SetupView) => void = () => {},
): Promise<{ job: SetupView; plan: SetupPlan; whole: Plan }> {
  const { job: demo, files } = await demoJobOf(order);
  const job = structuredClone(demo);
  change(setupView(job));
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

/** Steeper than this is a wall. */
const CLIFF = Math.tan((75 * Math.PI) / 180);

/** How far a proof lies under and over its target, along the normal, mm, less the ridge that a ball leaves; and how many cells were judged. */
function offTarget(plan: SetupPlan): { below: number; above: number; seen: number } {
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
  return { below, above, seen };
}

/**
 * What is asked of a plaque that an end mill of 6.35 mm roughs and a ball of 3.175 mm finishes at 8 %.
 * @param enough how many cells have to be judged at least
 * @returns what gives the plan, within a test
 */
export function plaqueTests(make: () => ReturnType<typeof planDemo>, enough: number): () => SetupPlan {
  let plan: SetupPlan;
  beforeAll(async () => {
    ({ plan } = await make());
  }, 300_000);

  test('nowhere more than 0.02 mm below the target, nowhere more above it than the ridge of the slope and 0.04 mm', () => {
    const { below, above, seen } = offTarget(plan);
    expect(seen).toBeGreaterThan(enough);
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
  return () => plan;
}

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

/**
 * Holds the solid of a board against its programs, through a reader of a few lines and half a turn of space about the line x = W / 2: no wood stands
 * where a tip has been, above it on the face, below it on the back.
 * @returns how many places were looked at
 */
export function placesMet({ whole, job }: Awaited<ReturnType<typeof planDemo>>, board: number): number {
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
