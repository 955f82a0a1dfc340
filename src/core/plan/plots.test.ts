import { beforeAll, describe, expect, test } from 'vitest';
import { boundsOf } from '../arrange/place';
import { MASK } from '../arrange/target';
import { applyEdits } from '../doc/edits';
import type { Job } from '../doc/job';
import { WHOLE_PIECE } from '../doc/outline-ref';
import { localHost } from '../kernels/host';
import { addPass } from '../passes/add-pass';
import { MAX_CELLS } from '../passes/cell';
import { readProgram } from '../program/reader';
import type { SetupView } from '../setup/view';
import type { LoadContent } from './composing';
import { planJob } from './pipeline';
import {
  BACK_DISH,
  DISHED,
  dishes,
  drawerBit,
  errorsOf,
  FACE_DISH,
  planWhole,
  setupPlan,
  shapesOnly,
  wrongIn,
} from './plan-test-kit';
import { boxOf, cellsOf, MOST_CELLS, memoryFor, plotsOf, reachesOut } from './plots';
import { CELL, domes, LARGE } from './plots-test-kit';
import { PlanStopped } from './stopped';
import type { Plan } from './summary';
import { oneThread } from './threads';

const plotsIn = (view: SetupView) => plotsOf(view.document, view.board);

describe('where a board is planned', () => {
  test('a small board is one plot; a large one has a plot around every relief, none touching another', () => {
    const small = plotsIn(domes({ x: 300, y: 200 }, [[100, 100]]));
    expect(small.around).toBe(false);
    expect(small.plots[0].grid).toMatchObject({ width: 1000, height: 667, originX: 0.15 });
    const view = domes(LARGE, [
      [300, 300],
      [2000, 300],
      [300, 900],
      [2000, 900],
    ]);
    const { plots, around } = plotsIn(view);
    expect(around).toBe(true);
    expect(plots).toHaveLength(4);
    for (const [i, l] of view.layers.entries()) {
      const [box, own] = [boxOf(plots[i].grid), boundsOf(l)];
      // The trench of a bit of 6.35 mm, and the bit.
      expect(own.x0 - box.x0).toBeGreaterThan(2 * 6.35);
      expect(box.x1 - own.x1).toBeGreaterThan(2 * 6.35);
      expect(box.x1 - box.x0).toBeLessThan(120);
    }
    expect(cellsOf({ plots, around })).toBeLessThan(0.02 * ((LARGE.x * LARGE.y) / CELL ** 2));
  });

  test('reliefs whose trenches meet share a plot; a board that is cut nearly everywhere, or all over, is one', () => {
    expect(
      plotsIn(
        domes(LARGE, [
          [300, 300],
          [360, 300],
        ]),
      ).plots,
    ).toHaveLength(1);
    const wide = domes(LARGE, [[1200, 600]], { x: 2200, y: 1100 });
    expect(plotsIn(wide).around).toBe(false);
    const cleared = domes(LARGE, [[300, 300]]);
    const [rough] = cleared.passes;
    if (rough.kind === 'rough') rough.area = { kind: 'face' };
    expect(plotsIn(cleared).around).toBe(false);
  });

  test('the cell belongs to the plot: the coarsest that the bits working there ask for', () => {
    const view = domes(LARGE, [
      [300, 300],
      [2000, 900],
    ]);
    view.cell = null;
    applyEdits(view.document, addPass(view, 'hole', drawerBit('em6')));
    for (const p of view.passes) {
      if (p.kind === 'finish') p.area = { kind: 'outline', outline: { ...WHOLE_PIECE, of: ['dome0'], grow: 1 } };
      if (p.kind === 'rough') p.area = { kind: 'outline', outline: { ...WHOLE_PIECE, grow: 10 } };
      if (p.kind === 'hole') p.places = [{ x: 1200, y: 600 }];
    }
    const { plots } = plotsIn(view);
    const cellAt = (x: number, y: number) =>
      plots.find(({ grid }) => {
        const b = boxOf(grid);
        return b.x0 < x && x < b.x1 && b.y0 < y && y < b.y1;
      })?.grid.cell;
    expect(cellAt(300, 300)).toBeCloseTo(0.099, 6);
    expect(cellAt(2000, 900)).toBeCloseTo(0.158, 6);
    expect(cellAt(1200, 600)).toBeCloseTo(0.158, 6);
    expect(cellAt(1200, 300)).toBeUndefined();
  });

  test('the memory that a job takes follows the cells of its plots and its setups', () => {
    const sized = (x: number, y: number, at: [number, number][], size?: { x: number; y: number }) => {
      const view = domes({ x, y }, at, size);
      view.cell = null;
      return view.document;
    };
    const large = sized(1200, 600, [[600, 300]], { x: 1100, y: 550 });
    // 3.64 GB were measured where nothing is roughed, and 2.29 GB for four reliefs.
    expect(memoryFor(large)).toBeGreaterThan(3.64e9);
    expect(memoryFor(large)).toBeLessThan(3.8e9);
    const corners: [number, number][] = [
      [500, 300],
      [1900, 300],
      [500, 900],
      [1900, 900],
    ];
    const four = memoryFor(sized(2400, 1200, corners, { x: 420, y: 300 }));
    expect(four).toBeGreaterThan(2.2e9);
    expect(four).toBeLessThan(2.5e9);
    expect(memoryFor(sized(1200, 600, [[600, 300]]))).toBeLessThan(0.4e9);
    const three = structuredClone(large);
    const [{ setups }] = three.boards;
    for (const id of ['back', 'again']) setups.push({ ...structuredClone(setups[0]), id });
    expect(memoryFor(three)).toBeGreaterThan(1.2 * memoryFor(large));
    expect(memoryFor({ ...large, cell: 0.4 })).toBeLessThan(memoryFor(large) / 5);
  });

  test('a job of more cells than are planned is refused with the size and the ball that would fit', async () => {
    const view = domes(LARGE, [[1200, 600]], { x: 2200, y: 1100 });
    view.cell = null;
    const job: Job = view.document;
    for (const id of ['b', 'c', 'd', 'e'])
      job.boards.push({
        ...structuredClone(job.boards[0]),
        id,
        setups: job.boards[0].setups.map((s) => ({
          ...structuredClone(s),
          id: `${s.id}${id}`,
          layers: s.layers.map((l) => ({ ...l, id: `${l.id}${id}` })),
          passes: s.passes.map((p) => ({ ...p, id: `${p.id}${id}` })),
        })),
      });
    expect(5 * MAX_CELLS).toBeGreaterThan(MOST_CELLS);
    const stopped = await planWhole(job).catch((e) => e);
    expect(stopped).toBeInstanceOf(PlanStopped);
    const [{ rule, figures }] = (stopped as PlanStopped).findings;
    expect(rule).toBe('too-large');
    expect(figures.cells).toBeCloseTo(400, 0);
    // As large as that in both directions it has as many cells as are planned.
    expect(400 * (Number(figures.share) / 100) ** 2).toBeCloseTo(300, 0);
  });
});

