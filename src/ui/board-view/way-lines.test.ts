import fc from 'fast-check';
import { expect, test } from 'vitest';
import { WAY_ARRAYS, WAYS } from '@/core/proof/way-parts';
import { WAY_LINES, wayAt } from './way-lines';

const waysOf = (list: { kind: number; x: number; y: number }[]) => ({
  fine: 0.1,
  kind: Uint8Array.from(list, (w) => w.kind),
  places: Object.fromEntries(
    WAY_ARRAYS.map((a) => [a, Float32Array.from(list, (w, i) => (a === 'x' ? w.x : a === 'y' ? w.y : i))]),
  ) as Record<(typeof WAY_ARRAYS)[number], Float32Array>,
});
const kindOf = (name: (typeof WAYS)[number]) => WAYS.indexOf(name);

test('what is drawn is told apart by its line alone', () => {
  expect(new Set(Object.values(WAY_LINES).map((l) => `${l.dash} ${l.width}`)).size).toBe(4);
});

test('the way at a place is the nearest that feeds; a rapid only where nothing else passes', () => {
  const w = waysOf([
    { kind: kindOf('start'), x: 0, y: 0 },
    { kind: kindOf('rapid'), x: 10, y: 0 },
    { kind: kindOf('cut'), x: 10, y: 10 },
    { kind: kindOf('start'), x: 20, y: 20 },
    { kind: kindOf('air'), x: 30, y: 20 },
  ]);
  expect(wayAt(w, { x: 5, y: 0.5 }, 2)).toMatchObject({ kind: 'rapid', line: 1 });
  expect(wayAt(w, { x: 9, y: 0.2 }, 2)).toMatchObject({ kind: 'cut', line: 2 });
  expect(wayAt(w, { x: 25, y: 21 }, 2)).toMatchObject({ kind: 'air', line: 4 });
  // Nothing runs between the end of one way and the start of the next.
  expect(wayAt(w, { x: 15, y: 15 }, 2)).toBeNull();
});

test('no way that feeds within reach is nearer than the one that is told (property)', () => {
  const place = { x: fc.integer({ min: 0, max: 40 }), y: fc.integer({ min: 0, max: 40 }) };
  const list = fc.array(fc.record({ ...place, kind: fc.integer({ min: 1, max: 4 }) }), { minLength: 1, maxLength: 20 });
  fc.assert(
    fc.property(list, fc.record(place), (some, at) => {
      const all = [{ kind: kindOf('start'), x: 0, y: 0 }, ...some];
      const far = (i: number) => {
        const [a, b] = [all[i - 1], all[i]];
        const steps = Array.from({ length: 401 }, (_, k) => k / 400);
        return Math.min(...steps.map((t) => Math.hypot(a.x + t * (b.x - a.x) - at.x, a.y + t * (b.y - a.y) - at.y)));
      };
      const found = wayAt(waysOf(all), at, 5);
      const fed = some.map((_, i) => i + 1).filter((i) => all[i].kind !== kindOf('rapid') && far(i) < 4.9);
      if (fed.length === 0) return;
      expect(found).not.toBeNull();
      expect(far(found!.line)).toBeLessThanOrEqual(Math.min(...fed.map(far)) + 0.15);
    }),
  );
});
