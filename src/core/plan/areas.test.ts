import { expect, test } from 'vitest';
import { cellsWithin } from '../arrange/cells-within';
import { newShape } from '../arrange/new-layer';
import { inRegion } from '../arrange/target';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { WHOLE_PIECE } from '../doc/outline-ref';
import type { Area } from '../doc/pass-parts';
import { boardGrid } from '../field/height-field';
import type { RoughPass } from '../passes/rough/schema';
import type { SetupView } from '../setup/view';
import { errorsOf, plainSetup, planShapes, wrongIn } from './plan-test-kit';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;

/** A panel with two domes on it, far enough apart for a bit between them. */
function domes(): SetupView {
  const board = { x: 140, y: 80, thickness: 18, material: materialNamed('maple') };
  const job = plainSetup({
    name: 'Domes',
    order: '',
    machine: HOBBY_MACHINE,
    rough: bit('em6'),
    finish: bit('ball6'),
    board,
  });
  const dome = (id: string, x: number) => ({
    ...newShape({ id: id, name: id }, { kind: 'circle' }, { kind: 'dome' }, board),
    size: { x: 24, y: 24 },
    centre: { x, y: 40 },
    rise: 5,
  });
  job.layers = [
    {
      ...newShape({ id: 'panel', name: 'panel' }, { kind: 'rectangle' }, { kind: 'flat' }, board),
      size: { x: 110, y: 50 },
      rise: 3,
    },
    dome('left', 45),
    dome('right', 95),
  ];
  job.cell = 0.2;
  return job;
}
const outline = (change: Partial<typeof WHOLE_PIECE>): Area => ({
  kind: 'outline',
  outline: { ...WHOLE_PIECE, ...change },
});

test('cells within a polygon are those whose middles lie in it', () => {
  const grid = boardGrid(20, 10, 0.5);
  const { cells } = cellsWithin(
    [Float64Array.of(3, 2, 12, 2, 12, 8, 3, 8), Float64Array.of(5, 4, 5, 6, 9, 6, 9, 4)],
    grid,
  );
  expect(cells.reduce((s, v) => s + v, 0) * 0.25).toBeCloseTo(9 * 6 - 4 * 2, 6);
  const region = { area: outline({}), trench: 0, within: { grid, cells } };
  expect([
    inRegion(region, 'raised', { x: 4, y: 3 }, 0),
    inRegion(region, 'raised', { x: 7, y: 5 }, 0),
    inRegion(region, 'raised', { x: 30, y: 3 }, 0),
  ]).toEqual([true, false, false]);
  // A sunk piece never works outside its outline.
  expect(inRegion(region, 'sunk', { x: 4, y: 3 }, 1)).toBe(false);
  expect(inRegion({ ...region, within: null }, 'raised', { x: 4, y: 3 }, 0)).toBe(false);
});

test('a pass in a patch around a layer works there, a little larger, and nowhere else', async () => {
  const job = domes();
  const finish = structuredClone(job.passes[1]);
  const detail = {
    ...finish,
    id: 'detail',
    cutter: 'ball3',
    stepover: 0.254,
    area: outline({ of: ['left'], grow: 2 }),
  };
  job.cutters.push(bit('ball3'));
  job.passes.push(detail as never);
  expect(wrongIn(job)).toBe('');
  const plan = await planShapes(job);
  expect(errorsOf(plan)).toEqual([]);
  const text = plan.summary.programs.at(-1)!.text;
  let [x, y] = [Number.NaN, Number.NaN];
  let cutting = false;
  let far = 0;
  for (const line of text.split('\n')) {
    if (line.startsWith('(')) continue;
    if (/^G0 /.test(line)) cutting = false;
    if (/^G1 /.test(line)) cutting = true;
    x = Number(/X(-?[\d.]+)/.exec(line)?.[1] ?? x);
    y = Number(/Y(-?[\d.]+)/.exec(line)?.[1] ?? y);
    if (cutting) far = Math.max(far, Math.hypot(x - 45, y - 40));
  }
  expect(far).toBeLessThan(12 + 2 + 0.3);
  expect(far).toBeGreaterThan(12);
});

test('one outline less others: the field is roughed, the domes in it are not', async () => {
  const job = domes();
  const rough = job.passes[0] as RoughPass;
  // Nothing but the panel, without the domes and 4 mm around them; no trench either.
  rough.area = outline({ of: ['panel'], less: ['left', 'right'], grow: -4 });
  job.passes = [rough];
  const plan = await planShapes(job);
  expect(errorsOf(plan)).toEqual([]);
  const { cut } = plan;
  const at = (x: number, y: number) =>
    cut.data[Math.round((y - cut.originY) / 0.2) * cut.width + Math.round((x - cut.originX) / 0.2)];
  expect(at(70, 40)).toBeCloseTo(-4, 1);
  // On the domes, and beside the panel, the board stands as it was.
  expect(at(45, 40)).toBe(0);
  expect(at(95, 40)).toBe(0);
  expect(at(8, 40)).toBe(0);
});

test('an area that names a layer that is gone is told', () => {
  const job = domes();
  (job.passes[0] as RoughPass).area = outline({ of: ['gone'] });
  expect(wrongIn(job)).toContain('"gone", which is not on this board');
});
