/** The words that turn an axis. */
export const TURNING = ['A', 'B', 'C'];

/** Of a motion of a program that turns an axis: the angle where it starts and where it ends, degrees; 1 where its feed is one over minutes; and mm a unit of length. */
export const TURNED = 4;

/** How the motions of a program turn an axis. Nothing is kept of one that never does. */
export class Turns {
  /** Degrees; not a number before it is known. */
  angle = Number.NaN;
  /** Whether feeds are one over the minutes of a move. */
  inverse = false;
  private kept: Float64Array | null = null;

  /** Notes how motion n turns. @param scale mm a unit of length */
  note(to: number, n: number, scale: number): void {
    const from = this.angle;
    this.angle = to;
    if (!this.kept && (Number.isNaN(to) || to === 0) && !this.inverse) return;
    if (!this.kept || this.kept.length < (n + 1) * TURNED) {
      const grown = new Float64Array(2 * (n + 1024) * TURNED);
      if (this.kept) grown.set(this.kept);
      else for (let i = 0; i < n; i++) grown[i * TURNED + 3] = scale;
      this.kept = grown;
    }
    const known = (v: number, or: number) => (Number.isNaN(v) ? or : v);
    this.kept.set([known(from, known(to, 0)), known(to, known(from, 0)), this.inverse ? 1 : 0, scale], n * TURNED);
  }

  /** TURNED numbers of each of n motions; null where none turns. */
  all(n: number): Float64Array | null {
    return this.kept?.subarray(0, n * TURNED) ?? null;
  }
}
