import { expect, test } from 'vitest';
import { holdingSchema } from '../doc/setup';
import { boxOutline, holdingBox, newClamp } from './holding';

test('a holding is the box around it, whatever its corners begin with', () => {
  const box = { x: -12.5, y: 40, width: 30, depth: 8 };
  expect(holdingBox({ outline: boxOutline(box) })).toEqual(box);
  const turned = [...boxOutline(box).slice(2), ...boxOutline(box).slice(0, 2)];
  expect(holdingBox({ outline: turned })).toEqual(box);
});

test('a new clamp is a holding that a document takes', () => {
  const clamp = newClamp('c1');
  expect(holdingSchema.parse(clamp)).toEqual(clamp);
});
