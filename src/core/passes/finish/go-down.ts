import type { Region } from '../../arrange/target';
import { type Cutter, profileHeight, profileOf } from '../../cutter/cutter';
import { USUAL_WIDTH } from '../../cutter/limits';
import { AIR, cellAt, type HeightField, makeField } from '../../field/height-field';
import type { Path } from '../../motion/path';
import type { PassContext } from '../context';
import { planRough } from '../rough/plan';
import { stockAt, stockUnder } from '../standing';

/** Slope of the ramps by which a finishing bit enters a level, degrees. */
const RAMP = 4;

/**
 * Where a bit would take more at once than it can, grown by its radius and a row: where wood that nothing has touched yet stands under it, its
 * outer quarter left out, higher over its tip than its stepdown. What stands under the rim alone is a wall beside its way.
 * @param offset where its tip is when it rests on the surface
 * @returns 1 on the stock's own cells; null where it is nowhere so
 */
async function tooMuch(
  ctx: PassContext,
  cutter: Cutter,
  offset: HeightField,
  beside: number,
): Promise<HeightField | null> {
  const { stock, target } = ctx;
  const R = cutter.diameter / 2;
  // What has been cut is known as a bound only, which on slopes stands far over what is there.
  const whole = { ...stock, data: stock.data.map((v) => (v >= 0 ? v : AIR)) };
  const under = await stockUnder({ ...ctx, stock: whole }, R / 2 + 1.5 * stock.cell, stock);
  const found = makeField(stock, 0);
  let any = false;
  const { width, height, originX, originY, cell } = target.field;
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const [x, y] = [originX + i * cell, originY + j * cell];
      const tip = Math.max(offset.data[cellAt(offset, x, y)], target.ground);
      if (tip >= 0) continue;
      const k = cellAt(stock, x, y);
      if (stockAt(k, stock, under) - tip <= cutter.maxStepdown) continue;
      found.data[k] = 1;
      any = true;
    }
  }
  if (!any) return null;
  const data = await ctx.host.offset(found, { shape: 0, R: R + beside, p0: 0, p1: 0, p2: 0 }, 0);
  return { ...found, data };
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
    // A round tip leaves more than its lowest point towards its sides, which the next level meets under the middle half of it.
    stepdown: Math.max(
      cutter.maxStepdown / 2,
      cutter.maxStepdown - profileHeight(profileOf(cutter), cutter.diameter / 4),
    ),
    stockToLeave: 0,
    rampAngle: RAMP,
  };
  const only = (x: number, y: number) => where.data[cellAt(where, x, y)] > 0;
  const { path } = await planRough(ctx, clearing, cutter, region, only);
  return path.cuts ? path : null;
}
