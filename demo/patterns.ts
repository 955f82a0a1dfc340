import { encode } from 'fast-png';
import { writeStl } from '@/core/sources/stl';
import { bar, dome, loaf, plaque, type Shape, shapeMesh, sheaf, smooth } from './shapes';

/** A pattern of the sample shop, generated: its file, and what the drawer says of it. */
export interface DemoPattern {
  name: string;
  file: string;
  bytes: Uint8Array;
  tags: string[];
  from: string;
  /** True plan size and relief range, mm; null where the file itself says it. */
  size: { x: number; y: number } | null;
  rise: number | null;
}

/** A picture of heights 0..1 by a function of place in mm, 16 bit, black where it is null. */
export function heightPng(
  x: number,
  y: number,
  pixel: number,
  at: (x: number, y: number) => number | null,
): Uint8Array {
  const width = Math.round(x / pixel);
  const height = Math.round(y / pixel);
  const data = new Uint16Array(width * height);
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const h = at((i + 0.5) * pixel - x / 2, y / 2 - (j + 0.5) * pixel);
      if (h !== null) data[j * width + i] = Math.max(1, Math.round(Math.min(1, h) * 65535));
    }
  }
  return encode({ width, height, data, depth: 16, channels: 1 });
}

/** A triangulated closed mesh of heights over the places where they stand, flat below: for shapes without a simple outline. */
function heightMesh(x: number, y: number, step: number, at: (x: number, y: number) => number): Float32Array {
  const nx = Math.round(x / step);
  const ny = Math.round(y / step);
  const h = new Float64Array((nx + 1) * (ny + 1));
  for (let j = 0; j <= ny; j++)
    for (let i = 0; i <= nx; i++) h[j * (nx + 1) + i] = at(i * step - x / 2, j * step - y / 2);
  const out: number[] = [];
  const put = (i: number, j: number, flat: boolean) =>
    out.push(i * step - x / 2, j * step - y / 2, flat ? 0 : Math.max(0, h[j * (nx + 1) + i]));
  const has = (i: number, j: number) =>
    i >= 0 && j >= 0 && i < nx && j < ny && [0, 1, nx + 1, nx + 2].some((d) => h[j * (nx + 1) + i + d] > 0);
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) {
      if (!has(i, j)) continue;
      const q: [number, number][] = [
        [i, j],
        [i + 1, j],
        [i + 1, j + 1],
        [i, j + 1],
      ];
      for (const [a, b, c] of [
        [0, 1, 2],
        [0, 2, 3],
      ]) {
        for (const k of [a, b, c]) put(...q[k], false);
        for (const k of [a, c, b]) put(...q[k], true);
      }
      // Skirts where a neighbour has nothing.
      const sides: [number, number, number, number][] = [
        [0, 1, i, j - 1],
        [1, 2, i + 1, j],
        [2, 3, i, j + 1],
        [3, 0, i - 1, j],
      ];
      for (const [a, b, ni, nj] of sides) {
        if (has(ni, nj)) continue;
        put(...q[a], true);
        put(...q[b], true);
        put(...q[b], false);
        put(...q[a], true);
        put(...q[b], false);
        put(...q[a], false);
      }
    }
  }
  return Float32Array.from(out);
}

/** One ear of wheat leaning a little, its stalk below: 34 x 96 mm, 6 high. */
function ear(x: number, y: number): number {
  let h = 4 * bar(x, y, -8, -46, 0, -4, 2.2, 0.6);
  for (let k = 0; k < 9; k++) {
    for (const side of [-1, 1]) {
      h = Math.max(h, dome(x, y, 3.4 * side + 0.5 * k, -4 + 5 * k, 3.6, 5.6, -0.1 - side * 0.35, 5.4 - 0.15 * k));
    }
  }
  h = Math.max(h, dome(x, y, 4.6, 41, 2, 5.2, -0.1, 4));
  // Awns.
  for (const side of [-1, 0, 1]) h = Math.max(h, 1.6 * bar(x, y, 4 + side * 3, 36, 6 + side * 8, 47, 0.9, 1));
  return h;
}

/** A ribbon in three waves with its ends folded back: 220 x 46 mm. Null beside it. */
function ribbon(x: number, y: number): number | null {
  const middle = 5 * Math.sin((x / 110) * Math.PI * 1.5);
  const tail = Math.abs(x) > 84;
  const drop = tail ? -9 : 0;
  const d = Math.abs(y - middle - drop);
  if (Math.abs(x) > 108 - (tail ? Math.max(0, 8 - 0.7 * d) : 0) || d > 13)
    return tail || Math.abs(x) <= 90 ? onBody(x, y) : null;
  if (tail) return onBody(x, y) ?? 0.35 + 0.2 * smooth(84, 108, Math.abs(x));
  return onBody(x, y);
}

