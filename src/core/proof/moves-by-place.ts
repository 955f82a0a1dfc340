import type { Profile } from '../cutter/cutter';
import { type Drum, reachRound, unrolled } from '../field/drum';
import type { Grid } from '../field/height-field';
import { SEGMENT } from '../kernels/segment';
import type { Span } from '../kernels/spans';

/** Side of the squares that moves are sorted into, mm. */
const SQUARE = 5;

/**
 * The moves of a run by the squares of the board that its bit comes over, for looking at small windows one after the other: plain data, so
 * that other threads can look too.
 */
export interface MovesByPlace {
  profile: Profile;
  segments: Float64Array;
  /** What the looked-at ground lies around; null on a board. */
  drum: Drum | null;
  /** Number of the westernmost and southernmost square, and how many lie in a row and in a column. */
  i0: number;
  j0: number;
  across: number;
  up: number;
  /** Where each square's moves begin in `moves`, row after row; a move is named by where it begins in `segments`. */
  starts: Uint32Array;
  moves: Uint32Array;
}

/** West, south, east and north, mm. */
type Box = [number, number, number, number];
const meets = (a: Box, b: Box) => a[0] <= b[2] && a[2] >= b[0] && a[1] <= b[3] && a[3] >= b[1];
const edgesOf = (g: Grid): Box => [
  g.originX - g.cell,
  g.originY - g.cell,
  g.originX + g.width * g.cell,
  g.originY + g.height * g.cell,
];

/** The boxes that a bit sweeps in a move, mm: one, but round a drum one for each turn in which it comes over the first. */
function sweptBy(
  { profile: { R }, segments, drum }: Pick<MovesByPlace, 'profile' | 'segments' | 'drum'>,
  s: number,
): Box[] {
  const [ax, ay, az, bx, by, bz] = segments.subarray(s, s + 6);
  const beside = drum ? reachRound(drum, R, Math.min(az, bz)) : R;
  const box: Box = [Math.min(ax, bx) - R, Math.min(ay, by) - beside, Math.max(ax, bx) + R, Math.max(ay, by) + beside];
  if (!drum) return [box];
  const turn = unrolled(drum.radius);
  const out: Box[] = [];
  // A cell more on either side, for windows reach over the seam by so much.
  for (let t = -Math.floor(box[3] / turn) - 1; box[1] + t * turn < turn + SQUARE; t++)
    out.push([box[0], box[1] + t * turn, box[2], box[3] + t * turn]);
  return out;
}

type Squares = Pick<MovesByPlace, 'i0' | 'j0' | 'across' | 'up'>;
const numberOf = (v: number) => Math.floor(v / SQUARE);

/** The first and last column and row of the squares that a box meets, counted from the first. */
function squaresOf({ i0, j0, across, up }: Squares, box: Box): Box {
  return [
    Math.max(0, numberOf(box[0]) - i0),
    Math.max(0, numberOf(box[1]) - j0),
    Math.min(across - 1, numberOf(box[2]) - i0),
    Math.min(up - 1, numberOf(box[3]) - j0),
  ];
}

/** Sorts the moves of a run. @param around what is looked at: moves that do not come over it are left out */
export function movesByPlace({ profile, segments }: Pick<Span, 'profile' | 'segments'>, around: Grid): MovesByPlace {
  const edges = edgesOf(around);
  const [i0, j0] = [numberOf(edges[0]), numberOf(edges[1])];
  const [across, up] = [numberOf(edges[2]) - i0 + 1, numberOf(edges[3]) - j0 + 1];
  const squares = { i0, j0, across, up };
  const drum = around.drum ?? null;
  const each = (call: (square: number, s: number) => void) => {
    for (let s = 0; s < segments.length; s += SEGMENT) {
      // What stays over the board cuts nothing of it.
      if (segments[s + 2] > 0 && segments[s + 5] > 0) continue;
      for (const box of sweptBy({ profile, segments, drum }, s)) {
        const [a0, b0, a1, b1] = squaresOf(squares, box);
        for (let b = b0; b <= b1; b++) for (let a = a0; a <= a1; a++) call(b * across + a, s);
      }
    }
  };
  const starts = new Uint32Array(across * up + 1);
  each((square) => {
    starts[square + 1]++;
  });
  for (let k = 0; k < across * up; k++) starts[k + 1] += starts[k];
  const moves = new Uint32Array(starts[across * up]);
  const next = starts.slice();
  each((square, s) => {
    moves[next[square]++] = s;
  });
  return { profile, segments, drum, ...squares, starts, moves };
}

/** The moves that come over a window, each once, as segments. */
export function movesOver(all: MovesByPlace, g: Grid): Float64Array {
  const { segments, across, starts, moves } = all;
  const edges = edgesOf(g);
  const [a0, b0, a1, b1] = squaresOf(all, edges);
  const met: number[] = [];
  for (let b = b0; b <= b1; b++) {
    for (let a = a0; a <= a1; a++) {
      for (let k = starts[b * across + a]; k < starts[b * across + a + 1]; k++) {
        for (const swept of sweptBy(all, moves[k])) {
          if (!meets(swept, edges)) continue;
          // A move is taken in the first of the window's squares that it comes over.
          const [first, lowest] = squaresOf(all, swept);
          if (a === Math.max(a0, first) && b === Math.max(b0, lowest)) met.push(moves[k]);
        }
      }
    }
  }
  const out = new Float64Array(met.length * SEGMENT);
  met.forEach((s, n) => {
    for (let q = 0; q < SEGMENT; q++) out[n * SEGMENT + q] = segments[s + q];
  });
  return out;
}
