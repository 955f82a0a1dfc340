/** A mesh: x y z of its vertices, mm, with the way that each faces, red green blue 0..255 of each, and its triangles. */
export interface Mesh {
  positions: Float32Array;
  normals: Float32Array;
  colours: Uint8Array;
  index: Uint32Array;
}

export const WASTE = [214, 204, 186];
/** Wood that no bit has touched, at a board's sides and a drum's ends. */
export const SIDES = [200, 172, 122];

/** How the vertices of a mesh face: the sum of the triangles at each, the larger the more, normalised. */
export function normalsOf(positions: Float32Array, index: Uint32Array): Float32Array {
  const out = new Float32Array(positions.length);
  for (let t = 0; t < index.length; t += 3) {
    const [a, b, c] = [3 * index[t], 3 * index[t + 1], 3 * index[t + 2]];
    const [ux, uy, uz] = [0, 1, 2].map((k) => positions[b + k] - positions[a + k]);
    const [vx, vy, vz] = [0, 1, 2].map((k) => positions[c + k] - positions[a + k]);
    const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    for (const at of [a, b, c]) for (let k = 0; k < 3; k++) out[at + k] += n[k];
  }
  for (let k = 0; k < out.length; k += 3) {
    const long = Math.hypot(out[k], out[k + 1], out[k + 2]) || 1;
    for (let i = 0; i < 3; i++) out[k + i] /= long;
  }
  return out;
}

/** A mesh that grows. */
export class MeshMaker {
  private readonly positions: number[] = [];
  private readonly colours: number[] = [];
  private readonly index: number[] = [];

  put(x: number, y: number, z: number, [r, g, b]: ArrayLike<number> & Iterable<number>): number {
    this.positions.push(x, y, z);
    this.colours.push(r, g, b);
    return this.positions.length / 3 - 1;
  }
  /** A convex ring of vertices, counter-clockwise as it is seen. */
  ring(vertices: number[], over = false): void {
    for (let i = 2; i < vertices.length; i++) {
      const [a, b] = over ? [vertices[i], vertices[i - 1]] : [vertices[i - 1], vertices[i]];
      this.index.push(vertices[0], a, b);
    }
  }
  get triangles(): number {
    return this.index.length / 3;
  }
  finish(): Mesh {
    const positions = Float32Array.from(this.positions);
    const index = Uint32Array.from(this.index);
    return { positions, normals: normalsOf(positions, index), colours: Uint8Array.from(this.colours), index };
  }
}
