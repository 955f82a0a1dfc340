import type { Mesh } from './stl';

/** Quarter turns about each axis (applied x, then y, then z) and a mirror in x before them. */
export interface Orientation {
  turns: [number, number, number];
  mirror: boolean;
}

export interface Box {
  min: [number, number, number];
  max: [number, number, number];
}

/** The mesh turned and mirrored; exact, because quarter turns only swap and negate. Winding is kept consistent. */
export function orientMesh(mesh: Mesh, o: Orientation): Mesh {
  const out = new Float32Array(mesh.triangles.length);
  const [tx, ty, tz] = o.turns.map((t) => ((t % 4) + 4) % 4);
  for (let i = 0; i < out.length; i += 3) {
    let x = mesh.triangles[i];
    let y = mesh.triangles[i + 1];
    let z = mesh.triangles[i + 2];
    if (o.mirror) x = -x;
    for (let k = 0; k < tx; k++) [y, z] = [-z, y];
    for (let k = 0; k < ty; k++) [z, x] = [-x, z];
    for (let k = 0; k < tz; k++) [x, y] = [-y, x];
    // Mirroring turns triangles inside out: put their corners the other way round.
    const corner = o.mirror ? (i % 9 === 3 ? i + 3 : i % 9 === 6 ? i - 3 : i) : i;
    out[corner] = x;
    out[corner + 1] = y;
    out[corner + 2] = z;
  }
  return { triangles: out };
}

export function boxOf(mesh: Mesh): Box {
  const min: Box['min'] = [Infinity, Infinity, Infinity];
  const max: Box['max'] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < mesh.triangles.length; i++) {
    const v = mesh.triangles[i];
    const a = i % 3;
    if (v < min[a]) min[a] = v;
    if (v > max[a]) max[a] = v;
  }
  return { min, max };
}

/** Area of the triangles whose plane is square to z, by height, and whether they look down. File units. */
function flats(mesh: Mesh): Map<number, { area: number; z: number }> {
  const { min, max } = boxOf(mesh);
  const step = Math.max((max[2] - min[2]) * 1e-3, 1e-9);
  const out = new Map<number, { area: number; z: number }>();
  const v = mesh.triangles;
  for (let t = 0; t < v.length; t += 9) {
    const low = Math.min(v[t + 2], v[t + 5], v[t + 8]);
    if (Math.max(v[t + 2], v[t + 5], v[t + 8]) - low > step / 10) continue;
    const area = ((v[t + 3] - v[t]) * (v[t + 7] - v[t + 1]) - (v[t + 4] - v[t + 1]) * (v[t + 6] - v[t])) / 2;
    const key = Math.round((low - min[2]) / step);
    const had = out.get(key);
    if (had) had.area += area;
    else out.set(key, { area, z: low });
  }
  return out;
}

/**
 * The plane proposed as the relief's base: the flat back, when triangles looking straight down at one height cover at
 * least a fifth of the plan's box; otherwise the lowest point. File units along z.
 */
export function proposeBase(mesh: Mesh): { z: number; flatBack: boolean } {
  const { min, max } = boxOf(mesh);
  const plan = (max[0] - min[0]) * (max[1] - min[1]);
  let best = { z: min[2], area: 0 };
  for (const f of flats(mesh).values()) if (-f.area > best.area) best = { z: f.z, area: -f.area };
  const flatBack = best.area >= 0.2 * plan;
  return { z: flatBack ? best.z : min[2], flatBack };
}

const LYING: Orientation['turns'][] = [
  [0, 0, 0],
  [1, 0, 0],
  [3, 0, 0],
  [0, 1, 0],
  [0, 3, 0],
  [2, 0, 0],
];

/**
 * The orientation proposed on import: the first of the six ways to lay the mesh down that puts a flat back underneath,
 * or, when it has none, the way that needs the least thickness.
 */
export function proposeOrientation(mesh: Mesh): Orientation {
  let best: { turns: Orientation['turns']; score: number } | undefined;
  for (const turns of LYING) {
    const turned = orientMesh(mesh, { turns, mirror: false });
    const { min, max } = boxOf(turned);
    const thickness = (max[2] - min[2]) / Math.max(max[0] - min[0], max[1] - min[1], 1e-9);
    const score = thickness - (proposeBase(turned).flatBack ? 10 : 0);
    if (!best || score < best.score - 1e-6) best = { turns, score };
  }
  return { turns: best?.turns ?? [0, 0, 0], mirror: false };
}

/** Unit guessed from the plan's longest side: up to 30 reads as inches (0.76 m at most), more as mm. */
export function guessUnit(box: Box): 'mm' | 'in' {
  return Math.max(box.max[0] - box.min[0], box.max[1] - box.min[1]) <= 30 ? 'in' : 'mm';
}
