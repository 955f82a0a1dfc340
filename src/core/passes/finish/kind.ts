import { planningRadius, shapesNothing, stepoverBase, tipRadius } from '../../cutter/cutter';
import { CELLS_A_RADIUS } from '../../cutter/limits';
import { clean } from '../../units/round';
import { boardStands } from '../board-stands';
import type { PassKind } from '../kind';
import { stepoverProblems } from '../pass-problems';
import { FINE_STEPOVER, freeId } from '../proposals';
import { entryRefused } from './checks/entry-refused';
import { type FinishFacts, joinFinishes, planFinish } from './plan';

/** Margin of the finishing bit around the relief where its own diameter is less (trade handbook, section 3; common practice, no source), mm. */
const MARGIN = 3.175;

export const finish: PassKind<'finish', FinishFacts> = {
  kind: 'finish',
  name: 'finishing',
  doing: 'finishing',
  sentence: 'follows the surface in rows that are close together',
  rank: 3,
  late: 'would wear the edges of letters off',
  needsLayers: true,
  rough: false,
  arcs: false,
  round: true,
  unsuited: shapesNothing,
  // A round tip leaves ridges instead of steps.
  likes: (c) => (tipRadius(c) > 0 ? 1 : 0),
  propose: (view, c) => ({
    id: freeId('finish', view),
    kind: 'finish',
    cutter: c.id,
    reserve: false,
    area: { kind: 'relief', trench: null },
    angle: 0,
    stepover: clean(FINE_STEPOVER * stepoverBase(c)),
    tolerance: 0.01,
    lines: 'fit',
    milling: 'either',
  }),
  // A bull-nose follows a slope with its corner.
  cell: (c) => (c.shape === 'bullnose' ? c.cornerRadius : planningRadius(c)) / CELLS_A_RADIUS,
  problems: (at) => stepoverProblems(at, at.cutter.diameter),
  trench: (_, c, rough) => {
    const own = Math.max(MARGIN, c.diameter);
    return rough > 0 ? Math.min(rough, own) : own;
  },
  joinFacts: joinFinishes,
  plan: planFinish,
  checks: [boardStands, entryRefused],
};
