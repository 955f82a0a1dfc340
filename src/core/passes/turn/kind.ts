import { planningRadius, shapesNothing } from '../../cutter/cutter';
import { inSetup } from '../../doc/edits';
import type { Found } from '../../findings/finding';
import { clean } from '../../units/round';
import type { PassKind } from '../kind';
import { isFlat, passProblem, setOf, stepoverProblems } from '../pass-problems';
import { FLAT_STEPOVER, freeId, stepdownFor } from '../proposals';
import { blankTops, cornerOver, leastOver } from './blank';
import { planTurn } from './plan';

/** How much wider square stock is than its drum as a rule, mm: it is never centred to better (common practice, no source). */
const SPARE = 2;

export const turn: PassKind<'turn'> = {
  kind: 'turn',
  name: 'turning round',
  doing: 'turning round',
  sentence: 'turns a square or uneven blank down to the drum',
  rank: 0,
  late: 'would take off what is cut already',
  needsLayers: false,
  rough: true,
  arcs: false,
  round: true,
  roundOnly: true,
  zeroNote: 'the blank is not round yet: set Z zero from the axis of turning',
  unsuited: (c) =>
    shapesNothing(c) ?? (isFlat(c) ? null : 'leaves no even surface; turning round needs a bit with a flat bottom'),
  likes: (c) => c.diameter,
  propose: ({ document, board }, c) => ({
    id: freeId('turn', { document }),
    kind: 'turn',
    cutter: c.id,
    blank: { kind: 'square', side: clean(2 * board.thickness + SPARE) },
    runOut: { chuck: 0.5, tailStock: 0.5 },
    stepover: clean(FLAT_STEPOVER * c.diameter),
    stepdown: stepdownFor(c, board.material),
  }),
  cell: (c) => planningRadius(c) / 20,
  problems: (at) => {
    const { view, pass, cutter } = at;
    const { board, setup } = view;
    const out: Found[] = stepoverProblems(at, cutter.diameter / 2);
    const lacks = -leastOver(pass, board);
    if (lacks > 1e-6) {
      const most = clean(board.thickness - lacks);
      out.push(
        passProblem(at, 'turn-small', 'blank', { lacks, diameter: 2 * board.thickness, most: 2 * most }, [
          {
            id: 'wider-blank',
            figures: { lacks: 2 * lacks },
            edits: [
              pass.blank.kind === 'square'
                ? setOf(at, 'blank.side', clean(pass.blank.side + 2 * lacks))
                : setOf(at, 'blank.diameter', clean(pass.blank.diameter + 2 * lacks)),
            ],
          },
        ]),
      );
    }
    const over = cornerOver(pass, board);
    const height = clean(over + setup.heights.between);
    if (height > setup.heights.everything)
      out.push(
        passProblem(at, 'turn-corner', 'blank', { over, height: setup.heights.everything }, [
          {
            id: 'raise-travel',
            figures: { height },
            edits: [{ set: inSetup(view, 'heights', 'everything'), to: height }],
          },
        ]),
      );
    return out;
  },
  ground: () => 'board',
  tops: (pass, board, grid) => blankTops(pass, board, grid),
  plan: async (ctx, pass, cutter) => ({ path: planTurn(ctx, pass, cutter), facts: null }),
};
