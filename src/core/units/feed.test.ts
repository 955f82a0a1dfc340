import { expect, test } from 'vitest';
import { FeedError, parseFeed } from './feed';
import { NumberError, numbersIn, parseNumber } from './number';

test('a feed is read in every unit that it is written in', () => {
  expect(parseFeed('1800')).toBe(1800);
  expect(parseFeed(' 30 mm/s ')).toBe(1800);
  // 1 in = 25.4 mm exactly, international yard and pound agreement of 1959.
  expect(parseFeed('70 in/min')).toBeCloseTo(1778, 9);
  expect(parseFeed('70', 'in/min')).toBeCloseTo(1778, 9);
  expect(parseFeed('1800 mm/min', 'in/min')).toBe(1800);
  expect(parseFeed('70ipm')).toBeCloseTo(1778, 9);
  expect(parseFeed('1.5 IN/S')).toBeCloseTo(2286, 9);
  expect(parseFeed('12,5 mm/s')).toBe(750);
});

test('what is no feed is refused with what would do', () => {
  for (const text of ['', 'fast', '-5', '3 mm', '0']) expect(() => parseFeed(text)).toThrow(FeedError);
  expect(() => parseFeed('3 mm')).toThrow('"3 mm" is not a feed; write it like');
  expect(() => parseFeed('0')).toThrow('more than 0');
});

test('a number is read with its comma and its unit', () => {
  expect(parseNumber('1,5', false)).toBe(1.5);
  expect(parseNumber('18000 rpm', true)).toBe(18000);
  expect(parseNumber('-1e2', true)).toBe(-100);
  for (const text of ['', 'x', '1.2.3', 'Infinity']) expect(() => parseNumber(text, false)).toThrow(NumberError);
  expect(() => parseNumber('2.5', true)).toThrow('2.5 is not a whole number');
});

test('numbers of a line are those above 0', () => {
  expect(numbersIn('3.175, 6;6.35  x -2 0', 20)).toEqual([3.175, 6, 6.35]);
  expect(numbersIn('1 2 3', 2)).toEqual([1, 2]);
});