/** The ribbon's front piece, raised where it waves towards the eye, with a hemmed edge. */
function onBody(x: number, y: number): number | null {
  if (Math.abs(x) > 90) return null;
  const middle = 5 * Math.sin((x / 110) * Math.PI * 1.5);
  const d = Math.abs(y - middle);
  if (d > 13) return null;
  const wave = 0.72 + 0.2 * Math.cos((x / 90) * Math.PI * 2);
  const hem = d > 11 ? 0.07 : 0;
  return wave + hem - 0.12 * smooth(78, 90, Math.abs(x));
}

/** A round dish modelled as a recess, its rim high and its middle low: 90 mm across. Null beside it. */
function dishRecess(x: number, y: number): number | null {
  const q = Math.hypot(x, y) / 45;
  if (q > 1) return null;
  return q > 0.86 ? 1 : 1 - Math.sqrt(Math.max(0, 1 - (q / 0.86) ** 2.4)) * 0.92;
}

/** A mill wheel with eight spokes and paddles: 100 mm across, 5 high. Null beside it. */
function wheel(x: number, y: number): number | null {
  const r = Math.hypot(x, y);
  const a = Math.atan2(y, x);
  const ring = r > 36 && r < 43 ? 0.7 + 0.3 * (1 - ((r - 39.5) / 3.5) ** 2) : 0;
  const hub = r < 9 ? 1 - 0.25 * (r / 9) ** 2 : 0;
  const turn = (a / (Math.PI / 4)) % 1;
  const spoke = Math.abs(turn < 0 ? turn + 1 : turn) * (Math.PI / 4) * r;
  const spokes = r < 40 && Math.min(spoke, (Math.PI / 4) * r - spoke) < 2.6 ? 0.6 : 0;
  const p = (a / (Math.PI / 8)) % 1;
  const paddle = Math.abs(p < 0 ? p + 1 : p) * (Math.PI / 8) * r;
  const paddles = r > 40 && r < 50 && Math.min(paddle, (Math.PI / 8) * r - paddle) < 2.2 ? 0.85 : 0;
  const h = Math.max(ring, hub, spokes, paddles);
  return h > 0 ? h : null;
}

const stl = (s: Shape, name: string) => writeStl(shapeMesh(s, 0.5), name);
const MADE = 'made for the sample shop';

/** The patterns that the sample shop starts with, each with what makes its file. */
const PATTERNS: (Omit<DemoPattern, 'bytes'> & { make(): Uint8Array })[] = [
  {
    name: 'Wheat sheaf',
    file: 'wheat-sheaf-alone.stl',
    make: () =>
      writeStl(
        heightMesh(124, 134, 0.5, (x, y) => sheaf(x, y - 2)),
        'wheat sheaf',
      ),
    tags: ['wheat', 'harvest', 'bakery'],
    from: MADE,
    size: null,
    rise: null,
  },
  {
    name: 'Ear of wheat',
    file: 'ear-of-wheat.stl',
    make: () => writeStl(heightMesh(34, 96, 0.4, ear), 'ear of wheat'),
    tags: ['wheat', 'corner'],
    from: MADE,
    size: null,
    rise: null,
  },
  {
    name: 'Ribbon',
    file: 'ribbon.png',
    make: () => heightPng(220, 46, 0.2, ribbon),
    tags: ['banner', 'words'],
    from: MADE,
    size: { x: 220, y: 46 },
    rise: 4,
  },
  {
    name: 'Mill wheel',
    file: 'mill-wheel.png',
    make: () => heightPng(102, 102, 0.2, wheel),
    tags: ['mill', 'emblem'],
    from: MADE,
    size: { x: 102, y: 102 },
    rise: 5,
  },
  {
    name: 'Dish, a recess',
    file: 'dish-recess.png',
    make: () => heightPng(92, 92, 0.2, dishRecess),
    tags: ['dish', 'recess'],
    from: MADE,
    size: { x: 92, y: 92 },
    rise: 8,
  },
  {
    name: 'Loaf',
    file: 'loaf.stl',
    make: () => stl(loaf, 'loaf for a cookie mould'),
    tags: ['bread', 'bakery'],
    from: MADE,
    size: null,
    rise: null,
  },
  {
    name: 'Whole plaque',
    file: 'wheat-sheaf.stl',
    make: () => stl(plaque, 'wheat-sheaf plaque'),
    tags: ['wheat', 'plaque'],
    from: MADE,
    size: null,
    rise: null,
  },
];

const made = new Map<string, Uint8Array>();

/** The file of a pattern, made once. @throws RangeError where there is no such pattern */
export function patternFile(file: string): { name: string; bytes: Uint8Array } {
  const pattern = PATTERNS.find((p) => p.file === file);
  if (!pattern) throw new RangeError(`the sample shop has no pattern ${file}`);
  const bytes = made.get(file) ?? pattern.make();
  made.set(file, bytes);
  return { name: file, bytes };
}

/** The patterns that the sample shop starts with. */
export const demoPatterns = (): DemoPattern[] =>
  PATTERNS.map(({ make: _, ...p }) => ({ ...p, bytes: patternFile(p.file).bytes }));
