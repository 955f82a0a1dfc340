import fc from 'fast-check';
import { expect, test } from 'vitest';
import { piecesOf } from './pieces';

/** The plain definition: cells are followed one by one. */
function plainly(stands: Uint8Array, width: number, height: number): Int32Array {
  const of = new Int32Array(stands.length).fill(-1);
  let n = 0;
  for (let k = 0; k < of.length; k++) {
    if (!stands[k] || of[k] >= 0) continue;
    const queue = [k];
    of[k] = n;
    while (queue.length > 0) {
      const c = queue.pop() as number;
      const [i, j] = [c % width, Math.floor(c / width)];
      for (const [a, b] of [
        [i - 1, j],
        [i + 1, j],
        [i, j - 1],
        [i, j + 1],
      ]) {
        const q = b * width + a;
        if (a < 0 || b < 0 || a >= width || b >= height || !stands[q] || of[q] >= 0) continue;
        of[q] = n;
        queue.push(q);
      }
    }
    n++;
  }
  return of;
}

test('pieces are those that following cell by cell finds, in the same order', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 14 }),
      fc.array(fc.integer({ min: 0, max: 2 }), { maxLength: 200 }),
      (width, raw) => {
        const height = Math.max(1, Math.floor(raw.length / width));
        const stands = Uint8Array.from({ length: width * height }, (_, k) => (raw[k] ? 1 : 0));
        const { of, parts } = piecesOf(stands, { width, height });
        const plain = plainly(stands, width, height);
        expect([...of]).toEqual([...plain]);
        parts.forEach((p, n) => {
          expect(p.cells).toBe(plain.filter((v) => v === n).length);
          expect(p.first).toBe(plain.indexOf(n));
        });
      },
    ),
  );
});
