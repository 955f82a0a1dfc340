import type { Mesh } from './mesh';

/** Quarter turns about each axis (applied x, then y, then z) and a mirror in x before them. */
export interface Orientation {
  turns: [number, number, number];
  mirror: boolean;
}

export interface Box {
  min: [number, number, number];
  max: [number, number, number];
}

/** Where the axes of a turned mesh come from: for x, y and z the file's axis and its sign. */
export interface Axes {
  from: [number, number, number];
  sign: [number, number, number];
  /** -1 when the triangles come out inside out. */
  winding: 1 | -1;
}

/** Quarter turns and a mirror only swap and negate axes, so that a turned mesh needs no copy. */
export function axesOf(o: Orientation): Axes {
  let from: Axes['from'] = [0, 1, 2];
  let sign: Axes['sign'] = [o.mirror ? -1 : 1, 1, 1];
  const quarter = (a: number, b: number) => {
    // What was axis a comes from -b, what was b from a.
    const [f, s] = [from.slice() as Axes['from'], sign.slice() as Axes['sign']];
    f[a] = from[b];
    s[a] = -sign[b];
    f[b] = from[a];
    s[b] = sign[a];
    [from, sign] = [f, s];
  };
  const times = (n: number, a: number, b: number) => {
    for (let k = ((n % 4) + 4) % 4; k > 0; k--) quarter(a, b);
  };
  times(o.turns[0], 1, 2);
  times(o.turns[1], 2, 0);
  times(o.turns[2], 0, 1);
  return { from, sign, winding: o.mirror ? -1 : 1 };
}

const AS_IT_IS: Axes = { from: [0, 1, 2], sign: [1, 1, 1], winding: 1 };

/** The box of a mesh as it lies in its file, worked out once. */
const BOXES = new WeakMap<Float32Array, Box>();

function fileBox(mesh: Mesh): Box {
  const had = BOXES.get(mesh.triangles);
  if (had) return had;
  const v = mesh.triangles;
  let x0 = Infinity;
  let y0 = Infinity;
  let z0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  let z1 = -Infinity;
  for (let i = 0; i < v.length; i += 3) {
    const x = v[i];
    const y = v[i + 1];
    const z = v[i + 2];
    if (x < x0) x0 = x;
    if (x > x1) x1 = x;
    if (y < y0) y0 = y;
    if (y > y1) y1 = y;
    if (z < z0) z0 = z;
    if (z > z1) z1 = z;
  }
  const box: Box = { min: [x0, y0, z0], max: [x1, y1, z1] };
  BOXES.set(v, box);
  return box;
}

export function boxOf(mesh: Mesh, axes = AS_IT_IS): Box {
  const { min, max } = fileBox(mesh);
  const end = (a: number, top: boolean) => {
    const f = axes.from[a];
    return axes.sign[a] > 0 ? (top ? max[f] : min[f]) : -(top ? min[f] : max[f]);
  };
  return { min: [end(0, false), end(1, false), end(2, false)], max: [end(0, true), end(1, true), end(2, true)] };
}

/** Area of the triangles whose plane is square to z, by height, and whether they look down. File units. */
function flats(mesh: Mesh, axes: Axes, box: Box): Map<number, { area: number; z: number }> {
  const { min, max } = box;
  const step = Math.max((max[2] - min[2]) * 1e-3, 1e-9);
  const out = new Map<number, { area: number; z: number }>();
  const v = mesh.triangles;
  const [fx, fy, fz] = axes.from;
  const [sx, sy, sz] = axes.sign;
  const flip = (axes.winding * sx * sy) / 2;
  for (let t = 0; t < v.length; t += 9) {
    const z0 = v[t + fz] * sz;
    const z1 = v[t + 3 + fz] * sz;
    const z2 = v[t + 6 + fz] * sz;
    const low = Math.min(z0, z1, z2);
    if (Math.max(z0, z1, z2) - low > step / 10) continue;
    const x0 = v[t + fx];
    const y0 = v[t + fy];
    const area = ((v[t + 3 + fx] - x0) * (v[t + 6 + fy] - y0) - (v[t + 6 + fx] - x0) * (v[t + 3 + fy] - y0)) * flip;
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
export function proposeBase(mesh: Mesh, axes = AS_IT_IS): { z: number; flatBack: boolean } {
  const box = boxOf(mesh, axes);
  const { min, max } = box;
  const plan = (max[0] - min[0]) * (max[1] - min[1]);
  let best = { z: min[2], area: 0 };
  for (const f of flats(mesh, axes, box).values()) if (-f.area > best.area) best = { z: f.z, area: -f.area };
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

/** The sum of all triangles' areas as vectors, file units squared: nothing for a closed mesh, its plan for a sheet. */
function sumOfAreas(mesh: Mesh): [number, number, number] {
  const v = mesh.triangles;
  let [x, y, z] = [0, 0, 0];
  for (let t = 0; t < v.length; t += 9) {
    const [ax, ay, az] = [v[t + 3] - v[t], v[t + 4] - v[t + 1], v[t + 5] - v[t + 2]];
    const [bx, by, bz] = [v[t + 6] - v[t], v[t + 7] - v[t + 1], v[t + 8] - v[t + 2]];
    x += ay * bz - az * by;
    y += az * bx - ax * bz;
    z += ax * by - ay * bx;
  }
  return [x / 2, y / 2, z / 2];
}

/**
 * The orientation proposed on import: the first of the six ways to lay the mesh down that puts a flat back underneath,
 * or, when it has none, the way that needs the least thickness. A sheet without a back lies as it does in its file: its level
 * ground is no back, whichever way it looks.
 */
export function proposeOrientation(mesh: Mesh): Orientation {
  let best: { turns: Orientation['turns']; score: number } | undefined;
  const areas = sumOfAreas(mesh);
  for (const turns of LYING) {
    const axes = axesOf({ turns, mirror: false });
    const { min, max } = boxOf(mesh, axes);
    const thickness = (max[2] - min[2]) / Math.max(max[0] - min[0], max[1] - min[1], 1e-9);
    const sheet = Math.abs(areas[axes.from[2]]) > 0.2 * (max[0] - min[0]) * (max[1] - min[1]);
    const score = thickness - (!sheet && proposeBase(mesh, axes).flatBack ? 10 : 0);
    if (!best || score < best.score - 1e-6) best = { turns, score };
  }
  return { turns: best?.turns ?? [0, 0, 0], mirror: false };
}

/** Unit guessed from the plan's longest side: up to 30 reads as inches (0.76 m at most), more as mm. */
export function guessUnit(box: Box): 'mm' | 'in' {
  return Math.max(box.max[0] - box.min[0], box.max[1] - box.min[1]) <= 30 ? 'in' : 'mm';
}
