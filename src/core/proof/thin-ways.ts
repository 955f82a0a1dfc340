import type { Bounds } from '../outline/polygon';
import { WAY_ARRAYS, WAYS, type WayArray } from './way-parts';

/** Some of a bit's ways, as they are needed for a picture: places one after the other, `kind` as in Ways. */
export interface ThinWays {
  kind: Uint8Array;
  places: Record<WayArray, Float32Array>;
}

const START = WAYS.indexOf('start');
const CHIP = WAY_ARRAYS.indexOf('chip');
const BITE = WAY_ARRAYS.indexOf('bite');

/** A list of numbers that grows. */
class Grown {
  private data = new Float32Array(1024);
  length = 0;

  push(v: number): void {
    if (this.length === this.data.length) {
      const more = new Float32Array(2 * this.length);
      more.set(this.data);
      this.data = more;
    }
    this.data[this.length++] = v;
  }
  get all(): Float32Array {
    return this.data.slice(0, this.length);
  }
}

/**
 * Thins the ways of a bit to what a picture of a part of a board shows: what passes the part by is left out, and what lies within `fine` mm of the
 * last place that was kept, as long as it is of the same kind. No place of the way lies further than `fine` from what is kept of it. A place that is
 * kept tells of all that was left out before it: the most wood, the deepest bite.
 */
export class WayThinner {
  private readonly out = Object.fromEntries(WAY_ARRAYS.map((a) => [a, new Grown()])) as Record<WayArray, Grown>;
  private readonly kinds: number[] = [];
  /** The place before, the last that was kept, and what has been left out since. */
  private last: number[] | null = null;
  private kept: number[] = [];
  private waiting: { kind: number; place: number[] } | null = null;
  private open = false;

  constructor(
    private readonly box: Bounds,
    private readonly fine: number,
  ) {}

  get count(): number {
    return this.kinds.length;
  }

  /** @param place numbers in the order of WAY_ARRAYS */
  put(kind: number, place: number[]): void {
    const from = this.last;
    this.last = place;
    if (kind === START || !from) {
      this.close();
      return;
    }
    if (!this.passes(from, place)) {
      this.close();
      return;
    }
    if (!this.open) {
      this.keep(START, from);
      this.open = true;
    } else if (this.waiting && this.waiting.kind !== kind) this.flush();
    const now = [...place];
    if (this.waiting) {
      now[CHIP] = Math.max(now[CHIP], this.waiting.place[CHIP]);
      now[BITE] = Math.max(now[BITE], this.waiting.place[BITE]);
    }
    this.waiting = { kind, place: now };
    if ((place[0] - this.kept[0]) ** 2 + (place[1] - this.kept[1]) ** 2 >= this.fine ** 2) this.flush();
  }

  private passes([x0, y0]: number[], [x1, y1]: number[]): boolean {
    const b = this.box;
    return Math.max(x0, x1) >= b.x0 && Math.min(x0, x1) <= b.x1 && Math.max(y0, y1) >= b.y0 && Math.min(y0, y1) <= b.y1;
  }

  private keep(kind: number, place: number[]): void {
    this.kinds.push(kind);
    for (const [i, a] of WAY_ARRAYS.entries()) this.out[a].push(place[i]);
    this.kept = place;
  }

  private flush(): void {
    if (this.waiting) this.keep(this.waiting.kind, this.waiting.place);
    this.waiting = null;
  }

  private close(): void {
    this.flush();
    this.open = false;
  }

  finish(): ThinWays {
    this.close();
    const places = Object.fromEntries(WAY_ARRAYS.map((a) => [a, this.out[a].all])) as ThinWays['places'];
    return { kind: Uint8Array.from(this.kinds), places };
  }
}
