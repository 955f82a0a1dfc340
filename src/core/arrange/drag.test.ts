import { expect, test } from 'vitest';
import { alongOneAxis, sizedBy, turnedTo } from './drag';

const layer = { centre: { x: 100, y: 50 }, turn: 0, size: { x: 40, y: 20 } };

test('a corner dragged out to twice its distance makes a layer twice as large, turned or not', () => {
  expect(sizedBy(layer, { x: 120, y: 60 }, { x: 140, y: 70 }, false)).toEqual([2, 2]);
  const turned = { ...layer, turn: 90 };
  const [kx, ky] = sizedBy(turned, { x: 90, y: 70 }, { x: 80, y: 90 }, false);
  expect(kx).toBeCloseTo(2, 12);
  expect(ky).toBeCloseTo(2, 12);
});

test('freed, each of its own axes goes by itself', () => {
  expect(sizedBy(layer, { x: 120, y: 60 }, { x: 160, y: 60 }, true)).toEqual([3, 1]);
  const [kx, ky] = sizedBy({ ...layer, turn: 90 }, { x: 90, y: 70 }, { x: 90, y: 110 }, true);
  expect(kx).toBeCloseTo(3, 12);
  expect(ky).toBeCloseTo(1, 12);
});

test('a layer is never dragged away to nothing', () => {
  expect(sizedBy(layer, { x: 120, y: 60 }, { x: 100, y: 50 }, false)).toEqual([1 / 40, 1 / 40]);
});

test('a layer turns so that its upper side points at the hand, in steps', () => {
  expect(turnedTo(layer, { x: 100, y: 80 }, false)).toBe(0);
  expect(turnedTo(layer, { x: 70, y: 50 }, false)).toBe(90);
  expect(turnedTo(layer, { x: 130, y: 50 }, false)).toBe(-90);
  expect(turnedTo(layer, { x: 100, y: 20 }, false)).toBe(-180);
  // 12.3 degrees to the left of upright: in steps of 5 it is 10.
  const a = ((90 + 12.34) * Math.PI) / 180;
  const at = { x: 100 + 30 * Math.cos(a), y: 50 + 30 * Math.sin(a) };
  expect(turnedTo(layer, at, false)).toBe(10);
  expect(turnedTo(layer, at, true)).toBe(12.3);
});

test('a drag along one axis is the longer one', () => {
  expect(alongOneAxis(3, -4)).toEqual([0, -4]);
  expect(alongOneAxis(-5, 4)).toEqual([-5, 0]);
});
