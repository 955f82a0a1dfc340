import { inBoard } from '../../../doc/edits';
import type { Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import { skimDepths } from '../plan';
import type { SkimPass } from '../schema';

type Done = PassDone<SkimPass, unknown>;

/** A board that is thinner somewhere than the skim is to leave it. */
export function skimThin(d: Done): Found[] {
  const { board } = d.view;
  const { thin } = skimDepths(d.pass, board.thickness);
  if (!thin) return [];
  return [
    {
      rule: 'skim-thin',
      severity: 'error',
      subject: aboutPass(d),
      place: { x: thin.x, y: thin.y },
      figures: { thickness: thin.thickness, missing: board.thickness - thin.thickness },
      fixes: [
        {
          id: 'thinner-board',
          figures: { thickness: thin.thickness },
          edits: [{ set: inBoard(d.view, 'thickness'), to: thin.thickness }],
        },
      ],
    },
  ];
}