test('a layer that turns out to reach beyond its plot is planned on a wider one, and is never cut short', async () => {
  const grid = { width: 6, height: 4, cell: 1, originX: 10.5, originY: 0.5 };
  const mask = new Uint8Array(24).fill(MASK.keep);
  const board = { x: 100, y: 50 };
  mask[9] = MASK.cut;
  expect(reachesOut(grid, mask, board)).toBe(false);
  // Along the board's own edge anything may be cut.
  mask[2] = MASK.cut;
  expect(reachesOut(grid, mask, board)).toBe(false);
  for (const k of [6, 11, 20]) {
    const out = mask.slice();
    out[k] = MASK.waste;
    expect(reachesOut(grid, out, board)).toBe(true);
  }
  // A layer that is larger when it is drawn than it was when its plot was reckoned.
  const view = domes(LARGE, [[650, 650]]);
  let drawn = 0;
  const load: LoadContent = (l) => {
    if (drawn++ === 0) view.layers[0].size = { x: 160, y: 34 };
    return shapesOnly(l);
  };
  const plan = await planWhole(view.document, load);
  expect(drawn).toBeGreaterThan(1);
  expect(errorsOf(plan)).toEqual([]);
  const { cut } = setupPlan(plan);
  const at = (x: number) =>
    cut.data[Math.round((650 - cut.originY) / cut.cell) * cut.width + Math.round((x - cut.originX) / cut.cell)];
  // Its whole length is carved: the trench around it lies at both ends.
  for (const x of [650 - 82, 650 + 82]) expect(at(x)).toBeLessThan(-4);
});

