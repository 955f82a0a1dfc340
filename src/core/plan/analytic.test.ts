import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { profileOf } from '../cutter/cutter';
import { materialNamed, SHOP_MACHINE } from '../doc/defaults';
import type { ReliefOf } from '../doc/relief-of';
import { sweptOver } from '../kernels/dense-test-kit';
import { MOTION, readProgram } from '../program/reader';
import { drawerBit, errorsOf, plainSetup, planWhole } from './plan-test-kit';
import { plotsOf } from './plots';

/** A form on a disc in closed form: its height over its foot and its slope at r mm from the middle, and between which r it is asked. */
interface Known {
  relief: ReliefOf;
  radius: number;
  rise: number;
  between: [number, number];
  height(r: number): number;
  slope(r: number): number;
}

const FORMS: Record<string, Known> = {
  // Half of an ellipsoid.
  dome: {
    relief: { kind: 'dome' },
    radius: 9,
    rise: 3,
    between: [0, 7],
    height: (r) => 3 * Math.sqrt(1 - (r / 9) ** 2),
    slope: (r) => (-3 * r) / 81 / Math.sqrt(1 - (r / 9) ** 2),
  },
  // A round of 2 mm bent into a ring, its upper half.
  torus: {
    relief: { kind: 'bead', width: 4, band: true },
    radius: 9,
    rise: 2,
    between: [5.6, 8.4],
    height: (r) => Math.sqrt(4 - (r - 7) ** 2),
    slope: (r) => -(r - 7) / Math.sqrt(4 - (r - 7) ** 2),
  },
  // Rings as a stone leaves them in water, wider than the ball.
  wave: {
    relief: { kind: 'ripples', pitch: 9 },
    radius: 11,
    rise: 1,
    between: [0, 10],
    height: (r) => (1 + Math.cos((2 * Math.PI * r) / 9)) / 2,
    slope: (r) => (-Math.PI / 9) * Math.sin((2 * Math.PI * r) / 9),
  },
};

/** Forms on a board, planned at the cell that a ball of 3.175 mm asks for: every move of the programs, and the height of the base plane. */
async function cutForms(board: { x: number; y: number }, placed: { form: string; x: number; y: number }[]) {
  const view = plainSetup({
    name: 'Forms',
    order: '',
    machine: { ...SHOP_MACHINE, x: 3000, y: 2000 },
    rough: drawerBit('em6'),
    finish: drawerBit('ball3'),
    board: { ...board, thickness: 18, material: materialNamed('maple') },
  });
  view.layers = placed.map(({ form, x, y }, i) => ({
    ...newShape({ id: `form${i}`, name: form }, { kind: 'oval' }, FORMS[form].relief, view.board),
    size: { x: 2 * FORMS[form].radius, y: 2 * FORMS[form].radius },
    centre: { x, y },
    rise: FORMS[form].rise,
  }));
  const plan = await planWhole(view.document);
  expect(errorsOf(plan)).toEqual([]);
  const moves = plan.summary.programs.flatMap((p) => {
    const { motions } = readProgram(p.text, p.file, p.cutter);
    const profile = profileOf(view.cutters.find((c) => c.number === p.cutter)!);
    return Array.from({ length: motions.length / MOTION }, (_, i) => ({
      profile,
      s: motions.subarray(i * MOTION, i * MOTION + 7),
    })).filter(({ s }) => s[6] === 0);
  });
  return { moves, level: plan.summary.setups[0].ground, plots: plotsOf(view.document, view.board).plots.length };
}

/**
 * Errors along the normal at places of no grid, mm, below the surface negative: what the moves leave there by the plain definition, against
 * the closed form.
 */
function errorsAt(
  { moves, level }: Awaited<ReturnType<typeof cutForms>>,
  { form, x, y }: { form: string; x: number; y: number },
): number[] {
  const { between, height, slope } = FORMS[form];
  const out: number[] = [];
  for (let k = 1; k <= 160; k++) {
    // Places that fill the plane evenly, by the golden angle.
    const r = Math.sqrt(between[0] ** 2 + ((between[1] ** 2 - between[0] ** 2) * (k - 0.5)) / 160);
    const [px, py] = [x + r * Math.cos(k * 2.399963), y + r * Math.sin(k * 2.399963)];
    let left = 0;
    for (const { profile, s } of moves) {
      const far = profile.R + 1e-6;
      if (Math.max(s[0], s[3]) < px - far || Math.min(s[0], s[3]) > px + far) continue;
      if (Math.max(s[1], s[4]) < py - far || Math.min(s[1], s[4]) > py + far) continue;
      if (Math.min(s[2], s[5]) >= left) continue;
      left = Math.min(left, sweptOver(profile, s, px, py, 24)?.z ?? 0);
    }
    out.push((left - level - height(r)) / Math.hypot(1, slope(r)));
  }
  return out;
}

/** Outlines are flattened within this, inwards, mm: a disc's own radius is not quite that of its circle. */
const FLATTENED = 0.005;

test.each<[string, { x: number; y: number }, { form: string; x: number; y: number }[], number]>([
  ['60 x 50 mm', { x: 60, y: 50 }, [{ form: 'wave', x: 30, y: 25 }], 1],
  [
    '900 x 600 mm',
    { x: 900, y: 600 },
    [
      { form: 'dome', x: 120.03, y: 80.07 },
      { form: 'torus', x: 700, y: 500 },
    ],
    2,
  ],
  [
    '2400 x 1200 mm',
    { x: 2400, y: 1200 },
    [
      { form: 'dome', x: 200, y: 1000 },
      { form: 'wave', x: 2200.02, y: 150.05 },
    ],
    2,
  ],
])(
  'a board of %s: a dome, a torus and a wave are met within 0.02 mm along the normal, by their closed forms',
  async (_, board, placed, plots) => {
    const cut = await cutForms(board, placed);
    expect(cut.plots).toBe(plots);
    for (const p of placed) {
      const errors = errorsAt(cut, p);
      expect(Math.min(...errors), p.form).toBeGreaterThan(-0.02 - FLATTENED);
      // Ridges of 8 % of the diameter and the tolerance of thinning.
      expect(errors.reduce((s, e) => s + e, 0) / errors.length, p.form).toBeLessThan(0.02);
      expect(Math.max(...errors), p.form).toBeLessThan(0.06);
    }
  },
);
