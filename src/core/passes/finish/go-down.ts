import type { Region } from '../../arrange/target';
import { type Cutter, profileHeight, profileOf } from '../../cutter/cutter';
import { USUAL_WIDTH } from '../../cutter/limits';
import { AIR, cellAt, cellPlace, type HeightField, makeField } from '../../field/height-field';
import type { Path } from '../../motion/path';
import { highestWithin, type PassContext } from '../context';
import { planRough } from '../rough/plan';

/** At most so much of a bit's stepdown is kept for what stands between cells, as a share. */
const UNKNOWN = 0.1;
/** Cells to which it is known where wood begins. */
const KNOWN = 0.8;

/**
 * Where a bit would take more at once than it can, grown by its radius and a row: where more stands under the middle half of it than its stepdown.
 * What stands under the rim alone is a wall beside its way.
 * @param offset where its tip is when it rests on the surface
 * @returns 1 on the stock's own cells; null where it is nowhere so
 */
async function tooMuch(
  ctx: PassContext,
  cutter: Cutter,
  offset: HeightField,
  beside: number,
): Promise<HeightField | null> {
  const { stands, target } = ctx;
  const R = cutter.diameter / 2;
  const under = await highestWithin(ctx, stands, R / 2, KNOWN * stands.cell);
  // Between the middles of cells, where it is not known, a little more may stand.
  const most = cutter.maxStepdown - Math.min(stands.cell, UNKNOWN * cutter.maxStepdown);
  const found = makeField(stands, 0);
  let any = false;
  for (let k = 0; k < found.data.length; k++) {
    if (under.data[k] === AIR) continue;
    const { x, y } = cellPlace(stands, k);
    const q = cellAt(offset, x, y);
    if (q < 0) continue;
    const tip = Math.max(offset.data[q], target.ground);
    if (tip >= 0 || under.data[k] - tip <= most) continue;
    found.data[k] = 1;
    any = true;
  }
  return any ? highestWithin(ctx, found, R + beside) : null;
}

/**
 * Goes down in levels of the bit's own stepdown where more stands than it takes at once, so that the rows that follow find no more than that.
 * Lowers ctx.stock. @returns null where nothing is to be done
 */
export async function goDown(
  ctx: PassContext,
  cutter: Cutter,
  region: Region,
  offset: HeightField,
): Promise<Path | null> {
  const stepover = USUAL_WIDTH * cutter.diameter;
  const where = await tooMuch(ctx, cutter, offset, stepover);
  if (!where) return null;
  const clearing = {
    strategy: 'rings' as const,
    angle: 0,
    stepover,
    // A round tip leaves as much more at its sides as it is high there, which the next level meets where it runs further aside.
    stepdown: Math.max(
      cutter.maxStepdown / 2,
      cutter.maxStepdown - profileHeight(profileOf(cutter), cutter.diameter / 2),
    ),
    stockToLeave: 0,
    rampAngle: ctx.rampAngle,
    milling: 'either' as const,
  };
  const only = (x: number, y: number) => where.data[cellAt(where, x, y)] > 0;
  const { path } = await planRough(ctx, clearing, cutter, region, only);
  return path.cuts ? path : null;
}