describe('a board in plots', () => {
  const view = domes(LARGE, [
    [300, 300],
    [2000, 900],
  ]);
  view.layers[1].rise = 3;
  applyEdits(view.document, addPass(view, 'cutout', drawerBit('em6')));
  applyEdits(view.document, addPass(view, 'hole', drawerBit('drill6')));
  for (const p of view.passes) if (p.kind === 'hole') Object.assign(p, { places: [{ x: 1200, y: 600 }], depth: 6 });
  let plan: Plan;
  const env = {
    host: localHost,
    threads: oneThread,
    progress() {},
    stage: async <R>(key: string, _: unknown, run: () => Promise<R>) => ({ key, result: await run() }),
  };
  beforeAll(async () => {
    expect(wrongIn(view)).toBe('');
    plan = await planJob(view.document, shapesOnly, env as never);
  });

  test('is planned and proven as one job: both reliefs with one base plane, each pass one path over its plots', () => {
    expect(errorsOf(plan)).toEqual([]);
    const { summary, target, cut, mask } = setupPlan(plan);
    expect(summary.passes.map((p) => p.kind)).toEqual(['rough', 'finish', 'hole', 'cutout']);
    expect(summary.deepest).toBeGreaterThan(5);
    expect(summary.cutouts.flatMap((c) => c.tabs)).toHaveLength(4);
    const at = (f: { data: ArrayLike<number> }, x: number, y: number) => {
      const k = Math.round((y - cut.originY) / cut.cell) * cut.width + Math.round((x - cut.originX) / cut.cell);
      return f.data[k];
    };
    const skin = view.seat.skin;
    expect(at(target, 300, 300)).toBeCloseTo(-skin, 1);
    expect(at(cut, 300, 300)).toBeCloseTo(-skin, 1);
    // The lower dome stands on the same base plane as the higher one.
    expect(at(cut, 2000, 900)).toBeCloseTo(-skin - 2, 1);
    // The middle of a drilled hole, beside which its bottom rises.
    expect(at(cut, 1200, 600)).toBeLessThan(-5.7);
    expect(at(cut, 1200, 300)).toBe(0);
    expect(at({ data: mask }, 1200, 300)).toBe(128);
    const places = summary.programs.flatMap((p) => p.text.match(/plot \d of \d/g) ?? []);
    expect(new Set(places)).toEqual(new Set(['plot 1 of 2', 'plot 2 of 2']));
  });

  test('goes from plot to plot at travel height, and the time holds that way', () => {
    const { summary } = setupPlan(plan);
    const rough = summary.programs[0];
    const { motions } = readProgram(rough.text, rough.file, rough.cutter);
    const long = Array.from({ length: motions.length / 10 }, (_, i) => motions.subarray(i * 10, i * 10 + 10)).filter(
      (m) => Math.hypot(m[3] - m[0], m[4] - m[1]) > 1000,
    );
    expect(long.length).toBeGreaterThan(0);
    for (const m of long) {
      expect(m[6]).toBe(1);
      expect(Math.min(m[2], m[5])).toBeCloseTo(view.setup.heights.everything, 6);
    }
    const [pass] = summary.passes;
    expect(pass.rapidLength).toBeGreaterThan(1700);
    expect(rough.seconds).toBeGreaterThan(pass.seconds - 1e-6);
  });

  test('programs that reach beyond the plots are seen there: a rapid into wood, and a cut where nothing was to go', async () => {
    const bare = domes(LARGE, [[300, 300]]);
    bare.passes = bare.passes.filter((p) => p.kind === 'rough');
    const { summary: planned } = await planWhole(bare.document);
    const told = async (change: (text: string) => string) => {
      const given = planned.programs.map((p, i) => ({ file: p.file, text: i === 0 ? change(p.text) : p.text }));
      const { summary } = await planJob(bare.document, shapesOnly, env as never, given);
      return summary.findings.filter((f) => f.severity === 'error');
    };
    // After the spindle's start and its wait.
    const put = (lines: string) => (text: string) => text.replace(/\nG4 .*/, (wait) => `${wait}\n${lines}`);
    const { everything } = bare.setup.heights;
    const low = await told(put(`G0 Z${everything}\nG0 X900 Y300\nG0 Z-1\nG0 X940\nG0 Z${everything}`));
    expect(low.map((f) => f.rule)).toContain('rapid-through-material');
    const rapid = low.find((f) => f.rule === 'rapid-through-material')!;
    expect(rapid.place).toMatchObject({ x: 900, y: 300 });
    expect(rapid.subject.line).toBe(16);
    const cut = await told(put(`G0 Z${everything}\nG0 X900 Y300\nG1 Z-1 F300\nG1 X940 F1000\nG0 Z${everything}`));
    const kept = cut.find((f) => f.rule === 'keep-cut')!;
    expect(kept.figures.deep).toBeCloseTo(1, 2);
    expect(kept.place!.x).toBeGreaterThan(895);
    expect(kept.place!.x).toBeLessThan(945);
  });
});

test('a large board that is carved on both faces: its setups share their plot, and the web between them is the closed form', async () => {
  const board = { ...DISHED, ...LARGE };
  const { face } = dishes(board);
  const { plots, around } = plotsIn(face);
  expect(plots).toHaveLength(1);
  expect(around).toBe(true);
  const plan = await planWhole(face.document);
  // The board is larger than the machine of that kit.
  expect(errorsOf(plan).filter((e) => !e.startsWith('outside-machine'))).toEqual([]);
  const web = DISHED.thickness - FACE_DISH.depth - BACK_DISH.depth;
  expect(Math.abs(plan.summary.boards[0].thinnest - web)).toBeLessThan(0.01);
  for (const [i, d] of [FACE_DISH, BACK_DISH].entries())
    expect(setupPlan(plan, i).summary.deepest).toBeCloseTo(d.depth, 1);
});
