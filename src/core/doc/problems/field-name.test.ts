import { expect, test } from 'vitest';
import { dishes } from '../../plan/plan-test-kit';
import { fieldName } from './field-name';

test('fields are called by what they are of: by name where there is one, by place where there is none', () => {
  const { document } = dishes().face;
  const of = (...path: PropertyKey[]) => fieldName(document, path);
  expect(of('boards', 0, 'thickness')).toBe('thickness');
  expect(of('boards', 0, 'setups', 1, 'passes', 0, 'rampAngle')).toBe('ramp angle of pass 1, setup Back');
  expect(of('boards', 0, 'setups', 0, 'layers', 0, 'size', 'x')).toBe('size x of layer Dish, setup Face');
  expect(of('cutters', 0, 'maxStepdown')).toBe(`max stepdown of bit ${document.cutters[0].name}`);
  expect(of('machine', 'zTravel')).toBe('machine z travel');
  document.boards[0].setups.pop();
  document.cutters[0].name = '';
  expect(of('boards', 0, 'setups', 0, 'passes', 1, 'tabs', 'at', 2, 'x')).toBe('tabs at 3 x of pass 2');
  expect(of('cutters', 0, 'name')).toBe('name of bit 1');
});
