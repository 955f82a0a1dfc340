import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Mesh } from './mesh';
import { trianglesOver } from './mesh-index';
import { rasterise, rasteriseSome } from './rasterise';

/** A landscape of triangles over 60 x 40, some of them large, standing in the file's x and z axes. */
function landscape(seed: number): Mesh {
  const out: number[] = [];
  let s = seed;
  const next = () => {
    s = (s * 1103515245 + 12345) % 2147483648;
    return s / 2147483648;
  };
  for (let t = 0; t < 400; t++) {
    const [x, z, size] = [next() * 60, next() * 40, t % 40 === 0 ? 30 : 3];
    for (let c = 0; c < 3; c++) out.push(x + (next() - 0.5) * size, next() * 5, z + (next() - 0.5) * size);
  }
  return { triangles: Float32Array.from(out) };
}

test('a window drawn from the triangles over it is the same window of the whole, whatever lies along the plan (property)', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 1000 }),
      fc.double({ min: 0, max: 50, noNaN: true }),
      fc.double({ min: 0, max: 30, noNaN: true }),
      (seed, x, z) => {
        const mesh = landscape(seed);
        const placement = {
          x: [1, 0, 0, 0] as [number, number, number, number],
          y: [0, 0, 1, 0] as [number, number, number, number],
          z: [0, 1, 0, 0] as [number, number, number, number],
        };
        const grid = { width: 40, height: 30, cell: 0.2, originX: x, originY: z };
        const box = { u0: x, u1: x + 39 * 0.2, v0: z, v1: z + 29 * 0.2 };
        const some = trianglesOver(mesh, [0, 2], box);
        expect(new Set(some).size).toBe(some.length);
        expect(some.length).toBeLessThan(mesh.triangles.length / 9);
        expect(rasteriseSome(mesh, placement, grid, some).data).toEqual(rasterise(mesh, placement, grid).field.data);
      },
    ),
    { numRuns: 40 },
  );
});
