import type { Holding } from '../doc/setup';
import { distanceInside } from '../field/distance';
import { cellAt, cellPlace, type HeightField, poolField } from '../field/height-field';
import { leastCut } from '../field/least-cut';
import { type Pieces, piecesOf } from '../field/pieces';
import { holdingBox } from '../setup/holding';

/** Wood that parts a board no more, mm: a skin as thin as this tears. */
const SKIN = 0.09;
/** Wood thinner or narrower than this holds a piece hardly, mm (common practice, no source). */
export const FRAIL = 1;
/** Smaller pieces are chips, mm2 (common practice, no source). */
const CHIP = 20;
/** Cells on which necks are looked for: no smaller than this, mm. */
const COARSE = 0.2;

/** A piece that nothing joins to what is held. Places in the setup's coordinates, mm. */
export interface LoosePiece {
  x: number;
  y: number;
  /** Seen from above, mm2. */
  area: number;
}

/** A piece that frail wood alone joins to what is held. */
export interface WeakPiece extends LoosePiece {
  /** How thick, or narrow, the best way of wood to it is at its least, mm; and the least section of what joins it, mm2. */
  neck: number;
  section: number;
}

/** What holds after a program. */
export interface Held {
  file: string;
  loose: LoosePiece[];
  weak: WeakPiece[];
}

/**
 * The parts that are held: those under clamps and screws; where none are entered, or none of them meets wood, that with the most wood along
 * the board's edge, else the largest.
 */
function heldParts({ of, parts }: Pieces, wood: HeightField, holding: Holding[]): Set<number> {
  const held = new Set<number>();
  for (const h of holding) {
    if (h.kind !== 'clamp' && h.kind !== 'screw') continue;
    const box = holdingBox(h);
    const step = wood.cell;
    for (let x = box.x; x <= box.x + box.width; x += step) {
      for (let y = box.y; y <= box.y + box.depth; y += step) {
        const k = cellAt(wood, x, y);
        if (k >= 0 && of[k] >= 0) held.add(of[k]);
      }
    }
  }
  if (held.size > 0 || parts.length === 0) return held;
  const edge = new Float64Array(parts.length);
  const { width, height } = wood;
  const count = (k: number) => {
    if (of[k] >= 0) edge[of[k]]++;
  };
  for (let i = 0; i < width; i++) for (const k of [i, (height - 1) * width + i]) count(k);
  for (let j = 0; j < height; j++) for (const k of [j * width, (j + 1) * width - 1]) count(k);
  const more = (a: number, b: number) => edge[a] - edge[b] || parts[a].cells - parts[b].cells;
  return held.add(parts.reduce((best, _, n) => (more(n, best) > 0 ? n : best), 0));
}

/** A place inside a part, as far from its edge as a few looks along its rows find one. */
function placeIn({ of }: Pieces, n: number, wood: HeightField): { x: number; y: number } {
  let [best, run, at] = [0, 0, 0];
  for (let k = 0; k < of.length; k++) {
    run = of[k] === n && k % wood.width > 0 ? run + 1 : of[k] === n ? 1 : 0;
    if (run > best) [best, at] = [run, k - (run >> 1)];
  }
  return cellPlace(wood, at);
}

function standing(thick: Float32Array, over: number): Uint8Array {
  const out = new Uint8Array(thick.length);
  for (let k = 0; k < out.length; k++) if (thick[k] > over) out[k] = 1;
  return out;
}

/** How far the wood around each cell reaches up or aside, mm: its thickness, or twice its distance from where there is none. */
function stoutness(wood: HeightField): Float32Array {
  const { width, height, cell } = wood;
  // A frame of nothing around the board would make its own edge a neck: outside counts as wood.
  const inside = standing(wood.data, SKIN);
  const far = distanceInside(inside, width, height);
  for (let k = 0; k < far.length; k++) far[k] = inside[k] ? Math.min(wood.data[k], (2 * far[k] - 1) * cell) : 0;
  return far;
}

/** Where too much lies between to find the least cut: the least of the rings around a part, from step to step over standing wood, mm2. */
function leastRing(from: Pieces, n: number, held: Set<number>, wood: HeightField): number {
  const { width, height, data, cell } = wood;
  const seen = new Uint8Array(data.length);
  let front: number[] = [];
  for (let k = 0; k < data.length; k++) {
    if (from.of[k] !== n) continue;
    seen[k] = 1;
    front.push(k);
  }
  let least = Infinity;
  while (front.length > 0) {
    const next: number[] = [];
    let section = 0;
    let reached = false;
    for (const k of front) {
      const [i, j] = [k % width, Math.floor(k / width)];
      for (const q of [
        i > 0 ? k - 1 : -1,
        i + 1 < width ? k + 1 : -1,
        j > 0 ? k - width : -1,
        j + 1 < height ? k + width : -1,
      ]) {
        if (q < 0 || seen[q] === 1 || data[q] <= SKIN) continue;
        section += Math.min(data[k], data[q]) * cell;
        if (held.has(from.of[q])) reached = true;
        if (seen[q] === 0) {
          seen[q] = 2;
          next.push(q);
        }
      }
    }
    if (section > 0) least = Math.min(least, section);
    if (reached) break;
    for (const k of next) seen[k] = 1;
    front = next;
  }
  return Number.isFinite(least) ? least : 0;
}

/** Pieces that frail wood alone joins to what is held. @param isHeld whether the wood at a place is joined to what is held at all */
function weakOf(wood: HeightField, holding: Holding[], isHeld: (x: number, y: number) => boolean): WeakPiece[] {
  const coarse = poolField(wood, Math.max(1, Math.round(COARSE / wood.cell)), 'min');
  const stout = stoutness(coarse);
  const strong = piecesOf(standing(stout, FRAIL), coarse);
  const held = heldParts(strong, coarse, holding);
  return strong.parts.flatMap((p, n) => {
    const area = p.cells * coarse.cell ** 2;
    if (area < CHIP || held.has(n)) return [];
    const at = placeIn(strong, n, coarse);
    if (!isHeld(at.x, at.y)) return [];
    // Between the two the wood that joins it gives way: halved until it is known to a twentieth of a millimetre.
    let [low, high] = [SKIN, FRAIL];
    while (high - low > 0.05) {
      const middle = (low + high) / 2;
      const parts = piecesOf(standing(stout, middle), coarse);
      if (heldParts(parts, coarse, holding).has(parts.of[p.first])) low = middle;
      else high = middle;
    }
    return [
      {
        ...at,
        area,
        neck: low,
        section: leastCut(coarse, strong.of, n, held, SKIN) ?? leastRing(strong, n, held, coarse),
      },
    ];
  });
}

/**
 * Which pieces of a board nothing, or hardly anything, joins to what is held. Larger than a chip only.
 * @param wood how much stands over every cell, mm
 */
export function whatHolds(wood: HeightField, holding: Holding[]): Omit<Held, 'file'> {
  if (!wood.data.some((t) => t <= FRAIL)) return { loose: [], weak: [] };
  const pieces = piecesOf(standing(wood.data, SKIN), wood);
  const held = heldParts(pieces, wood, holding);
  const loose = pieces.parts.flatMap((p, n) => {
    const area = p.cells * wood.cell ** 2;
    return held.has(n) || area < CHIP ? [] : [{ ...placeIn(pieces, n, wood), area }];
  });
  const isHeld = (x: number, y: number) => {
    const k = cellAt(wood, x, y);
    return k >= 0 && held.has(pieces.of[k]);
  };
  return { loose, weak: weakOf(wood, holding, isHeld) };
}
