import { type Cutter, type Profile, profileHeight, profileOf } from '../cutter/cutter';
import { straightDepth } from '../cutter/descent';
import { SOLID } from '../cutter/limits';
import { inTurn, narrowed, rowInTurn } from '../field/drum';
import { AIR, cellAt, cellPlace, type HeightField } from '../field/height-field';
import type { Path } from '../motion/path';
import type { PassContext } from './context';

/** A place that the tip has been at. */
export interface Been {
  x: number;
  y: number;
  z: number;
}

/** How many times as much is taken to stand under a bit as its cells say: they are coarse, and the proof is to be well satisfied. */
const SURE = 3;
/** Share of a bit's disc on wood from which all of its height counts. */
const MUCH = 0.35;
/** How much higher it may stand between the middles of two cells, mm. */
const UNKNOWN = 0.05;
/** Wood lower than this over the bit is as good as none, mm. */
const BARE = 0.01;

/** What stands under a bit while its pass is being made: what stood there before, less what the bit has taken of it since. */
export class Live {
  /** The move that led the tip over each cell of what stood before, and its height there, at its lowest; 0 and Infinity where none did. */
  private readonly by: Int32Array;
  private readonly low: Float32Array;
  private readonly stands: HeightField;
  private readonly profile: Profile;
  /** Moves of the path that have been taken note of. */
  private seen: number;

  /** As it is before a pass whose moves go on the given path. */
  constructor(
    ctx: Pick<PassContext, 'stands'>,
    cutter: Cutter,
    private readonly path: Path,
  ) {
    this.stands = ctx.stands;
    this.profile = profileOf(cutter);
    this.by = new Int32Array(ctx.stands.data.length);
    this.low = new Float32Array(ctx.stands.data.length).fill(Infinity);
    this.seen = Math.max(1, path.moves);
  }

  /** Takes note of what the path has come to. */
  private follow(): void {
    const { data, moves } = this.path;
    const { cell } = this.stands;
    for (; this.seen < moves; this.seen++) {
      const q = 4 * this.seen;
      if (data[q + 3] === 0) continue;
      const [dx, dy, dz] = [data[q] - data[q - 4], data[q + 1] - data[q - 3], data[q + 2] - data[q - 2]];
      const n = Math.max(1, Math.ceil(Math.hypot(dx, dy) / cell));
      for (let s = 0; s <= n; s++) {
        const back = 1 - s / n;
        const k = cellAt(this.stands, data[q] - back * dx, data[q + 1] - back * dy);
        const z = data[q + 2] - back * dz;
        if (k < 0 || z >= this.low[k]) continue;
        this.low[k] = z;
        this.by[k] = this.seen;
      }
    }
  }

  /** Calls back for the cells within r mm of a place, with how far away each is. */
  private within({ x, y, z }: Been, r: number, each: (k: number, away: number) => void): void {
    const { cell, width, height, originX, originY, drum } = this.stands;
    const [u, v] = [(x - originX) / cell, ((drum ? inTurn(drum, y) : y) - originY) / cell];
    const n = r / cell;
    // Round a drum a row is narrower the deeper the tip is.
    const s = drum ? narrowed(drum, z) : 1;
    const [first, last] = drum ? [v - n / s, v + n / s] : [Math.max(0, v - n), Math.min(height - 1, v + n)];
    for (let row = Math.ceil(first); row <= Math.floor(last); row++) {
      const j = drum ? rowInTurn({ rows: height }, row) : row;
      for (let i = Math.max(0, Math.ceil(u - n)); i <= Math.min(width - 1, Math.floor(u + n)); i++) {
        const away = Math.hypot(i - u, (row - v) * s) * cell;
        if (away <= r) each(j * width + i, away);
      }
    }
  }

  /**
   * How high wood stands over a tip that goes straight down to a place, mm, as the proof counts a descent into it: a wall that the bit brushes past
   * is none. What is not higher than `enough` is not looked at closely.
   */
  solid({ x, y, z }: Been, enough: number): number {
    const { stands, profile } = this;
    const { R } = profile;
    this.follow();
    let high = AIR;
    this.within({ x, y, z }, R, (k) => {
      high = Math.max(high, stands.data[k]);
    });
    if (high + UNKNOWN - z <= enough) return Math.max(0, high + UNKNOWN - z);
    const been: Been[] = [];
    this.within({ x, y, z }, R / 2, (k) => {
      const c = cellPlace(stands, k);
      if (this.by[k] > 0) been.push(this.onMove(this.by[k], c.x, c.y));
    });
    let [all, taken, heights] = [0, 0, 0];
    high = AIR;
    this.within({ x, y, z }, R, (k, away) => {
      all++;
      const tip = z + profileHeight(profile, away) + BARE;
      let top = stands.data[k];
      if (top <= tip) return;
      const c = cellPlace(stands, k);
      for (const b of been) {
        const d = Math.hypot(b.x - c.x, b.y - c.y);
        if (d <= R) top = Math.min(top, b.z + profileHeight(profile, d));
      }
      if (top <= tip) return;
      taken++;
      heights += top - tip;
      high = Math.max(high, top);
    });
    if (SURE * taken <= SOLID * all) return 0;
    const deep = high + UNKNOWN - z;
    if (taken > MUCH * all) return deep;
    return straightDepth(profile, { drop: deep, bite: deep, volume: SURE * heights * stands.cell ** 2 });
  }

  /** How high wood stood before the pass under the middle half of a bit whose tip is at a place, mm; 0 where there is none. */
  under({ x, y, z }: Been): number {
    const { stands, profile } = this;
    let high = 0;
    this.within({ x, y, z }, profile.R / 2, (k, away) => {
      high = Math.max(high, stands.data[k] - z - profileHeight(profile, away));
    });
    return high;
  }

  /** The nearest place within r mm that the tip has been at, where it can go down through air; null where there is none. */
  nearest(x: number, y: number, r: number): Been | null {
    this.follow();
    let best: Been | null = null;
    let least = r;
    this.within({ x, y, z: 0 }, r + this.stands.cell, (k) => {
      if (this.by[k] === 0) return;
      const been = this.onMove(this.by[k], x, y);
      const d = Math.hypot(been.x - x, been.y - y);
      if (d < least) [best, least] = [been, d];
    });
    return best;
  }

  /** The place of a move nearest to another place, seen from above. */
  private onMove(move: number, x: number, y: number): Been {
    const q = 4 * move;
    const d = this.path.data;
    const [dx, dy, dz] = [d[q] - d[q - 4], d[q + 1] - d[q - 3], d[q + 2] - d[q - 2]];
    const l2 = dx * dx + dy * dy;
    const t = l2 > 0 ? Math.min(1, Math.max(0, ((x - d[q - 4]) * dx + (y - d[q - 3]) * dy) / l2)) : 1;
    return { x: d[q - 4] + t * dx, y: d[q - 3] + t * dy, z: d[q - 2] + t * dz };
  }
}
