import type { Cutter } from '../../../cutter/cutter';
import type { Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import { setOf } from '../../pass-problems';
import { stepdownFor } from '../../proposals';
import type { CutoutFacts } from '../plan';
import type { CutoutPass } from '../schema';

type Done = PassDone<CutoutPass, CutoutFacts>;

/** Whether a bit gets down to the bottom from the ground that is open already: how it fails, or null. */
function reachOf(c: Cutter, facts: CutoutFacts): 'flutes' | 'holder' | 'reaches' {
  const below = facts.start - facts.bottom;
  if (c.fluteLength < below) return 'flutes';
  return c.stickOut < -facts.bottom && c.holderDiameter > c.diameter ? 'holder' : 'reaches';
}

/** Inside corners that the bit does not enter. */
export function corners(d: Done): Found[] {
  const { view, cutter, facts } = d;
  if (facts.rings.length === 0) return [];
  return facts.corners.map((c) => {
    const fits = view.cutters
      .filter((b) => b.shape === 'endmill' && b.diameter <= c.most)
      .sort((a, b) => b.diameter - a.diameter)[0];
    const how = fits ? reachOf(fits, facts) : 'none';
    return {
      rule: 'corner',
      severity: 'note',
      subject: aboutPass(d),
      place: { x: c.x, y: c.y },
      figures: {
        bit: cutter.name,
        area: c.area,
        most: c.most,
        other: fits?.name ?? '',
        how,
        flutes: fits?.fluteLength ?? 0,
        below: facts.start - facts.bottom,
        stickOut: fits?.stickOut ?? 0,
        depth: -facts.bottom,
      },
      fixes:
        fits && how === 'reaches'
          ? [
              {
                id: 'use-bit',
                figures: { bit: fits.name },
                edits: [setOf(d, 'cutter', fits.id), setOf(d, 'stepdown', stepdownFor(fits, view.board.material))],
              },
            ]
          : [],
    };
  });
}
