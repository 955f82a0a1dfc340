import type { Line } from './lines';

/** Ends of lines nearer than this are one place, mm. */
export const TOUCH = 1e-3;

/** A line with the way it is gone along. */
export interface Going {
  line: Line;
  turned: boolean;
}

/** The line to cut next, and lines that have been cut along which the tip gets there through air. */
export interface Next extends Going {
  back: Going[];
}

/** A line as its two ends see it. */
interface Arm extends Going {
  /** The place where it ends, gone along this way. */
  to: number;
  long: number;
}

/** Length of a line seen from above, mm. */
function lengthOf({ points: p }: Line): number {
  let sum = 0;
  for (let k = 3; k < p.length; k += 3) sum += Math.hypot(p[k] - p[k - 3], p[k + 1] - p[k - 2]);
  return sum;
}

/**
 * Lines as a web of places where they meet. The strokes of a letter hang together: from the end of one the tip goes back along what it has
 * cut, which is quicker than out of the wood, across and in again.
 */
export class Web {
  private readonly places: { x: number; y: number; arms: Arm[] }[] = [];
  private readonly byKey = new Map<string, number>();
  private left: number;

  /** @param reach longest way back along cut lines that is quicker than a hop, mm */
  constructor(
    private readonly lines: Line[],
    private readonly reach: number,
  ) {
    this.left = lines.length;
    for (const line of lines) {
      const p = line.points;
      const from = this.placeOf(p[0], p[1]);
      const to = line.closed ? from : this.placeOf(p[p.length - 3], p[p.length - 2]);
      const long = lengthOf(line);
      this.places[from].arms.push({ line, turned: false, to, long });
      if (!line.closed) this.places[to].arms.push({ line, turned: true, to: from, long });
    }
  }

  /** The number of a place; a new one where no end has been yet. */
  private placeOf(x: number, y: number): number {
    const near = this.find(x, y);
    if (near !== null) return near;
    this.places.push({ x, y, arms: [] });
    this.byKey.set(keyOf(x, y, 0, 0), this.places.length - 1);
    return this.places.length - 1;
  }

  private find(x: number, y: number): number | null {
    for (let b = -1; b <= 1; b++) {
      for (let a = -1; a <= 1; a++) {
        const k = this.byKey.get(keyOf(x, y, a, b));
        if (k !== undefined && Math.hypot(this.places[k].x - x, this.places[k].y - y) < TOUCH) return k;
      }
    }
    return null;
  }

  /** The line to cut next from where the tip is, and marks it as done; null when all are. At the start the one nearest to the corner. */
  next(at: { x: number; y: number } | null): Next | null {
    if (this.left === 0) return null;
    const here = at && this.find(at.x, at.y);
    const next = (here !== null && this.alongCut(here)) || this.nearest(at ?? { x: 0, y: 0 });
    next.line.done = true;
    this.left--;
    return next;
  }

  /** The nearest line that is left, along lines that have been cut; of several at a place the shortest, so that dead ends come first. */
  private alongCut(here: number): Next | null {
    const found = new Map<number, { gone: number; by: Arm | null; from: number }>([
      [here, { gone: 0, by: null, from: -1 }],
    ]);
    const open = [here];
    while (open.length > 0) {
      open.sort((a, b) => found.get(b)!.gone - found.get(a)!.gone);
      const k = open.pop()!;
      const { gone } = found.get(k)!;
      const arms = this.places[k].arms.filter((a) => !a.line.done);
      if (arms.length > 0) {
        const { line, turned } = arms.reduce((a, b) => (b.long < a.long ? b : a));
        const back: Going[] = [];
        for (let q = k; q !== here; q = found.get(q)!.from) back.push(found.get(q)!.by!);
        return { line, turned, back: back.reverse() };
      }
      // All of its lines have been cut.
      for (const arm of this.places[k].arms) {
        const way = gone + arm.long;
        if (way > this.reach || way >= (found.get(arm.to)?.gone ?? Infinity)) continue;
        found.set(arm.to, { gone: way, by: arm, from: k });
        if (!open.includes(arm.to)) open.push(arm.to);
      }
    }
    return null;
  }

  /** The line with an end nearest to a place; from its shallower end. */
  private nearest({ x, y }: { x: number; y: number }): Next {
    let best = this.lines[0];
    let least = Infinity;
    for (const place of this.places) {
      const d = Math.hypot(place.x - x, place.y - y);
      if (d >= least) continue;
      const arm = place.arms.find((a) => !a.line.done);
      if (arm) [best, least] = [arm.line, d];
    }
    const p = best.points;
    return { line: best, turned: !best.closed && p[p.length - 1] > p[2], back: [] };
  }
}

/** The square of TOUCH's side that a place lies in, or one beside it. */
const keyOf = (x: number, y: number, a: number, b: number) =>
  `${Math.floor(x / TOUCH) + a},${Math.floor(y / TOUCH) + b}`;
