import { type Cutter, profileOf } from '../cutter/cutter';
import type { Turning } from '../doc/parts';
import { cellPlace, type HeightField } from '../field/height-field';
import { ENGAGED, VOLUME } from '../kernels/engagement';
import type { KernelHost } from '../kernels/host';
import { SEGMENT } from '../kernels/segment';
import { engageBy, isBeneath } from '../kernels/spans';
import { type Frame, placeThrough, turnedCells } from '../setup/frame';

/**
 * What is hollow beneath wood that stands: of every cell where it begins and ends, mm, floor below ceiling; where nothing is hollow the floor lies
 * above. A cell holds one hollow: of two over each other what lies between them counts as gone. 8 bytes a cell, where a slot bit has been.
 */
export interface Hollow {
  floor: Float32Array;
  ceiling: Float32Array;
}

/** Where the head of a slot bit has gone along beneath the wood: a straight way, its width, and between which heights, mm. */
export interface Undercut {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  radius: number;
  floor: number;
  ceiling: number;
}

/** Undercuts of a run that are kept, at most: what is shown of them. */
const MOST = 500;
/** Less of a head under its lip is rounding, mm. */
const LEAST = 0.05;

const noHollow = (cells: number): Hollow => ({
  floor: new Float32Array(cells).fill(Infinity),
  ceiling: new Float32Array(cells).fill(-Infinity),
});

/** A hollow as it lies in a setup that turns the board over, or the other way about: turning twice gives it back. */
export function turnedHollow({ floor, ceiling }: Hollow, width: number, turned: Turning, thickness: number): Hollow {
  const over = (z: Float32Array) => turnedCells(z, width, turned).map((v) => -thickness - v);
  return { floor: over(ceiling), ceiling: over(floor) };
}

/** A hollow that has lost its lip is open: the surface falls to its floor. */
export function openHollow(surface: HeightField, { floor, ceiling }: Hollow): void {
  const { data } = surface;
  for (let k = 0; k < data.length; k++) if (data[k] < ceiling[k] && data[k] > floor[k]) data[k] = floor[k];
}

/** How much is hollow under a surface, mm3. */
export function hollowVolume({ data, cell }: HeightField, { floor, ceiling }: Hollow): number {
  let sum = 0;
  for (let k = 0; k < data.length; k++) if (data[k] > ceiling[k] && ceiling[k] > floor[k]) sum += ceiling[k] - floor[k];
  return sum * cell ** 2;
}

/** Calls for every cell that a head meets on its way, `by` mm further in than it reaches. */
function underHead(f: HeightField, head: Undercut, by: number, call: (cell: number) => void): void {
  const { x0, y0, x1, y1 } = head;
  const r = head.radius - by;
  const within = { ...head, radius: r };
  const first = (low: number, origin: number) => Math.max(0, Math.ceil((low - r - origin) / f.cell));
  const last = (high: number, origin: number, cells: number) =>
    Math.min(cells - 1, Math.floor((high + r - origin) / f.cell));
  const [i0, i1] = [first(Math.min(x0, x1), f.originX), last(Math.max(x0, x1), f.originX, f.width)];
  const [j0, j1] = [first(Math.min(y0, y1), f.originY), last(Math.max(y0, y1), f.originY, f.height)];
  for (let j = j0; j <= j1; j++)
    for (let i = i0; i <= i1; i++) {
      const k = j * f.width + i;
      if (isOver(within, cellPlace(f, k))) call(k);
    }
}

/** What a slot bit's moves did to one part of a surface. */
export interface HeadCut {
  engaged: Float32Array;
  /** The move during which its head stood deepest under wood that it does not cut, going up or at a rapid, and how far it went into it, mm. */
  caught: { move: number; deep: number } | null;
  /** What is hollow of it now; null where nothing is. */
  hollow: Hollow | null;
}

/** The head's way during a move, as far as it goes along or stays. */
function headOf(cutter: Cutter, segments: Float64Array, s: number): Undercut {
  const [x0, y0, z0, x1, y1, z1] = segments.subarray(s, s + 6);
  const floor = Math.min(z0, z1);
  return { x0, y0, x1, y1, radius: profileOf(cutter).R, floor, ceiling: floor + cutter.fluteLength };
}

