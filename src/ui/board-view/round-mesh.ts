import { DEPTH } from '@/core/arrange/picture';
import { MASK } from '@/core/arrange/target';
import { unrolled } from '@/core/field/drum';
import type { HeightField } from '@/core/field/height-field';
import { type Mesh, normalsOf, SIDES, WASTE } from './mesh';

/**
 * A drum as its field says it, ray by ray: nothing of it is bent. Its axis lies along x with its middle at 0; the middle of its sheet is up, and y goes
 * the way that it goes on the sheet.
 * @param f once round a drum of `radius` mm and as long as `long`
 * @param cells most of them along the longer side
 */
export function roundMesh(
  f: HeightField,
  mask: Uint8Array,
  { radius, long }: { radius: number; long: number },
  cells: number,
): Mesh {
  const step = Math.max(1, Math.ceil(Math.max(f.width, f.height) / cells));
  const [nx, ny] = [Math.floor((f.width - 1) / step) + 1, Math.ceil(f.height / step)];
  const positions = new Float32Array(3 * (nx * ny + 2 * ny + 2));
  const colours = new Uint8Array(positions.length);
  let low = 0;
  for (const v of f.data) if (v < low) low = Math.max(v, -radius);
  let n = 0;
  const put = (x: number, a: number, rho: number, rgb: ArrayLike<number>) => {
    positions.set([x - long / 2, -rho * Math.sin(a), -rho * Math.cos(a)], 3 * n);
    colours.set([rgb[0], rgb[1], rgb[2]], 3 * n);
    return n++;
  };
  const angle = (j: number) =>
    (2 * Math.PI * (f.originY + Math.min(f.height - 1, j * step) * f.cell)) / unrolled(radius);
  const place = (i: number) => (i === 0 ? 0 : i === nx - 1 ? long : f.originX + i * step * f.cell);
  const at = (i: number, j: number) => Math.min(f.height - 1, j * step) * f.width + Math.min(f.width - 1, i * step);
  const rhoAt = (i: number, j: number) => radius + Math.max(-radius, f.data[at(i, j)]);
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++) {
      const deep = Math.min(1, Math.max(0, 1 - (rhoAt(i, j) - radius) / (low || -1)));
      put(place(i), angle(j), rhoAt(i, j), mask[at(i, j)] === MASK.waste ? WASTE : DEPTH[Math.round(255 * deep)]);
    }
  const index: number[] = [];
  for (let j = 0; j < ny; j++)
    for (let i = 0; i + 1 < nx; i++) {
      const [a, b] = [j * nx + i, ((j + 1) % ny) * nx + i];
      index.push(a, a + 1, b + 1, a, b + 1, b);
    }
  for (const i of [0, nx - 1]) {
    const middle = put(place(i), 0, 0, SIDES);
    const first = n;
    for (let j = 0; j < ny; j++) put(place(i), angle(j), rhoAt(i, j), SIDES);
    for (let j = 0; j < ny; j++) {
      const [a, b] = [first + j, first + ((j + 1) % ny)];
      index.push(middle, ...(i === 0 ? [a, b] : [b, a]));
    }
  }
  const triangles = Uint32Array.from(index);
  return { positions, normals: normalsOf(positions, triangles), colours, index: triangles };
}
