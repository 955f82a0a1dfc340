import type { Cutter } from '../cutter/cutter';
import { mostChipArea } from '../cutter/limits';
import type { HeightField } from '../field/height-field';
import { chipAreas, meantOver, VOLUME } from '../kernels/engagement';
import type { KernelHost } from '../kernels/host';
import { SEGMENT, trueWays } from '../kernels/segment';
import { engageBy } from '../kernels/spans';
import { MOVES, type Path } from './path';

/** Shares of its feed that a bit goes at where it takes more than its usual cut: few, so that the machine does not change its speed all the time. */
export const EASED = [1, 0.8, 0.6, 0.45, 0.3];
/** By how much more than that may be taken at a share, as a share of it: cells tell volumes no better. */
const NEAR = 1.03;

/** Moves that go along and take wood on their way; a way straight down has its own feed. */
const ALONG = new Set(['cut', 'link', 'tabs', 'ramp', 'helix'].map((k) => MOVES.indexOf(k as (typeof MOVES)[number])));

/** The share of its feed at which a bit takes no more a second than its usual volume times the stated factor. @param chip chip area, mm3 a mm of way */
export function easedShare(cutter: Pick<Cutter, 'diameter' | 'maxStepdown'>, chip: number): number {
  const most = NEAR * mostChipArea(cutter);
  return EASED.find((share) => share * chip <= most) ?? EASED[EASED.length - 1];
}

/** Moves cut into parts no longer than a span, so that a long one knows where along it there is more to take. */
interface Parts {
  /** SEGMENT numbers each. */
  segments: Float64Array;
  /** The move that each is part of, counted from the first. */
  move: Int32Array;
}

/** The moves of a path from one on, in parts. @param span the longest part, mm */
export function partsOf({ data, kinds, moves }: Path, from: number, span: number): Parts {
  const counts = new Int32Array(moves - from);
  let total = 0;
  for (let i = from; i < moves; i++) {
    const q = 4 * i;
    const p = Math.max(0, q - 4);
    const long = Math.hypot(data[q] - data[p], data[q + 1] - data[p + 1]);
    total += counts[i - from] = ALONG.has(kinds[i]) ? Math.max(1, Math.ceil(long / span)) : 1;
  }
  const segments = new Float64Array(total * SEGMENT);
  const move = new Int32Array(total);
  let o = 0;
  for (let i = from; i < moves; i++) {
    const q = 4 * i;
    const p = Math.max(0, q - 4);
    const n = counts[i - from];
    for (let s = 0; s < n; s++, o++) {
      move[o] = i - from;
      for (let k = 0; k < 3; k++) {
        segments[o * SEGMENT + k] = data[p + k] + ((data[q + k] - data[p + k]) * s) / n;
        segments[o * SEGMENT + 3 + k] =
          s + 1 === n ? data[q + k] : data[p + k] + ((data[q + k] - data[p + k]) * (s + 1)) / n;
      }
      segments[o * SEGMENT + 6] = data[q + 3] > 0 ? 0 : 1;
    }
  }
  return { segments, move };
}

/** Length of a part, mm. */
function longOf(segments: Float64Array, o: number): number {
  const s = o * SEGMENT;
  return Math.hypot(
    segments[s + 3] - segments[s],
    segments[s + 4] - segments[s + 1],
    segments[s + 5] - segments[s + 2],
  );
}

/** Slows down a little before there is more to take and for as long after it: where cells tell of it is known to one of them. */
function ahead(shares: Float64Array, segments: Float64Array, span: number): Float64Array {
  const out = shares.slice();
  for (const step of [1, -1]) {
    for (let o = 0; o < shares.length; o++) {
      let away = 0;
      for (let q = o + step; q >= 0 && q < shares.length && away < span / 2; q += step) {
        if (segments[q * SEGMENT + 6] === 1) break;
        out[o] = Math.min(out[o], shares[q]);
        away += longOf(segments, q);
      }
    }
  }
  return out;
}

/** Lets a stretch shorter than `least` mm between two slower ones go as slowly as the quicker of them. */
function evened(shares: Float64Array, segments: Float64Array, least: number): void {
  const runs: { from: number; to: number; share: number; long: number }[] = [];
  for (let o = 0; o < shares.length; o++) {
    const last = runs.at(-1);
    if (last?.share === shares[o]) {
      last.to = o + 1;
      last.long += longOf(segments, o);
    } else runs.push({ from: o, to: o + 1, share: shares[o], long: longOf(segments, o) });
  }
  for (let r = 1; r + 1 < runs.length; r++) {
    const slower = Math.max(runs[r - 1].share, runs[r + 1].share);
    if (runs[r].long >= least || slower >= runs[r].share) continue;
    runs[r].share = slower;
    shares.fill(slower, runs[r].from, runs[r].to);
  }
}

/**
 * Cuts a field with the moves of a path from the given one on, and lets those that take more than the bit's usual volume a second, times
 * the factor of limits.ts, go more slowly: full slots, inside corners, what roughing has left at a wall. Moves are parted where their feed changes.
 * @returns the moves as SEGMENT numbers each, as they lowered the field
 */
export async function cutEased(
  host: KernelHost,
  field: HeightField,
  { path, from, cutter }: { path: Path; from: number; cutter: Cutter },
): Promise<Float64Array> {
  const span = meantOver(cutter.diameter, field.cell);
  const { segments, move } = partsOf(path, from, span);
  const engaged = await engageBy(host, field, cutter, segments);
  const chip = chipAreas(field.drum ? trueWays(segments, field.drum.radius) : segments, engaged, span, VOLUME);
  const own = new Float64Array(chip.length).fill(1);
  for (let o = 0; o < own.length; o++) if (ALONG.has(path.kinds[from + move[o]])) own[o] = easedShare(cutter, chip[o]);
  const shares = own.some((s) => s < 1) ? ahead(own, segments, span) : own;
  evened(shares, segments, cutter.diameter);
  if (shares.some((s) => s < 1)) {
    let o = 0;
    path.part(from, function* (i, feed) {
      for (const first = o; o < move.length && move[o] === i; o++) {
        const ends = o + 1 === move.length || move[o + 1] !== i || shares[o + 1] !== shares[o];
        if (!ends) continue;
        const last = move[o + 1] !== i;
        const share = last ? 1 : (o + 1 - first) / count(move, first, i);
        yield [share, Math.max(1, Math.min(feed, Math.floor(shares[o] * cutter.feed)))];
      }
    });
  }
  return segments;
}

/** Parts of move i, of which the given one is the first. */
function count(move: Int32Array, first: number, i: number): number {
  let n = 0;
  while (move[first + n] === i) n++;
  return n;
}
