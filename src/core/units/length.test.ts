import fc from 'fast-check';
import { expect, test } from 'vitest';
import { formatDuration, formatLength, LengthError, MM_PER_INCH, parseLength } from './length';

// 1 inch = 25.4 mm exactly: international yard and pound agreement, 1959.
test.each([
  ['12.7mm', 12.7],
  ['3/8 in', 9.525],
  ['1 1/2 in', 38.1],
  ['1 1/2"', 38.1],
  ['.5 in', 12.7],
  ['19', 19],
  ['3/4', 0.75],
  ['2*3 + 1', 7],
  ['1 in + 1 mm', 26.4],
  ['300 - 2 * 9.5', 281],
  ['(10 + 5) / 2', 7.5],
  ['1/2 in * 3', 38.1],
  ['-3 mm', -3],
  ['2 cm', 20],
  ['1 ft', 304.8],
  ['12,5', 12.5],
])('reads %s as %f mm', (text, mm) => {
  expect(parseLength(text)).toBeCloseTo(mm, 10);
});

test('a bare number takes the unit in use, in a sum too', () => {
  expect(parseLength('3/8', 'in')).toBeCloseTo(9.525, 10);
  expect(parseLength('1 + 25.4 mm', 'in')).toBeCloseTo(50.8, 10);
});

test.each(['', 'abc', '3//8', '1 2', '3 mm mm', '5 /', '1/0', '2 in * 2 in', '(1', '1e999', '__proto__'])(
  'refuses %j and names it',
  (text) => {
    expect(() => parseLength(text)).toThrow(LengthError);
    expect(() => parseLength(text)).toThrow(`"${text}"`);
  },
);

test('what is printed is read back within the printed digits, in both units', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -5000, max: 5000, noNaN: true }),
      fc.constantFrom('mm' as const, 'in' as const),
      (mm, unit) => {
        const back = parseLength(formatLength(mm, unit));
        expect(Math.abs(back - mm)).toBeLessThanOrEqual(unit === 'mm' ? 0.005001 : 0.000501 * MM_PER_INCH);
      },
    ),
  );
});

test('inch fractions read as their part of 25.4 mm', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 1, max: 63 }), (whole, n) => {
      expect(parseLength(`${whole} ${n}/64 in`)).toBeCloseTo((whole + n / 64) * 25.4, 9);
    }),
  );
});

test('durations are said as hours and minutes', () => {
  expect(formatDuration(48)).toBe('48 s');
  expect(formatDuration(420)).toBe('7 min');
  expect(formatDuration(5520)).toBe('1 h 32 min');
});
