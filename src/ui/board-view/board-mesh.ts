import { DEPTH } from '@/core/arrange/picture';
import { MASK } from '@/core/arrange/target';
import type { Grid } from '@/core/field/height-field';
import { type Mesh, MeshMaker, SIDES, WASTE } from './mesh';

/** A board as it is to be turned about: heights of its top and its underside on one grid, mm from its top. */
export interface Block {
  grid: Grid;
  top: Float32Array;
  /** Null where the underside is the board's own. */
  under: Float32Array | null;
  mask: Uint8Array;
  board: { x: number; y: number; thickness: number };
  /** 1 for each cell that is shown; null for all. */
  shown: Uint8Array | null;
}

/** Wood thinner than this is a hole, mm. */
const OPEN = 0.02;
/** A step is a wall from this height on, mm, and from this slope on between two samples. */
const WALL = 0.6;
const STEEP = 2;

type Rgb = ArrayLike<number> & Iterable<number>;

/** One sample of the board: where it is, and what is known of it on both sides. */
interface Corner {
  i: number;
  j: number;
  x: number;
  y: number;
  z: number;
  gone: boolean;
}

/** One side of a board by its cells: heights, what is open there, colours; and where the walls of what is open end, on the side that draws them. */
interface Cells {
  z(k: number): number;
  gone(k: number): boolean;
  paint(k: number, z: number): Rgb;
  foot: ((k: number) => number) | null;
}

/** Where a wall runs between two samples: the place, and the heights on both sides of it. */
interface Crossing {
  x: number;
  y: number;
  high: number;
  low: number;
}

/** The surface of one side of a board: samples of its grid, and between them walls where walls are. */
class Side {
  readonly nx: number;
  readonly ny: number;
  private readonly vertex: Int32Array;
  private readonly below: boolean;

  constructor(
    private readonly b: Block,
    readonly step: number,
    private readonly cells: Cells,
    private readonly mesh: MeshMaker,
  ) {
    const { width, height } = b.grid;
    this.below = cells.foot === null;
    this.nx = Math.floor((width - 1) / step) + 1;
    this.ny = Math.floor((height - 1) / step) + 1;
    this.vertex = new Int32Array(this.nx * this.ny).fill(-1);
  }

  cellAt(i: number, j: number): number {
    const { width, height } = this.b.grid;
    return Math.min(height - 1, j * this.step) * width + Math.min(width - 1, i * this.step);
  }

  corner(i: number, j: number): Corner {
    const { grid, board } = this.b;
    const k = this.cellAt(i, j);
    const at = (n: number, last: number, origin: number, size: number) =>
      n === 0 ? 0 : n === last ? size : origin + n * this.step * grid.cell;
    return {
      i,
      j,
      x: at(i, this.nx - 1, grid.originX, board.x),
      y: at(j, this.ny - 1, grid.originY, board.y),
      z: this.cells.z(k),
      gone: this.cells.gone(k),
    };
  }

  private put(x: number, y: number, z: number, k: number): number {
    const { board } = this.b;
    return this.mesh.put(x - board.x / 2, y - board.y / 2, z, this.cells.paint(k, z));
  }

  /** The vertex of a sample, made once. */
  private shared({ i, j, x, y, z }: Corner): number {
    const n = j * this.nx + i;
    if (this.vertex[n] < 0) this.vertex[n] = this.put(x, y, z, this.cellAt(i, j));
    return this.vertex[n];
  }

  /** Where between two samples the largest step lies, on the grid's own cells. */
  private crossing(a: Corner, b: Corner): Crossing {
    const { width, height } = this.b.grid;
    const [i0, j0] = [a.i * this.step, a.j * this.step].map((v, n) => Math.min((n === 0 ? width : height) - 1, v));
    const [di, dj] = [Math.sign(b.i - a.i), Math.sign(b.j - a.j)];
    const along = Math.max(
      1,
      Math.abs(Math.min(width - 1, b.i * this.step) - i0) + Math.abs(Math.min(height - 1, b.j * this.step) - j0),
    );
    const { z, gone, foot } = this.cells;
    let [most, at] = [-1, 0];
    const seen = (s: number) => (j0 + dj * s) * width + i0 + di * s;
    for (let s = 0; s < along; s++) {
      const [p, q] = [seen(s), seen(s + 1)];
      const d = gone(p) !== gone(q) ? Number.POSITIVE_INFINITY : Math.abs(z(q) - z(p));
      if (d > most) [most, at] = [d, s];
    }
    const t = (at + 0.5) / along;
    const place = { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t };
    const [p, q] = [seen(at), seen(at + 1)];
    if (most === Number.POSITIVE_INFINITY) {
      const there = gone(p) ? q : p;
      return { ...place, high: z(there), low: foot ? foot(there) : z(there) };
    }
    return { ...place, high: Math.max(z(p), z(q)), low: Math.min(z(p), z(q)) };
  }

  /** What lies between four samples: level with them, or parted by a wall that runs where the grid has it. */
  quad(i: number, j: number): void {
    const c = [this.corner(i, j), this.corner(i + 1, j), this.corner(i + 1, j + 1), this.corner(i, j + 1)];
    if (c.every((p) => p.gone)) return;
    const zs = c.map((p) => p.z);
    const [low, high] = [Math.min(...zs), Math.max(...zs)];
    const some = c.some((p) => p.gone);
    if (!some && high - low < Math.max(WALL, STEEP * this.step * this.b.grid.cell)) {
      this.mesh.ring(
        c.map((p) => this.shared(p)),
        this.below,
      );
      return;
    }
    // What is not there counts as the low side of a wall, whose foot is not drawn.
    const middle = (low + high) / 2;
    this.parted(
      c,
      c.map((p) => (some ? !p.gone : p.z > middle)),
      some,
    );
  }

