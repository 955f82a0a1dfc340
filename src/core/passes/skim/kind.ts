import { planningRadius, shapesNothing } from '../../cutter/cutter';
import { inBoard, inSetup } from '../../doc/edits';
import { clean } from '../../units/round';
import type { PassKind } from '../kind';
import { isFlat, passProblem, stepoverProblems } from '../pass-problems';
import { FLAT_STEPOVER, freeId } from '../proposals';
import { skimNothing } from './checks/skim-nothing';
import { skimThin } from './checks/skim-thin';
import { boardTops, mostSkim, planSkim, skimDepths } from './plan';

export const skim: PassKind<'skim'> = {
  kind: 'skim',
  name: 'skimming',
  doing: 'skimming',
  sentence: 'brings the whole board to an even thickness',
  rank: 0,
  late: 'would take off what is cut already',
  needsLayers: false,
  rough: true,
  arcs: false,
  zeroNote: 'Z zero counts from the face that the skim leaves: set it from the bed',
  unsuited: (c) =>
    shapesNothing(c) ?? (isFlat(c) ? null : 'leaves no level face; a skim needs a bit with a flat bottom'),
  // The widest is done soonest.
  likes: (c) => c.diameter,
  propose: ({ document, board }, c) => ({
    id: freeId('skim', { document }),
    kind: 'skim',
    cutter: c.id,
    stepover: clean(FLAT_STEPOVER * c.diameter),
    stepdown: 1,
    points: [{ x: clean(board.x / 2), y: clean(board.y / 2), thickness: clean(board.thickness + 0.5) }],
  }),
  cell: (c) => planningRadius(c) / 20,
  problems: (at) => {
    const { view, pass, cutter } = at;
    const { board, setup } = view;
    const remove = { id: 'remove-pass', figures: {}, edits: [{ remove: inSetup(view, 'passes', { id: pass.id }) }] };
    const out = stepoverProblems(at, cutter.diameter / 2);
    if (setup.up === 'face' && board.face !== 'bare')
      out.push(
        passProblem(at, 'skim-finished-face', 'kind', { face: board.face }, [
          remove,
          { id: 'face-bare', figures: {}, edits: [{ set: inBoard(view, 'face'), to: 'bare' }] },
        ]),
      );
    const { high } = skimDepths(pass, board.thickness);
    const most = mostSkim(setup.heights);
    if (high > most)
      out.push(
        passProblem(at, 'skim-uneven', 'points', { high, most }, [
          {
            id: 'raise-travel',
            figures: { height: clean(high + setup.heights.between) },
            edits: [{ set: inSetup(view, 'heights', 'everything'), to: clean(high + setup.heights.between) }],
          },
        ]),
      );
    return out;
  },
  ground: () => 'board',
  tops: (pass, board, grid) => boardTops(pass, board.thickness, grid),
  plan: async (ctx, pass, cutter) => ({ path: planSkim(pass, cutter, ctx.board, ctx.heights), facts: null }),
  checks: [skimThin, skimNothing],
};
