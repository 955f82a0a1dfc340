/** Most moves of one pass: about 200 MB, and more than the largest board that is planned needs at sensible steps. */
export const MAX_MOVES = 6_000_000;

/** What a move is: decided once, by whoever makes it. */
export const MOVES = ['approach', 'plunge', 'ramp', 'helix', 'cut', 'link', 'tabs', 'retract'] as const;
export type MoveKind = (typeof MOVES)[number];

/** What is counted in a pass: "level", 3 of 7. */
export type Step = [what: string, number: number, of: number];

/** A place in a pass, from the given move on, the widest first: outline 1 of 2, lap 3 of 5. */
export interface Mark {
  move: number;
  place: Step[];
}

/** A pass that has come to more moves than are planned: its steps are far too small for its area. */
export class TooManyMoves extends Error {
  constructor() {
    super(`a pass has come to more than ${MAX_MOVES} moves`);
  }
}

/**
 * A tool path in board coordinates (x, y from the board's lower left corner, z from its top, mm): four numbers a move,
 * x y z feed, the tip's end position and the feed in mm/min, 0 for a rapid. The first move is a rapid to the start. Beside them what each
 * move is, and marks of where in its pass the path has come to.
 */
export class Path {
  private buffer = new Float64Array(4096);
  private kindBuffer = new Uint8Array(1024);
  private used = 0;
  readonly marks: Mark[] = [];

  get moves(): number {
    return this.used / 4;
  }
  /** The moves, four numbers each; a view on the path's own memory. */
  get data(): Float64Array {
    return this.buffer.subarray(0, this.used);
  }
  /** What each move is, as an index of MOVES; a view on the path's own memory. */
  get kinds(): Uint8Array {
    return this.kindBuffer.subarray(0, this.moves);
  }
  get x(): number {
    return this.buffer[this.used - 4];
  }
  get y(): number {
    return this.buffer[this.used - 3];
  }
  get z(): number {
    return this.buffer[this.used - 2];
  }

  /** Whether any move cuts. */
  get cuts(): boolean {
    for (let i = 3; i < this.used; i += 4) if (this.buffer[i] > 0) return true;
    return false;
  }

  private put(x: number, y: number, z: number, feed: number, kind: MoveKind): void {
    if (this.used > 0 && x === this.x && y === this.y && z === this.z) return;
    if (this.used >= 4 * MAX_MOVES) throw new TooManyMoves();
    if (this.used + 4 > this.buffer.length) {
      const grown = new Float64Array(this.buffer.length * 2);
      grown.set(this.buffer);
      this.buffer = grown;
      const kinds = new Uint8Array(this.kindBuffer.length * 2);
      kinds.set(this.kindBuffer);
      this.kindBuffer = kinds;
    }
    this.buffer.set([x, y, z, feed], this.used);
    this.kindBuffer[this.used / 4] = MOVES.indexOf(kind);
    this.used += 4;
  }
  /** A rapid is what it does: up, a retract; across, a link; down or to the start, an approach. */
  rapid(x: number, y: number, z: number): void {
    const kind = this.used === 0 || z < this.z ? 'approach' : x === this.x && y === this.y ? 'retract' : 'link';
    this.put(x, y, z, 0, kind);
  }
  feed(x: number, y: number, z: number, feed: number, kind: MoveKind = 'cut'): void {
    this.put(x, y, z, feed, kind);
  }
  /** Says where in its pass the path is from here on. */
  at(...place: Step[]): void {
    // The place that was said before was left without a move.
    if (this.marks.at(-1)?.move === this.moves) this.marks.pop();
    this.marks.push({ move: this.moves, place });
  }
  /**
   * Parts the moves from the given one on: for each of them, counted from it, the ends of its parts as shares of its length, and their feeds. Rapids
   * stay as they are.
   */
  part(from: number, partsOf: (i: number, feed: number) => Iterable<[end: number, feed: number]>): void {
    const [data, kinds] = [this.data.slice(4 * Math.max(0, from - 1)), this.kinds.slice(from)];
    const before = from > 0 ? 4 : 0;
    const now = new Int32Array(kinds.length + 1);
    this.used = 4 * from;
    for (let i = 0; i < kinds.length; i++) {
      now[i] = this.moves;
      const q = before + 4 * i;
      const [x, y, z, feed] = data.subarray(q, q + 4);
      for (const [end, eased] of partsOf(i, feed)) {
        const back = q >= 4 ? 1 - end : 0;
        const at = (v: number, k: number) => (back === 0 ? v : v - back * (v - data[q + k - 4]));
        this.put(at(x, 0), at(y, 1), at(z, 2), feed > 0 ? eased : 0, MOVES[kinds[i]]);
      }
    }
    now[kinds.length] = this.moves;
    for (const mark of this.marks) if (mark.move > from) mark.move = now[mark.move - from];
  }
  /** Up, across and down again without touching anything below `height`; the way down is rapid only to `down`. */
  hop(x: number, y: number, height: number, down: number): void {
    if (this.used > 0 && this.z < height) this.rapid(this.x, this.y, height);
    const top = this.used > 0 ? Math.max(height, this.z) : height;
    this.rapid(x, y, top);
    if (down < top) this.rapid(x, y, down);
  }
}

/** Kinds of moves by which a bit goes into the wood. */
const ENTRIES = ['plunge', 'ramp', 'helix'] as const satisfies MoveKind[];

/** How often a path goes into the wood, by how: moves of one kind that follow each other are one entry. */
export function entriesOf(kinds: Uint8Array): Partial<Record<MoveKind, number>> {
  const out: Partial<Record<MoveKind, number>> = {};
  for (const kind of ENTRIES) {
    const k = MOVES.indexOf(kind);
    let n = 0;
    for (let i = 0; i < kinds.length; i++) if (kinds[i] === k && (i === 0 || kinds[i - 1] !== k)) n++;
    if (n > 0) out[kind] = n;
  }
  return out;
}

/** Feed for a move that sinks by dz over a length l: never faster downwards than the plunge feed. Whole mm/min. */
export function sinkingFeed(feed: number, plunge: number, dz: number, l: number): number {
  if (dz >= 0 || l <= 0) return feed;
  return Math.max(1, Math.min(feed, Math.floor((plunge * l) / -dz + 1e-6)));
}

/**
 * Feed for a move down a surface by dz, `aside` mm to the side: down a wall no faster downwards than the plunge feed, down a slope as many times
 * faster as it is flatter than 45 degrees, for there less of the cut lies under the tip's middle. Whole mm/min. Common practice, no source.
 */
export function slopeFeed(feed: number, plunge: number, dz: number, aside: number): number {
  if (dz >= 0) return feed;
  return sinkingFeed(feed, plunge * Math.max(1, aside / -dz), dz, Math.hypot(aside, dz));
}
