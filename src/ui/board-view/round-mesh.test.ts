import { expect, test } from 'vitest';
import { MASK } from '@/core/arrange/target';
import { drumGrid, makeField } from '@/core/field/height-field';
import { roundMesh } from './round-mesh';

const drum = { radius: 10, long: 30 };

/** Volume that a closed mesh holds, mm3, positive when its triangles are seen counterclockwise from outside (the divergence theorem). */
function volume(positions: Float32Array, index: Uint32Array): number {
  let sum = 0;
  const at = (k: number) => positions.subarray(3 * k, 3 * k + 3);
  for (let t = 0; t < index.length; t += 3) {
    const [a, b, c] = [at(index[t]), at(index[t + 1]), at(index[t + 2])];
    sum += a[0] * (b[1] * c[2] - b[2] * c[1]) - a[1] * (b[0] * c[2] - b[2] * c[0]) + a[2] * (b[0] * c[1] - b[1] * c[0]);
  }
  return sum / 6;
}

test('a bar is drawn as a bar: closed, seen from outside, with its own volume', () => {
  const f = makeField(drumGrid(drum.long, drum.radius, 0.4), -1);
  const { positions, index } = roundMesh(f, new Uint8Array(f.data.length).fill(MASK.cut), drum, 1000);
  expect(volume(positions, index)).toBeCloseTo(Math.PI * 81 * 30, -2);
  const edges = new Map<string, number>();
  for (let t = 0; t < index.length; t += 3)
    for (const [a, b] of [
      [0, 1],
      [1, 2],
      [2, 0],
    ]) {
      const place = (k: number) =>
        Array.from(positions.subarray(3 * index[t + k], 3 * index[t + k] + 3), (v) => v.toFixed(3)).join();
      edges.set(`${place(a)} ${place(b)}`, (edges.get(`${place(a)} ${place(b)}`) ?? 0) + 1);
    }
  for (const [edge, n] of edges) {
    const [a, b] = edge.split(' ');
    expect(edges.get(`${b} ${a}`)).toBe(n);
  }
});

test('the middle of the sheet is up, and what lies further along y lies further that way', () => {
  const f = makeField(drumGrid(drum.long, drum.radius, 0.4), 0);
  const { positions } = roundMesh(f, new Uint8Array(f.data.length), drum, 1000);
  const vertex = (j: number) => positions.subarray(3 * j * f.width, 3 * j * f.width + 3);
  const middle = vertex(Math.floor(f.height / 2));
  expect(middle[2]).toBeCloseTo(10, 1);
  expect(vertex(Math.floor((5 * f.height) / 8))[1]).toBeGreaterThan(5);
  expect(vertex(Math.floor((3 * f.height) / 8))[1]).toBeLessThan(-5);
});
