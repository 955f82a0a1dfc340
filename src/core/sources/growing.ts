const PIECE = 9 << 16;

/** Floats that grow as they come, in pieces that are never copied until the end. */
export class GrowingFloats {
  private readonly full: Float32Array[] = [];
  private piece = new Float32Array(PIECE);
  private used = 0;

  get length(): number {
    return this.full.length * PIECE + this.used;
  }

  push(v: number): void {
    if (this.used === PIECE) {
      this.full.push(this.piece);
      this.piece = new Float32Array(PIECE);
      this.used = 0;
    }
    this.piece[this.used++] = v;
  }

  at(i: number): number {
    const k = Math.floor(i / PIECE);
    return (k < this.full.length ? this.full[k] : this.piece)[i - k * PIECE];
  }

  done(): Float32Array {
    const out = new Float32Array(this.length);
    this.full.forEach((p, i) => {
      out.set(p, i * PIECE);
    });
    out.set(this.piece.subarray(0, this.used), this.full.length * PIECE);
    return out;
  }
}
