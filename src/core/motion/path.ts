/** Most moves of one pass: about 200 MB, and more than the largest board that is planned needs at sensible steps. */
export const MAX_MOVES = 6_000_000;

/** A pass that has come to more moves than are planned: its steps are far too small for its area. */
export class TooManyMoves extends Error {
  constructor() {
    super(`a pass has come to more than ${MAX_MOVES} moves`);
  }
}

/**
 * A tool path in board coordinates (x, y from the board's lower left corner, z from its top, mm): four numbers a move,
 * x y z feed, the tip's end position and the feed in mm/min, 0 for a rapid. The first move is a rapid to the start.
 */
export class Path {
  private buffer = new Float64Array(4096);
  private used = 0;

  get moves(): number {
    return this.used / 4;
  }
  /** The moves, four numbers each; a view on the path's own memory. */
  get data(): Float64Array {
    return this.buffer.subarray(0, this.used);
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

  private put(x: number, y: number, z: number, feed: number): void {
    if (this.used > 0 && x === this.x && y === this.y && z === this.z) return;
    if (this.used >= 4 * MAX_MOVES) throw new TooManyMoves();
    if (this.used + 4 > this.buffer.length) {
      const grown = new Float64Array(this.buffer.length * 2);
      grown.set(this.buffer);
      this.buffer = grown;
    }
    this.buffer.set([x, y, z, feed], this.used);
    this.used += 4;
  }
  rapid(x: number, y: number, z: number): void {
    this.put(x, y, z, 0);
  }
  feed(x: number, y: number, z: number, feed: number): void {
    this.put(x, y, z, feed);
  }
  /** Up, across and down again without touching anything below `height`; the way down is rapid only to `down`. */
  hop(x: number, y: number, height: number, down: number): void {
    if (this.used > 0 && this.z < height) this.rapid(this.x, this.y, height);
    const top = this.used > 0 ? Math.max(height, this.z) : height;
    this.rapid(x, y, top);
    if (down < top) this.rapid(x, y, down);
  }
}

/** Feed for a move that sinks by dz over a length l: never faster downwards than the plunge feed. Whole mm/min. */
export function sinkingFeed(feed: number, plunge: number, dz: number, l: number): number {
  if (dz >= 0 || l <= 0) return feed;
  return Math.max(1, Math.min(feed, Math.floor((plunge * l) / -dz + 1e-6)));
}
