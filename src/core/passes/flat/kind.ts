import { planningRadius, shapesNothing } from '../../cutter/cutter';
import { clean } from '../../units/round';
import type { PassKind } from '../kind';
import { isFlat, stepoverProblems } from '../pass-problems';
import { FLAT_STEPOVER, freeId, millingFor, stepdownFor } from '../proposals';
import { planFlats } from './plan';

export const flat: PassKind<'flat'> = {
  kind: 'flat',
  name: 'clearing flats',
  doing: 'clearing flats',
  sentence: 'clears level fields at exactly their height, and finishing stays off them',
  rank: 2,
  late: 'would find its field already cut by the ball',
  needsLayers: true,
  rough: true,
  arcs: false,
  unsuited: (c) => shapesNothing(c) ?? (isFlat(c) ? null : 'has no flat bottom; flats need an end mill'),
  propose: (view, c) => ({
    id: freeId('flat', view),
    kind: 'flat',
    cutter: c.id,
    reserve: false,
    area: structuredClone(view.passes.find((p) => p.kind === 'finish')?.area ?? { kind: 'relief', trench: null }),
    stepover: clean(FLAT_STEPOVER * c.diameter),
    stepdown: stepdownFor(c, view.board.material),
    rampAngle: view.board.material.rampAngle,
    milling: millingFor(view.document.machine),
    overlap: 1,
  }),
  cell: (c) => planningRadius(c) / 20,
  problems: (at) => stepoverProblems(at, at.cutter.diameter / 2),
  plan: async (ctx, pass, cutter, region) => ({ ...(await planFlats(ctx, pass, cutter, region)), facts: null }),
};
