import { afterEach, expect, test } from 'vitest';
import { saidFeedUnit, saidUnit, sayFeed, sayIn, sayLength, sayNumber, saySize } from './say';

afterEach(() => sayIn('mm'));

test('lengths are told in mm until somebody asks for inches', () => {
  expect([sayLength(12.7), sayLength(3.175, 3), saySize([300, 200.04, 19]), sayFeed(1800)]).toEqual([
    '12.7 mm',
    '3.175 mm',
    '300 × 200 × 19 mm',
    '1800 mm/min',
  ]);
  expect([saidUnit(), saidFeedUnit()]).toEqual(['mm', 'mm/min']);
});

test('in inches, of 25.4 mm (ISO 80000-3), nothing that shows in mm is lost', () => {
  sayIn('in');
  expect([sayLength(12.7), sayLength(3.175), saySize([254, 127]), sayFeed(1524), saidFeedUnit()]).toEqual([
    '0.5 in',
    '0.125 in',
    '10 × 5 in',
    '60 in/min',
    'in/min',
  ]);
  for (let h = 1; h < 400; h++) {
    // Every hundredth of a mm up to 1 mm is another text, and comes back to within half of it above.
    const back = Number(sayNumber(h / 100)) * 25.4;
    expect(Math.abs(back - h / 100)).toBeLessThan(h < 100 ? 0.005 : 0.013);
  }
});
