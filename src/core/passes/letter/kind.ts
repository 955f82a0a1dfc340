import { shapesNothing } from '../../cutter/cutter';
import type { PassKind } from '../kind';
import { freeId } from '../proposals';
import { letterEdges } from './checks/letter-edges';
import { type LetterEdge, planLetters } from './plan';

/** Letters are planned from their outlines, exactly; the grid only shows and proves them, with this cell at most, mm. */
const LETTER_CELL = 0.1;

export const letter: PassKind<'letter', LetterEdge[]> = {
  kind: 'letter',
  name: 'letters',
  doing: 'cutting letters',
  sentence: 'cuts grooves along the middles of letters and outlines',
  rank: 4,
  late: 'would be cut over',
  needsLayers: true,
  rough: false,
  arcs: false,
  unsuited: (c) =>
    c.shape === 'v'
      ? null
      : (shapesNothing(c) ?? 'is no V bit; letters need one of the angle that they are shaped for'),
  propose: (view, c) => ({
    id: freeId('letter', view),
    kind: 'letter',
    cutter: c.id,
    reserve: false,
    area: { kind: 'relief', trench: null },
    stepdown: c.maxStepdown,
  }),
  cell: () => LETTER_CELL,
  plan: async (ctx, pass, cutter) => {
    const { path, edges } = await planLetters(ctx, pass, cutter);
    return { path, facts: edges };
  },
  joinFacts: (all) => all.flat(),
  checks: [letterEdges],
};
