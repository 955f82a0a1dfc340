import type { Mesh } from './mesh';
import { boxOf } from './orient';

export interface MeshHealth {
  triangles: number;
  /** Triangles without an area. */
  degenerate: number;
  /** Edges that only one triangle has, and that more than two have; null when the mesh is too large to look. */
  edges: { open: number; shared: number } | null;
  /** Volume that its faces enclose, file units cubed; negative when they look inwards. */
  volume: number;
  /** How far its middle lies from zero, in its own sizes. */
  away: number;
}

/** Meshes up to this are looked at edge by edge: about 250 bytes a triangle. */
const MOST = 1_000_000;

/** Bits of a hash carried to all others: coordinates of a grid differ in a few of their highest bits alone. */
function mixed(h: number): number {
  const a = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  const b = Math.imul(a ^ (a >>> 13), 0xc2b2ae35);
  return b ^ (b >>> 16);
}

/** Gives equal corners one number, by a table of open addresses over their exact coordinates. */
function weld(v: Float32Array): Int32Array {
  const n = v.length / 3;
  let size = 1;
  while (size < 2 * n) size *= 2;
  const table = new Int32Array(size).fill(-1);
  const bits = new Int32Array(v.buffer, v.byteOffset, v.length);
  const out = new Int32Array(n);
  for (let i = 0; i < n; i++) {
    const k = 3 * i;
    // 0 and -0 are one place, but not the same bits.
    let h = Math.imul(v[k] === 0 ? 0 : bits[k], 73856093);
    h = mixed(h ^ Math.imul(v[k + 1] === 0 ? 0 : bits[k + 1], 19349663));
    h = mixed(h ^ Math.imul(v[k + 2] === 0 ? 0 : bits[k + 2], 83492791));
    for (let at = h & (size - 1); ; at = (at + 1) & (size - 1)) {
      const other = table[at];
      if (other < 0) {
        table[at] = i;
        out[i] = i;
        break;
      }
      if (v[3 * other] === v[k] && v[3 * other + 1] === v[k + 1] && v[3 * other + 2] === v[k + 2]) {
        out[i] = other;
        break;
      }
    }
  }
  return out;
}

/** How often each edge is used, by a table of open addresses. */
function countEdges(corner: Int32Array): { open: number; shared: number } {
  const n = corner.length;
  let size = 1;
  while (size < 2 * n) size *= 2;
  const low = new Int32Array(size).fill(-1);
  const high = new Int32Array(size);
  const uses = new Uint8Array(size);
  for (let t = 0; t < n; t += 3) {
    for (let e = 0; e < 3; e++) {
      const p = corner[t + e];
      const q = corner[t + ((e + 1) % 3)];
      if (p === q) continue;
      const a = p < q ? p : q;
      const b = p < q ? q : p;
      const h = mixed(Math.imul(a, 73856093) ^ Math.imul(b, 19349663));
      for (let at = h & (size - 1); ; at = (at + 1) & (size - 1)) {
        if (low[at] < 0) {
          low[at] = a;
          high[at] = b;
          uses[at] = 1;
          break;
        }
        if (low[at] === a && high[at] === b) {
          if (uses[at] < 255) uses[at]++;
          break;
        }
      }
    }
  }
  let open = 0;
  let shared = 0;
  for (let i = 0; i < size; i++) {
    if (low[i] < 0) continue;
    if (uses[i] === 1) open++;
    else if (uses[i] > 2) shared++;
  }
  return { open, shared };
}

/** What is wrong with a mesh as a solid. A relief is used as seen from above, so that none of it is in the way. */
export function meshHealth(mesh: Mesh): MeshHealth {
  const v = mesh.triangles;
  let degenerate = 0;
  let volume = 0;
  const [ox, oy, oz] = v;
  for (let t = 0; t < v.length; t += 9) {
    const ax = v[t] - ox;
    const ay = v[t + 1] - oy;
    const az = v[t + 2] - oz;
    const bx = v[t + 3] - ox;
    const by = v[t + 4] - oy;
    const bz = v[t + 5] - oz;
    const cx = v[t + 6] - ox;
    const cy = v[t + 7] - oy;
    const cz = v[t + 8] - oz;
    volume += ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
    const nx = (by - ay) * (cz - az) - (bz - az) * (cy - ay);
    const ny = (bz - az) * (cx - ax) - (bx - ax) * (cz - az);
    const nz = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    if (nx === 0 && ny === 0 && nz === 0) degenerate++;
  }
  const { min: low, max: high } = boxOf(mesh);
  const size = Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2], 1e-9);
  const away = Math.max(...[0, 1, 2].map((a) => Math.abs(high[a] + low[a]) / 2)) / size;
  const triangles = v.length / 9;
  return { triangles, degenerate, edges: triangles <= MOST ? countEdges(weld(v)) : null, volume: volume / 6, away };
}

/** The same in sentences, for the card. */
export function healthNotes(h: MeshHealth): string[] {
  const out: string[] = [];
  if (h.degenerate > 0) out.push(`${h.degenerate} of ${h.triangles} triangles have no area and were passed over`);
  if (h.edges && h.edges.open > 0) out.push(`not closed, ${h.edges.open} open edges: used as seen from above`);
  if (h.edges && h.edges.shared > 0)
    out.push(`${h.edges.shared} edges join more than two faces: used as seen from above`);
  if (h.edges && h.edges.open === 0 && h.volume < 0)
    out.push('inside out, its faces look inwards: used as seen from above');
  if (h.away > 1000)
    out.push(
      `lies ${Math.round(h.away)} times its own size away from zero: brought to the middle, but fine detail may have been lost when it was exported`,
    );
  return out;
}
