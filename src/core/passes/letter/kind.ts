import { shapesNothing } from '../../cutter/cutter';
import type { PassKind } from '../kind';
import { freeId } from '../proposals';
import { letterEdges } from './checks/letter-edges';
import { type LetterFacts, letterSlots, planLetters } from './plan';

/** Letters are planned from their outlines, exactly; the grid only shows and proves them, with this cell at most, mm. */
const LETTER_CELL = 0.1;

export const letter: PassKind<'letter', LetterFacts> = {
  kind: 'letter',
  name: 'letters',
  doing: 'cutting letters',
  sentence: 'cuts grooves along the middles of letters and outlines',
  rank: 4,
  late: 'would be cut over',
  needsLayers: true,
  rough: false,
  arcs: false,
  round: true,
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
  plan: (ctx, pass, cutter) => planLetters(ctx, pass, cutter),
  joinFacts: (all) => ({ edges: all.flatMap((f) => f.edges), cuts: all.flatMap((f) => f.cuts) }),
  opens: ({ facts, cutter }) => letterSlots(facts, cutter),
  checks: [letterEdges],
};
