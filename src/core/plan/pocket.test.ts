import { describe, expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import type { Cutter } from '../cutter/cutter';
import { HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { applyEdits } from '../doc/edits';
import { cellPlace } from '../field/height-field';
import type { PocketPass } from '../passes/pocket/schema';
import type { SetupView } from '../setup/view';
import { changed, drawerBit, errorsOf, plainSetup, planShapes, proposed, type SetupPlan } from './plan-test-kit';

const BOARD = { x: 100, y: 80, thickness: 19, material: materialNamed('maple') };
const CENTRE = { x: 50, y: 40 };

/** A sunk board with nothing on it but outlines that are carved half a millimetre deep, less than pockets. */
function board(change: (p: PocketPass, v: SetupView) => void = () => {}, bit: Cutter = drawerBit('em6')): SetupView {
  const job = plainSetup({
    name: 'Pocket',
    order: '',
    machine: HOBBY_MACHINE,
    rough: bit,
    finish: drawerBit('ball3'),
    board: BOARD,
  });
  job.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
  job.cell = 0.2;
  job.layers = [
    {
      ...newShape({ id: 'in', name: 'in' }, { kind: 'rectangle' }, { kind: 'flat' }, BOARD),
      size: { x: 50, y: 36 },
      centre: CENTRE,
      rise: 0.5,
      join: 'carve',
    },
  ];
  const pass = { ...proposed('pocket', job, bit), depth: 7 };
  pass.outline = { ...pass.outline, of: ['in'] };
  change(pass, job);
  job.passes = [pass];
  return job;
}

/** The cut surface's cells within a frame, as [x, y, z]. */
function cellsOf(plan: SetupPlan): [number, number, number][] {
  const { cut } = plan;
  return Array.from(cut.data, (z, k): [number, number, number] => {
    const { x, y } = cellPlace(cut, k);
    return [x, y, z];
  });
}

/** How far across its middle a pocket is open at a height, mm: cells lower than it, along x and along y. */
function widths(plan: SetupPlan, z: number) {
  const { cut } = plan;
  const near = (v: number, w: number) => Math.abs(v - w) <= cut.cell / 2 + 1e-9;
  const all = cellsOf(plan);
  return {
    x: all.filter(([, y, h]) => near(y, CENTRE.y) && h < z).length * cut.cell,
    y: all.filter(([x, , h]) => near(x, CENTRE.x) && h < z).length * cut.cell,
  };
}

describe('a pocket', () => {
  test.each([
    ['exactly on its line', 0],
    ['with room for an inlay', 0.15],
    ['narrower than its line', -0.4],
  ])('is as wide as asked for, %s, and its floor is level', async (_, allowance) => {
    const plan = await planShapes(board((p) => (p.allowance = allowance)));
    expect(errorsOf(plan)).toEqual([]);
    const { x, y } = widths(plan, -3);
    // A wall is known to half a cell on either side.
    expect(Math.abs(x - (50 + 2 * allowance))).toBeLessThanOrEqual(plan.cut.cell + 1e-6);
    expect(Math.abs(y - (36 + 2 * allowance))).toBeLessThanOrEqual(plan.cut.cell + 1e-6);
    const wrong = cellsOf(plan).filter(([px, py, z]) => {
      const beyond = Math.max(Math.abs(px - 50) - 25, Math.abs(py - 40) - 18) - allowance;
      const least = Math.min(Math.abs(px - 50) - 25, Math.abs(py - 40) - 18) - allowance;
      if (beyond > plan.cut.cell) return z !== 0;
      // Its corners stay as round as the bit.
      return beyond < -plan.cut.cell && beyond + least < -6.35 && Math.abs(z + 7) > 0.0005;
    });
    expect(wrong).toEqual([]);
  });

  test('the wall is on its line to a hundredth: the last lap of the program runs a radius inside it', async () => {
    const plan = await planShapes(board((p) => (p.allowance = 0.12)));
    const text = plan.summary.programs[0].text;
    const lap = text.slice(text.indexOf('last lap'));
    const xs = [...lap.matchAll(/X(-?[\d.]+)/g)].map(([, v]) => Number(v));
    const span = Math.max(...xs) - Math.min(...xs) + 6.35;
    expect(Math.abs(span - 50.24)).toBeLessThan(0.01);
  });

  test('an island in it stays, as high as the board', async () => {
    const job = board((p, v) => {
      v.layers.push({
        ...structuredClone(v.layers[0]),
        id: 'island',
        name: 'island',
        join: 'stack',
        source: newShape({ id: 'i', name: 'i' }, { kind: 'oval' }, { kind: 'flat' }, BOARD).source,
        size: { x: 12, y: 12 },
      });
      p.outline.less = ['island'];
    });
    const plan = await planShapes(job);
    expect(errorsOf(plan)).toEqual([]);
    for (const [x, y, z] of cellsOf(plan)) {
      const r = Math.hypot(x - 50, y - 40);
      if (r < 6 - plan.cut.cell) expect(z).toBe(0);
      if (r > 6 + plan.cut.cell && r < 15) expect(z).toBeCloseTo(-7, 3);
    }
  });

  test('a ball leaves its own radius at the foot, and is on the line at the top', async () => {
    const ball = { ...drawerBit('ball6'), maxStepdown: 3 };
    const plan = await planShapes(board((p) => Object.assign(p, { depth: 5, stepover: 0.6, stepdown: 2.5 }), ball));
    expect(errorsOf(plan)).toEqual([]);
    const R = 3.175;
    for (const [x, y, z] of cellsOf(plan)) {
      if (Math.abs(y - 40) > 10) continue;
      // Distance inside the wall, and the ball's height over its tip there (a circle).
      const inside = 25 - Math.abs(x - 50);
      if (inside < plan.cut.cell || inside > 20) continue;
      const foot = inside < R ? R - Math.sqrt(R * R - (R - inside) ** 2) : 0;
      // Ridges stand over the floor between rings, which wander by half a cell.
      if (Math.abs(inside - R) > 0.3 && inside > 0.6)
        expect(Math.abs(z - (-5 + foot))).toBeLessThan(inside < R ? 0.12 : 0.05);
    }
  });

  test('what its bit does not get into is told, and a smaller one follows in the corners alone', async () => {
    const job = board((_, v) => v.cutters.push({ ...drawerBit('em3'), fluteLength: 12 }));
    const first = await planShapes(job);
    const rest = first.summary.findings.find((f) => f.rule === 'pocket-rest')!;
    // Four corners of (1 - pi / 4) r2 each.
    expect(rest.figures!.area).toBeCloseTo(4 * (1 - Math.PI / 4) * 3.175 ** 2, 1);
    const both = changed(job, {});
    applyEdits(both.document, rest.fixes[0].edits);
    const plan = await planShapes(both);
    expect(errorsOf(plan)).toEqual([]);
    // What is told is what the smaller one leaves.
    const told = plan.summary.findings.filter((f) => f.rule === 'pocket-rest');
    expect(told.map((f) => Number(f.figures!.area).toFixed(1))).toEqual([
      (4 * (1 - Math.PI / 4) * 1.5875 ** 2).toFixed(1),
    ]);
    const [one, two] = plan.summary.passes;
    // Four corners of a few millimetres each, level by level.
    expect(two.cutLength).toBeLessThan(0.3 * one.cutLength);
    const reach = 1.5875;
    for (const [x, y, z] of cellsOf(plan)) {
      const [a, b] = [25 - Math.abs(x - 50), 18 - Math.abs(y - 40)];
      // Outside of the small bit's own corners everything is at the floor.
      if (a > plan.cut.cell && b > plan.cut.cell && (a > reach || b > reach)) expect(z).toBeCloseTo(-7, 2);
    }
  });

  test('one that is just as wide as its bit is cut level by level, without a plunge or a bite', async () => {
    const bit = drawerBit('em6');
    const plan = await planShapes(board((_, v) => Object.assign(v.layers[0], { size: { x: 50, y: 6.5 } })));
    expect(plan.summary.findings.filter((f) => ['bite', 'plunge-deep', 'load', 'chip-area'].includes(f.rule))).toEqual(
      [],
    );
    expect(errorsOf(plan)).toEqual([]);
    const { y } = widths(plan, -3);
    expect(Math.abs(y - 6.5)).toBeLessThanOrEqual(0.2 + 1e-6);
    expect(bit.diameter).toBeLessThan(6.5);
  });

  test('a bit wider than the outline does not get in', async () => {
    const plan = await planShapes(board((_, v) => Object.assign(v.layers[0], { size: { x: 50, y: 5 } })));
    expect(plan.summary.findings.map((f) => f.rule)).toContain('pocket-narrow');
  });
});