/**
 * Cuts a surface with a slot bit, move after move: what goes along level at feed cuts the neck's slit and hollows out what the head reaches beneath
 * the wood, all else cuts what the whole head comes down on. The volume of what is hollowed out counts with the move's.
 * Surface and hollow are changed in place; where nothing was hollow there is one only once something is.
 */
export async function cutBeneath(
  surface: HeightField,
  had: Hollow | null,
  { cutter, segments }: { cutter: Cutter; segments: Float64Array },
  host: KernelHost,
): Promise<HeadCut> {
  const n = segments.length / SEGMENT;
  const engaged = new Float32Array(n * ENGAGED);
  const area = surface.cell ** 2;
  let caught: HeadCut['caught'] = null;
  let hollow = had;
  for (let i = 0; i < n; i++) {
    const s = i * SEGMENT;
    const own = segments.subarray(s, s + SEGMENT);
    const head = headOf(cutter, segments, s);
    if (!isBeneath(segments, s)) {
      const deep = intoLip(surface, head, own);
      if (deep > Math.max(LEAST, caught?.deep ?? 0)) caught = { move: i, deep };
      engaged.set(await engageBy(host, surface, cutter, own), i * ENGAGED);
      continue;
    }
    engaged.set(await engageBy(host, surface, cutter, own), i * ENGAGED);
    let volume = 0;
    underHead(surface, head, 0, (k) => {
      const z = surface.data[k];
      if (z <= head.floor) return;
      if (z <= head.ceiling) {
        volume += (z - head.floor) * area;
        surface.data[k] = head.floor;
        return;
      }
      hollow ??= noHollow(surface.data.length);
      const gone = Math.max(0, Math.min(hollow.ceiling[k], head.ceiling) - Math.max(hollow.floor[k], head.floor));
      volume += (head.ceiling - head.floor - gone) * area;
      hollow.floor[k] = Math.min(hollow.floor[k], head.floor);
      hollow.ceiling[k] = Math.max(hollow.ceiling[k], head.ceiling);
    });
    engaged[i * ENGAGED + VOLUME] += volume;
  }
  return { engaged, caught, hollow };
}

/** How far a head that goes up, or along at a rapid, goes into wood that stands over it when it sets out, mm. */
function intoLip(surface: HeightField, head: Undercut, move: Float64Array): number {
  const [x0, y0, z0, , , z1, rapid] = move;
  const [from, to] = [z0 + head.ceiling - head.floor, z1 + head.ceiling - head.floor];
  if (to <= from && rapid === 0) return 0;
  let deep = 0;
  underHead(surface, { ...head, x1: x0, y1: y0 }, surface.cell, (k) => {
    deep = Math.max(deep, Math.min(surface.data[k], Math.max(to, from + LEAST)) - from);
  });
  return deep;
}

/** The ways of a run's head beneath the wood, each once. */
export function undercutsOf(cutter: Cutter, segments: Float64Array): Undercut[] {
  const out = new Map<string, Undercut>();
  for (let s = 0; s < segments.length && out.size < MOST; s += SEGMENT) {
    if (cutter.shape !== 'slot' || !isBeneath(segments, s) || segments[s + 2] >= -cutter.fluteLength) continue;
    const u = headOf(cutter, segments, s);
    const ends = [`${u.x0},${u.y0}`, `${u.x1},${u.y1}`].sort();
    out.set([...ends, u.floor].join(' '), u);
  }
  return [...out.values()];
}

/** An undercut of one setup as it lies in the other. */
export function undercutThrough(frame: Frame, u: Undercut): Undercut {
  if (!frame.turned) return u;
  const [a, b] = [placeThrough(frame, { x: u.x0, y: u.y0 }), placeThrough(frame, { x: u.x1, y: u.y1 })];
  const [floor, ceiling] = [-frame.thickness - u.ceiling, -frame.thickness - u.floor];
  return { x0: a.x, y0: a.y, x1: b.x, y1: b.y, radius: u.radius, floor, ceiling };
}

/** Whether a place lies over an undercut, and under how much wood is for its surface to say. */
export function isOver({ x0, y0, x1, y1, radius }: Undercut, { x, y }: { x: number; y: number }): boolean {
  const [dx, dy] = [x1 - x0, y1 - y0];
  const long = dx * dx + dy * dy;
  const t = long > 0 ? Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / long)) : 0;
  return (x - x0 - t * dx) ** 2 + (y - y0 - t * dy) ** 2 <= radius * radius;
}