  private parted(c: Corner[], up: boolean[], open: boolean): void {
    const edges = c.map((p, n) => (up[n] === up[(n + 1) % 4] ? null : this.crossing(p, c[(n + 1) % 4])));
    const k = (p: Corner) => this.cellAt(p.i, p.j);
    for (const side of [true, false]) {
      if (open && !side) continue;
      for (const ring of ringsOf(up, side)) {
        const vertices = ring.map((n) => {
          const e = n >= 4 ? edges[n - 4] : null;
          if (e) return this.put(e.x, e.y, side ? e.high : e.low, k(c[n - 4]));
          return this.put(c[n].x, c[n].y, c[n].z, k(c[n]));
        });
        this.mesh.ring(vertices, this.below);
        if (side && !(open && this.below)) this.walls(ring, edges, c);
      }
    }
  }

  /** The walls at the ends of the high side's rings, facing the low side. */
  private walls(ring: number[], edges: (Crossing | null)[], c: Corner[]): void {
    ring.forEach((n, m) => {
      const next = ring[(m + 1) % ring.length];
      if (n < 4 || next < 4) return;
      const [a, b] = [edges[n - 4], edges[next - 4]];
      if (!a || !b) return;
      const k = this.cellAt(c[n - 4].i, c[n - 4].j);
      const foot = [this.put(a.x, a.y, a.high, k), this.put(a.x, a.y, a.low, k)];
      const end = [this.put(b.x, b.y, b.low, k), this.put(b.x, b.y, b.high, k)];
      this.mesh.ring([...foot, ...end], this.below);
    });
  }
}

/**
 * The corners (0 to 3) and crossings (4 + the corner before them) of one side of a quad that is parted, as rings that run as the corners do. Where its
 * high corners lie across from each other they are parted too.
 */
export function ringsOf(up: boolean[], side: boolean): number[][] {
  const mine = up.map((u) => u === side);
  const across = mine[0] === mine[2] && mine[1] === mine[3] && mine[0] !== mine[1];
  if (across && side) return [0, 1, 2, 3].filter((n) => mine[n]).map((n) => [4 + ((n + 3) % 4), n, 4 + n]);
  const ring = [0, 1, 2, 3].flatMap((n) => [
    ...(mine[n] ? [n] : []),
    ...(mine[n] !== mine[(n + 1) % 4] ? [4 + n] : []),
  ]);
  return ring.length > 2 ? [ring] : [];
}

/** The board as a mesh with its sides, coloured by depth, its middle at 0; about so many samples along its longer side. */
export function boardMesh(b: Block, samples: number): Mesh {
  const { grid, top, under, mask, board, shown } = b;
  const { width, height } = grid;
  const step = Math.max(1, Math.ceil(Math.max(width, height) / samples));
  const mesh = new MeshMaker();
  const least = -board.thickness;
  const zOver = (k: number) => Math.max(top[k], least);
  const zUnder = (k: number) => (under ? Math.min(zOver(k), Math.max(least, under[k])) : least);
  const gone = (k: number) => (shown !== null && shown[k] === 0) || zOver(k) - zUnder(k) <= OPEN;
  let deep = 0;
  for (let k = 0; k < top.length; k += 7) if (top[k] < deep) deep = Math.max(top[k], least);
  const dark = (share: number) => DEPTH[Math.round(255 * Math.min(1, Math.max(0, share)))];
  const over = (k: number, z: number) => (mask[k] === MASK.waste ? WASTE : dark(1 - z / (deep || -1)));
  const beneath = (_: number, z: number) => (under ? dark(1 - (2 * (z - least)) / board.thickness) : SIDES);
  const face = new Side(b, step, { z: zOver, gone, paint: over, foot: zUnder }, mesh);
  const back = new Side(b, step, { z: zUnder, gone, paint: beneath, foot: null }, mesh);
  for (let j = 0; j + 1 < face.ny; j++)
    for (let i = 0; i + 1 < face.nx; i++) {
      face.quad(i, j);
      back.quad(i, j);
    }
  sides(face, back, mesh, b);
  return mesh.finish();
}

/** The board's sides, from the top's surface down to the underside's. */
function sides(face: Side, back: Side, mesh: MeshMaker, { board }: Block): void {
  const { nx, ny } = face;
  const put = ({ x, y }: Corner, z: number) => mesh.put(x - board.x / 2, y - board.y / 2, z, SIDES);
  const rim: [number, number][] = [];
  for (let i = 0; i < nx; i++) rim.push([i, 0]);
  for (let j = 1; j < ny; j++) rim.push([nx - 1, j]);
  for (let i = nx - 2; i >= 0; i--) rim.push([i, ny - 1]);
  for (let j = ny - 2; j > 0; j--) rim.push([0, j]);
  rim.forEach(([i, j], r) => {
    const [a, b] = [face.corner(i, j), face.corner(...rim[(r + 1) % rim.length])];
    if (a.gone || b.gone) return;
    mesh.ring([put(a, a.z), put(a, back.corner(a.i, a.j).z), put(b, back.corner(b.i, b.j).z), put(b, b.z)]);
  });
}

/** Most triangles while a board is being turned, and where it rests. */
export const MOST_TRIANGLES = { turning: 300_000, resting: 1_500_000 };

/** A mesh of no more than so many triangles, as fine as that allows. */
export function withinTriangles(make: (samples: number) => Mesh, samples: number, most: number): Mesh {
  for (let n = samples; ; ) {
    const mesh = make(n);
    const triangles = mesh.index.length / 3;
    if (triangles <= most || n < 32) return mesh;
    n = Math.floor(n * Math.min(0.9, Math.sqrt(most / triangles)));
  }
}
