import { beforeEach, expect, test, vi } from 'vitest';
import { newShape } from '@/core/arrange/new-layer';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '@/core/doc/defaults';
import { WHOLE_PIECE } from '@/core/doc/outline-ref';
import type { Pass } from '@/core/doc/pass';
import { drawerBit, plainSetup, proposed, wrongIn } from '@/core/plan/plan-test-kit';
import type { SetupView } from '@/core/setup/view';
import { copyOfLayers, copyOfPass, keepCopied, putIn, readCopied } from './copied';

const kept = new Map<string, string>();
beforeEach(() => {
  kept.clear();
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => kept.set(k, v),
  });
});

const [rough, finish] = [DRAWER.find((c) => c.id === 'em6')!, DRAWER.find((c) => c.id === 'ball3')!];

function job(x: number, ...ids: string[]): SetupView {
  const board = { x, y: 100, thickness: 20, material: materialNamed('maple') };
  const j = plainSetup({ name: 'Test', order: '', machine: HOBBY_MACHINE, rough, finish, board });
  j.layers = ids.map((id, i) => ({
    ...newShape({ id, name: id }, { kind: 'rectangle' }, { kind: 'flat' }, board, { share: 0.1 }),
    centre: { x: 20 + 30 * i, y: 50 },
  }));
  return j;
}

/** Puts what was copied into a job, as another page finds it in the browser. */
function paste(j: SetupView) {
  const copied = readCopied();
  return copied && putIn(j, copied);
}

test('layers copied in one job are put into another: under new ids, in their places, their masks and groups among themselves', () => {
  const from = job(200, 'a', 'b', 'c');
  from.layers[0].group = from.layers[1].group = 'Pair';
  from.layers[1].mask = { kind: 'layer', layer: 'a', grow: 0, outside: false };
  from.layers[2].mask = { kind: 'layer', layer: 'a', grow: 0, outside: false };
  keepCopied(copyOfLayers(from, ['a', 'b']));
  const to = job(200);
  const put = paste(to) as { layers: string[] };
  expect(to.layers.map((l) => [l.name, l.group, l.centre.x])).toEqual([
    ['a', 'Pair', 20],
    ['b', 'Pair', 50],
  ]);
  expect(put.layers).toEqual(to.layers.map((l) => l.id));
  expect(new Set([...put.layers, 'a', 'b']).size).toBe(4);
  expect(to.layers[1].mask).toMatchObject({ kind: 'layer', layer: to.layers[0].id });
  // Once more they lie a little aside, as a group of their own.
  paste(to);
  expect(to.layers[2].centre).toEqual({ x: 25, y: 45 });
  expect(to.layers[2].group).not.toBe('Pair');
  expect(to.layers[3].group).toBe(to.layers[2].group);
  // A mask that stayed behind covers nothing.
  keepCopied(copyOfLayers(from, ['c']));
  paste(to);
  expect(to.layers.at(-1)!.mask).toEqual({ kind: 'none' });
});

test('what lay beyond a smaller board comes to its middle', () => {
  const from = job(900, 'a');
  from.layers[0].centre.x = 800;
  keepCopied(copyOfLayers(from, ['a']));
  const to = job(100);
  paste(to);
  expect(to.layers[0].centre.x).toBeCloseTo(50, 3);
});

test('a pass comes with its bit, in its place in the order of work, and names no layer that is not there', () => {
  const from = job(200, 'a');
  const bit = { ...drawerBit('em3'), id: 'mine', number: 1 };
  from.cutters.push(bit);
  const cutout = { ...proposed('cutout', from, bit), cutter: 'mine' } as Pass;
  if (!('outline' in cutout)) throw new Error('a cut-out has an outline');
  cutout.outline = { ...WHOLE_PIECE, of: ['a'] };
  keepCopied(copyOfPass(from, cutout));
  const to = job(200, 'z');
  const { pass } = paste(to) as { pass: string };
  const own = to.passes.find((p) => p.id === pass)!;
  expect(to.passes.at(-1)).toBe(own);
  expect(own).toMatchObject({ kind: 'cutout', cutter: 'mine', outline: { of: null } });
  expect(to.cutters.filter((c) => c.id === 'mine')).toHaveLength(1);
  expect(new Set(to.cutters.map((c) => c.number)).size).toBe(to.cutters.length);
  expect(wrongIn(to)).toBe('');
  // A bit under the same id that is thicker here is another bit: the pass keeps the one that it came with.
  const other = job(200, 'z');
  other.cutters.push({ ...bit, diameter: 8, number: 7 });
  const put = paste(other) as { pass: string };
  const used = other.cutters.find((c) => c.id === other.passes.find((p) => p.id === put.pass)!.cutter)!;
  expect(used.diameter).toBe(bit.diameter);
  expect(other.cutters.find((c) => c.id === 'mine')?.diameter).toBe(8);
});

test('what is no copy of ours is passed over', () => {
  expect(readCopied()).toBeNull();
  for (const text of ['{', '{"kind":"layers","layers":[]}', '{"kind":"layers","layers":[{"id":"x"}]}']) {
    kept.set('zg-copied', text);
    expect(readCopied()).toBeNull();
  }
});
