import { expect, test } from 'vitest';
import { newShape } from '@/core/arrange/new-layer';
import { HOBBY_MACHINE, materialNamed } from '@/core/doc/defaults';
import { drawerBit, plainSetup } from '@/core/plan/plan-test-kit';
import { termFigures } from './term-figures';
import { MEANINGS, TERMS, termOf } from './terms';

const board = { x: 200, y: 100, thickness: 20, material: materialNamed('maple') };
const job = () =>
  plainSetup({
    name: 'T',
    order: '',
    machine: HOBBY_MACHINE,
    rough: drawerBit('em6'),
    finish: drawerBit('ball3'),
    board,
  });

test("every term is told with the job's own figures", () => {
  const view = job();
  const f = termFigures(view, view.passes[1], null);
  for (const t of TERMS) expect(MEANINGS[t](f)).not.toMatch(/NaN|undefined|null/);
  // 1/8 in ball, 8 %: h = R - sqrt(R^2 - (s / 2)^2) = 0.0051 mm (trade handbook, section 3).
  expect(MEANINGS.stepover(f)).toContain('8 % of the 3.17');
  expect(MEANINGS.ridge(f)).toContain('0.0051 mm');
  const rough = termFigures(view, view.passes[0], null);
  expect(rough.round).toBe(false);
  expect(MEANINGS.ridge(rough)).toContain('leaves none');
  // A ramp of a of a depth d is d / tan a long.
  const long = rough.stepdown / Math.tan((rough.ramp * Math.PI) / 180);
  expect(MEANINGS.ramp(rough)).toContain(`${Number(long.toFixed(2))} mm of way`);
});

test('a selected layer is told of before the highest, and a job without passes is told of by common practice', () => {
  const view = job();
  const layer = (id: string, rise: number, lift: number) => ({
    ...newShape({ id, name: id }, { kind: 'oval' }, { kind: 'dome' }, board),
    rise,
    lift,
  });
  view.layers = [layer('a', 3, 1.5), layer('b', 7, 0)];
  expect(termFigures(view, null, view.layers[0])).toMatchObject({ rise: 3, lift: 1.5 });
  expect(termFigures(view, null, null).rise).toBe(7);
  view.passes = [];
  view.cutters = [];
  const f = termFigures(view, null, null);
  for (const t of TERMS) expect(MEANINGS[t](f)).not.toMatch(/NaN|undefined|null|Infinity/);
});

test('labels that speak for themselves have no mark', () => {
  expect(termOf('Stepover')).toBe('stepover');
  expect(termOf('Name')).toBeNull();
});
