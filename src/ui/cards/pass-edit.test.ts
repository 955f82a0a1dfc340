import { expect, test } from 'vitest';
import { newShape } from '@/core/arrange/new-layer';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '@/core/doc/defaults';
import type { Pass } from '@/core/doc/pass';
import { orderProblem } from '@/core/passes/order';
import { plainSetup, wrongIn } from '@/core/plan/plan-test-kit';
import type { SetupView } from '@/core/setup/view';
import { addPass, removePass, takeCutter } from './pass-edit';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
function job(): SetupView {
  const board = { x: 120, y: 90, thickness: 19, material: materialNamed('maple') };
  const j = plainSetup({
    name: 'a',
    order: '',
    machine: HOBBY_MACHINE,
    rough: bit('em6'),
    finish: bit('ball3'),
    board,
  });
  j.layers = [newShape({ id: 'p', name: 'p' }, { kind: 'rectangle' }, { kind: 'flat' }, board)];
  return j;
}
const kinds = (j: SetupView) => j.passes.map((p) => p.kind);

test('every kind of pass can be added, goes where it belongs, brings its bit, and the job stays one that can be saved', () => {
  const j = job();
  const added: Pass['kind'][] = ['cutout', 'letter', 'hole', 'flat', 'skim', 'finish', 'rough'];
  for (const kind of added) {
    const id = addPass(j, kind, bit('ball3'), DRAWER);
    expect(id, kind).not.toBeNull();
    const pass = j.passes.find((p) => p.id === id)!;
    expect(pass.kind).toBe(kind);
    expect(j.cutters.some((c) => c.id === pass.cutter)).toBe(true);
    expect(orderProblem(j.passes)).toBeNull();
  }
  expect(kinds(j)).toEqual(['skim', 'rough', 'rough', 'flat', 'finish', 'finish', 'letter', 'hole', 'cutout']);
  expect(wrongIn(j)).toBe('');
});

test('a second pass of a kind is like the last of its kind', () => {
  const j = job();
  addPass(j, 'cutout', bit('em6'), DRAWER);
  const first = j.passes.at(-1)!;
  if (first.kind !== 'cutout') throw new Error('no cut-out');
  first.tabs.count = 7;
  addPass(j, 'cutout', bit('em6'), DRAWER);
  const second = j.passes.at(-1)!;
  expect(second).toMatchObject({ kind: 'cutout', tabs: { count: 7 } });
  expect(second.id).not.toBe(first.id);
  expect(second.kind === 'cutout' && second.tabs).not.toBe(first.tabs);
});

test('what cannot be proposed is not added: letters without a V bit, flats without a flat one', () => {
  const j = job();
  const balls = DRAWER.filter((c) => c.shape === 'ball');
  expect(addPass(j, 'letter', bit('ball3'), balls)).toBeNull();
  j.passes[0].cutter = 'ball3';
  j.cutters = [bit('ball3')];
  expect(addPass(j, 'flat', bit('ball3'), balls)).toBeNull();
  expect(kinds(j)).toEqual(['rough', 'finish']);
});

test('another bit brings the stepover and stepdown that suit it, and the one that is no longer used goes', () => {
  const j = job();
  takeCutter(j, 'rough', bit('em3'));
  expect(j.passes[0]).toMatchObject({ cutter: 'em3', stepover: 1.27, stepdown: 1.27 });
  expect(j.cutters.map((c) => c.id).sort()).toEqual(['ball3', 'em3']);
  takeCutter(j, 'finish', bit('taper1'));
  const finish = j.passes[1];
  expect(finish.kind === 'finish' && finish.stepover).toBeCloseTo(0.08 * bit('taper1').tipDiameter, 4);
  addPass(j, 'cutout', bit('em3'), DRAWER);
  const id = j.passes.at(-1)!.id;
  takeCutter(j, id, bit('em6'));
  expect(j.passes.at(-1)).toMatchObject({ cutter: 'em6', stepdown: 2.54 });
  expect(j.cutters.map((c) => c.id)).toContain('em6');
});

test('a pass that is removed takes along the bit that nothing else uses', () => {
  const j = job();
  addPass(j, 'cutout', bit('em3'), DRAWER);
  const cutout = j.passes.at(-1)!.id;
  takeCutter(j, cutout, bit('em3'));
  expect(j.cutters.map((c) => c.id)).toContain('em3');
  removePass(j, cutout);
  expect(kinds(j)).toEqual(['rough', 'finish']);
  expect(j.cutters.map((c) => c.id)).not.toContain('em3');
  removePass(j, 'rough');
  removePass(j, 'finish');
  // The last bit stays at hand for what comes next.
  expect(j.passes).toEqual([]);
  expect(j.cutters).toHaveLength(1);
});
