import { inSetup } from '../../../doc/edits';
import type { Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import { freeId, stepdownFor } from '../../proposals';
import type { PocketFacts } from '../plan';
import type { PocketPass } from '../schema';

/** Corners and necks smaller than this are not told, mm2. */
const LEAST = 0.5;

/** Corners and necks of a pocket that its bit does not get into, where no smaller bit follows in the same outline. */
export function pocketRest(d: PassDone<PocketPass, PocketFacts>): Found[] {
  const { view, pass, cutter, facts } = d;
  if (!facts.fits || facts.missed < LEAST) return [];
  const outline = JSON.stringify(pass.outline);
  const smaller = view.cutters.filter((c) => c.shape === 'endmill' && c.diameter < cutter.diameter);
  const follows = view.passes
    .slice(view.passes.indexOf(pass) + 1)
    .some(
      (p) => p.kind === 'pocket' && JSON.stringify(p.outline) === outline && smaller.some((c) => c.id === p.cutter),
    );
  if (follows) return [];
  const bit = smaller.filter((c) => c.fluteLength >= pass.depth).sort((a, b) => b.diameter - a.diameter)[0];
  const rest = bit && {
    ...structuredClone(pass),
    id: freeId('pocket', view),
    cutter: bit.id,
    stepover: Math.min(pass.stepover, bit.diameter * 0.4),
    stepdown: stepdownFor(bit, view.board.material),
  };
  return [
    {
      rule: 'pocket-rest',
      severity: 'note',
      subject: aboutPass(d),
      place: null,
      figures: { bit: cutter.name, area: facts.missed },
      fixes: rest
        ? [
            {
              id: 'pocket-corners',
              figures: { bit: bit.name },
              edits: [{ insert: inSetup(view, 'passes'), at: view.passes.indexOf(pass) + 1, value: rest }],
            },
          ]
        : [],
    },
  ];
}
