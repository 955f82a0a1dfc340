import { type Profile, profileOf } from '../cutter/cutter';
import type { Grid } from '../field/height-field';
import { SEGMENT } from '../kernels/segment';
import type { Run } from './simulate';

/** What of a run cuts a place again. */
export type Cutting = Pick<Run, 'cutter' | 'segments'>;

/** Side of the squares that moves are sorted into, mm. */
const SQUARE = 5;

/** More squares than any board has along a side, so that those beside it have numbers too. */
const FAR = 1 << 15;

/** West, south, east and north, mm. */
type Box = [number, number, number, number];
const meets = (a: Box, b: Box) => a[0] <= b[2] && a[2] >= b[0] && a[1] <= b[3] && a[3] >= b[1];
const edgesOf = (g: Grid): Box => [
  g.originX - g.cell,
  g.originY - g.cell,
  g.originX + g.width * g.cell,
  g.originY + g.height * g.cell,
];

/** The moves of a run by the squares of the board that its bit comes over, for looking at small windows one after the other. */
export class MovesByPlace {
  readonly profile: Profile;
  private readonly R: number;
  private readonly segments: Float64Array;
  private readonly squares = new Map<number, number[]>();

  /** @param around what is looked at: moves that do not come over it are left out */
  constructor({ cutter, segments }: Cutting, around: Grid) {
    this.profile = profileOf(cutter);
    this.R = cutter.diameter / 2;
    this.segments = segments;
    for (let s = 0; s < segments.length; s += SEGMENT) {
      // What stays over the board cuts nothing of it.
      if (segments[s + 2] > 0 && segments[s + 5] > 0) continue;
      const box = this.boxOf(s);
      if (!meets(box, edgesOf(around))) continue;
      this.each(box, (square) => {
        const all = this.squares.get(square);
        if (all) all.push(s);
        else this.squares.set(square, [s]);
      });
    }
  }

  /** The box that the bit sweeps in a move, mm. */
  private boxOf(s: number): Box {
    const [ax, ay, bx, by] = [this.segments[s], this.segments[s + 1], this.segments[s + 3], this.segments[s + 4]];
    const { R } = this;
    return [Math.min(ax, bx) - R, Math.min(ay, by) - R, Math.max(ax, bx) + R, Math.max(ay, by) + R];
  }

  private each([x0, y0, x1, y1]: Box, call: (square: number) => void): void {
    for (let j = Math.floor(y0 / SQUARE); j <= Math.floor(y1 / SQUARE); j++)
      for (let i = Math.floor(x0 / SQUARE); i <= Math.floor(x1 / SQUARE); i++) call((j + FAR) * 2 * FAR + i);
  }

  /** The moves that come over a window, each once, as segments. */
  over(g: Grid): Float64Array {
    const edges = edgesOf(g);
    const met = new Set<number>();
    this.each(edges, (square) => {
      for (const s of this.squares.get(square) ?? []) if (meets(this.boxOf(s), edges)) met.add(s);
    });
    const out = new Float64Array(met.size * SEGMENT);
    let n = 0;
    for (const s of met) {
      out.set(this.segments.subarray(s, s + SEGMENT), n);
      n += SEGMENT;
    }
    return out;
  }
}
