import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Drawn } from '../core/arrange/edges';
import { newShape } from '../core/arrange/new-layer';
import { windowGrid } from '../core/arrange/window';
import { profileOf } from '../core/cutter/cutter';
import { DRAWER, materialNamed, SHOP_MACHINE } from '../core/doc/defaults';
import { boardGrid } from '../core/field/height-field';
import { drawingOf } from '../core/plan/draw-window';
import { plainSetup, shapesOnly } from '../core/plan/plan-test-kit';
import { oneThread, type Threads } from '../core/plan/threads';
import type { Deepest } from '../core/proof/closer';
import { movesByPlace } from '../core/proof/moves-by-place';
import { KernelPool } from './kernel-pool';
import { inSharedMemory } from './shared-memory';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
const board = { x: 40, y: 30, thickness: 12, material: materialNamed('maple') };
const view = plainSetup({
  name: 'Drawn',
  order: '',
  machine: SHOP_MACHINE,
  rough: bit('em6'),
  finish: bit('ball3'),
  board,
});
view.layers = [
  {
    ...newShape({ id: 'dome', name: 'Dome' }, { kind: 'oval' }, { kind: 'dome' }, board),
    size: { x: 30, y: 20 },
    centre: { x: 20, y: 15 },
    rise: 5,
  },
];
const grid = boardGrid(40, 30, 0.2);
const windows = Array.from({ length: 40 }, (_, n) =>
  windowGrid(grid, { i: (n % 8) * 24, j: Math.floor(n / 8) * 28, width: 24, height: 28 }),
);

let pool: KernelPool;
beforeAll(() => {
  pool = new KernelPool(2);
});
afterAll(() => pool.close());

test('threads draw what one thread draws, every window told once with its place', async () => {
  const drawing = await drawingOf(view, { grid: grid, sloping: [] }, shapesOnly);
  const drawn = async (threads: Threads) => {
    const out: Drawn[][] = windows.map(() => []);
    await threads.work('draw', drawing, windows, ({ z, cover }, n) => out[n].push({ z, cover }));
    return out;
  };
  const [one, many] = [await drawn(oneThread), await drawn(pool)];
  expect(one.every((d) => d.length === 1)).toBe(true);
  expect(Math.max(...one.map(([d]) => Math.max(...d.z)))).toBeCloseTo(5, 2);
  expect(many).toEqual(one);
});

test('threads that look closer find what one thread finds', async () => {
  const drawing = await drawingOf(view, { grid: grid, sloping: [] }, shapesOnly);
  // A row of the ball straight through the dome, a millimetre under its top.
  const segments = Float64Array.from([2, 15, -1, 38, 15, -1, 0]);
  const moves = [movesByPlace({ profile: profileOf(bit('ball3')), segments }, grid)];
  const common = { drawing, datum: -5, slots: [], at: { moves, over: grid.cell } };
  const window = { i: 1, j: 1, width: 6, height: 6 };
  const target = {
    field: { width: 8, height: 8, cell: 0.2, originX: 19.3, originY: 14.3, data: new Float32Array(64) },
    mask: new Uint8Array(64).fill(255),
    ground: -5,
  };
  const looked = async (threads: Threads) => {
    const out: Deepest[] = [];
    await threads.work('closer', common, [{ target, window }], (d) => out.push(d));
    return out;
  };
  const [found] = await looked(oneThread);
  expect(found.deep).toBeLessThan(-0.9);
  expect(await looked(pool)).toEqual([found]);
});

test('work that fails says why, and the threads go on with the next', async () => {
  const drawing = await drawingOf(view, { grid: grid, sloping: [] }, shapesOnly);
  // A layer of a file whose content is not there.
  const layers = [{ ...view.layers[0], source: { kind: 'mesh', turns: [0, 0, 0] } as never }];
  const broken = { ...drawing, view: { ...drawing.view, layers } };
  await expect(pool.work('draw', broken, windows, () => {})).rejects.toThrow(/raster/);
  let n = 0;
  await pool.work('draw', drawing, windows, () => n++);
  expect(n).toBe(windows.length);
});

test('plain data in shared memory is the same data, what it holds twice once', () => {
  const numbers = Float64Array.from([1, 2.5]);
  const value = { a: [numbers, { b: numbers, c: null, d: 'text' }], m: new Map([['k', Uint8Array.from([7])]]), n: 3 };
  const shared = inSharedMemory(value);
  expect(shared).toEqual(value);
  const [first, second] = shared.a as [Float64Array, { b: Float64Array }];
  expect(first.buffer).toBeInstanceOf(SharedArrayBuffer);
  expect(second.b).toBe(first);
});
