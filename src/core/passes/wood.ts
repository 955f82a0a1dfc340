import { type Cutter, type Profile, profileHeight, profileOf, smallerBy } from '../cutter/cutter';
import { inTurn, narrowed, rowInTurn } from '../field/drum';
import { cropField, type Grid, type HeightField } from '../field/height-field';
import { removeStock } from '../kernels/stock-removal';
import { partsOf } from '../motion/ease';
import type { Path } from '../motion/path';

/** Cells by which a bit is taken smaller where its ways lie side by side on a level: a rib between two of them may be narrower than cells tell. */
export const RIB = 0.8;

/** What stands while a pass goes along its lines: what stood before, less what every move since has taken, cut as the proof cuts it. */
export class Wood {
  private readonly field: HeightField;
  private readonly profile: Profile;
  /** What certainly goes where the bit goes. */
  private readonly taking: Profile;
  private seen: number;

  /**
   * @param path where the pass's moves go, from the next one on
   * @param less cells by which the bit is taken smaller where it cuts, so that only what it certainly took is gone
   * @param over where its tip may be: 4 bytes for each cell of what stands there
   */
  constructor(
    stands: HeightField,
    cutter: Cutter,
    private readonly path: Path,
    less = 0,
    over: Grid = stands,
  ) {
    this.profile = profileOf(cutter);
    this.taking = smallerBy(this.profile, less * stands.cell);
    const { width, height, cell, originX: x, originY: y } = over;
    const { R } = this.profile;
    this.field = stands.drum
      ? { ...stands, data: stands.data.slice() }
      : cropField(stands, { x0: x - R, y0: y - R, x1: x + width * cell + R, y1: y + height * cell + R });
    this.seen = path.moves;
  }

  /** Takes what the path has come to since. */
  private follow(): void {
    const { path, seen } = this;
    if (path.moves <= seen) return;
    removeStock(this.field, this.taking, partsOf(path, seen, Infinity).segments);
    this.seen = path.moves;
  }

  /** Whether wood stands more than `least` mm over a bit whose tip is at a place. */
  meets(x: number, y: number, z: number, least: number): boolean {
    this.follow();
    const { profile, field } = this;
    const { data, width, height, cell, originX, originY, drum } = field;
    const [u, v] = [(x - originX) / cell, ((drum ? inTurn(drum, y) : y) - originY) / cell];
    const n = profile.R / cell;
    // Round a drum a row is narrower the deeper the tip is; that its wood lies lower to the side is left out, so that more is taken to be met.
    const k = drum ? narrowed(drum, z) : 1;
    const [first, last] = drum ? [v - n / k, v + n / k] : [Math.max(0, v - n), Math.min(height - 1, v + n)];
    for (let row = Math.ceil(first); row <= Math.floor(last); row++) {
      const j = drum ? rowInTurn({ rows: height }, row) : row;
      for (let i = Math.max(0, Math.ceil(u - n)); i <= Math.min(width - 1, Math.floor(u + n)); i++) {
        // What is not even over the tip is not over the bit.
        const over = data[j * width + i] - z - least;
        if (over <= 0) continue;
        const away = Math.hypot(i - u, (row - v) * k) * cell;
        if (away <= profile.R && over > profileHeight(profile, away)) return true;
      }
    }
    return false;
  }
}
