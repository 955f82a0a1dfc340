import type { Cutter } from '../../cutter/cutter';
import { Path } from '../../motion/path';
import { clearHeights, highestAlong, lowerStock, type PassContext } from '../context';
import type { Slot } from '../slots';
import type { HangPass } from './schema';

/** Where a slot that begins at a place ends: there the piece hangs. */
export function hangsAt({ length, towards }: Pick<HangPass, 'length' | 'towards'>, at: { x: number; y: number }) {
  const a = (towards * Math.PI) / 180;
  return { x: at.x + length * Math.cos(a), y: at.y + length * Math.sin(a) };
}

/** Straight down, along to where the piece hangs, back the same way, and straight out: nowhere else does the head come out again. */
export async function planHang(ctx: PassContext, pass: HangPass, cutter: Cutter): Promise<{ path: Path }> {
  const path = new Path();
  const clear = await clearHeights(ctx, cutter.diameter / 2);
  const { heights, board } = ctx;
  const places = pass.places.filter((p) => ctx.here(p.x, p.y));
  for (const [n, { x, y }] of places.entries()) {
    const top = Math.min(0, Math.max(highestAlong(clear, x, y, x, y), -board.thickness));
    if (top <= -pass.depth) continue;
    const end = hangsAt(pass, { x, y });
    path.at(['slot', n + 1, places.length]);
    path.hop(x, y, heights.everything, top + heights.approach);
    path.feed(x, y, -pass.depth, cutter.plunge, 'plunge');
    path.feed(end.x, end.y, -pass.depth, cutter.feed, 'cut');
    path.feed(x, y, -pass.depth, cutter.feed, 'cut');
    path.rapid(x, y, heights.everything);
  }
  await lowerStock(ctx, path, 0, cutter);
  return { path };
}

/** What the slots leave in the target, as seen from above: the hole that the head makes, and the slit of the neck. */
export function hangSlot(pass: HangPass, cutter: Cutter): Slot {
  const chains = pass.places.map((p) => {
    const end = hangsAt(pass, p);
    return Float64Array.of(p.x, p.y, 0, p.x, p.y, -pass.depth, end.x, end.y, -pass.depth);
  });
  return { cutter, chains, loose: null, through: false };
}
