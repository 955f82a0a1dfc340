import { expect, test } from 'vitest';
import { withGrain } from './grain';

test('rows run with the grain at its angle and the other way, and else across or against it', () => {
  for (const angle of [0, 180, -180, 360]) expect(withGrain(angle, 'along-x')).toBe(true);
  for (const angle of [90, -90, 270]) expect(withGrain(angle, 'along-y')).toBe(true);
  for (const angle of [90, 45, 1]) expect(withGrain(angle, 'along-x')).toBe(false);
  expect(withGrain(0, 'none')).toBe(null);
});
