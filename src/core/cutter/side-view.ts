import { type Cutter, profileHeight, profileOf, shankFrom } from './cutter';

/** Steps of a round or sloping tip's outline. */
const STEPS = 24;

/** One side of a bit as it is seen from beside: [distance from its axis, height over its tip], mm, from the tip upwards. */
export type Side = [r: number, z: number][];

/** A bit's cutting part, its shank and the piece of its holder that is drawn, each from its foot to its head. */
export interface SideView {
  cutting: Side;
  shank: Side;
  holder: Side;
}

/**
 * A bit from the side, to scale: the cutting part by its exact profile up to the end of its flutes, the shank up to what it sticks out, and over
 * it as much of the holder as it is wide.
 */
export function sideView(c: Cutter): SideView {
  const profile = profileOf(c);
  const { R } = profile;
  const cutting: Side = [];
  for (let s = 0; s <= STEPS; s++) {
    // By the sine, so that a ball's outline is as smooth at its side as at its tip.
    const r = R * Math.sin((Math.PI / 2) * (s / STEPS));
    cutting.push([r, profileHeight(profile, r)]);
  }
  cutting.push([R, Math.max(c.fluteLength, cutting[STEPS][1])]);
  const head = Math.max(shankFrom(c), cutting[STEPS][1]);
  if (c.shape === 'slot') cutting.push([c.neckDiameter / 2, c.fluteLength], [c.neckDiameter / 2, head]);
  const [shank, holder] = [c.shankDiameter / 2, c.holderDiameter / 2];
  const out = Math.max(c.stickOut, head);
  return {
    cutting,
    shank: [
      [shank, head],
      [shank, out],
    ],
    holder: [
      [holder, out],
      [holder, out + holder],
    ],
  };
}
