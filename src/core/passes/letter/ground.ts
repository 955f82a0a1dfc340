import type { NearestOutline } from '../../outline/nearest';

/** What of a groove's outline is asked for: the ground along it, and heights on its middle. */
export interface Ground {
  near: NearestOutline;
  /** Height of the tip at a place, and of the surface that it counts from, mm. */
  place(x: number, y: number): [number, number];
  /** Where a place of the outline's middle lies on this ground, `r` mm from the outline. */
  middle(x: number, y: number, r: number): [number, number];
}
