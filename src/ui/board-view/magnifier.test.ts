import fc from 'fast-check';
import { expect, test } from 'vitest';
import { glassAt } from './magnifier';

test('the glass is in view, and never under the finger (property)', () => {
  const place = fc.record({ x: fc.integer({ min: 0, max: 600 }), y: fc.integer({ min: 0, max: 400 }) });
  fc.assert(
    fc.property(place, (finger) => {
      const { x, y } = glassAt(finger, { width: 600 });
      expect(x).toBeGreaterThanOrEqual(58);
      expect(x).toBeLessThanOrEqual(542);
      expect(y).toBeGreaterThanOrEqual(58);
      expect(Math.hypot(x - finger.x, y - finger.y)).toBeGreaterThan(60);
    }),
  );
});
