import { clean } from '../../units/round';
import type { CutoutPass } from './schema';

type Point = { x: number; y: number };

/** Puts one tab of a cut-out to a place by hand: from then on all of them stay where they stood when they placed themselves. */
export function placeTab(pass: CutoutPass, standing: readonly Point[], n: number, to: Point): void {
  pass.tabs.at = standing.map((t, i) => {
    const at = i === n ? to : t;
    return { x: clean(at.x), y: clean(at.y) };
  });
  pass.tabs.count = standing.length;
}
