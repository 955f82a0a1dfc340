import { planningRadius, shapesNothing, stepoverBase } from '../../cutter/cutter';
import { clean } from '../../units/round';
import { boardStands } from '../board-stands';
import type { PassKind } from '../kind';
import { stepoverProblems } from '../pass-problems';
import { FLAT_STEPOVER, freeId, millingFor, stepdownFor, stockFor } from '../proposals';
import { roughIdle } from './checks/rough-idle';
import { trenchCutout } from './checks/trench-cutout';
import { trenchNarrow } from './checks/trench-narrow';
import { trenchRoom } from './checks/trench-room';
import { planRough } from './plan';
import { trenchFor } from './trench';

export const rough: PassKind<'rough', { levels: number }> = {
  kind: 'rough',
  name: 'roughing',
  doing: 'roughing',
  sentence: 'takes most of the wood away in levels and leaves a little for finishing',
  rank: 1,
  late: 'would cut into wood that is finished',
  needsLayers: true,
  rough: true,
  arcs: false,
  round: true,
  unsuited: shapesNothing,
  propose: (view, c) => ({
    id: freeId('rough', view),
    kind: 'rough',
    cutter: c.id,
    reserve: false,
    area: { kind: 'relief', trench: null },
    strategy: 'rings',
    angle: 0,
    stepover: clean(FLAT_STEPOVER * stepoverBase(c)),
    stepdown: stepdownFor(c, view.board.material),
    stockToLeave: stockFor(c, view.board.material),
    rampAngle: view.board.material.rampAngle,
    milling: millingFor(view.document.machine),
  }),
  cell: (c) => planningRadius(c) / 20,
  problems: (at) => stepoverProblems(at, at.cutter.diameter / 2),
  trench: (p, c) => trenchFor(c.diameter, p.stockToLeave),
  plan: async (ctx, pass, cutter, region) => {
    const { path, levels } = await planRough(ctx, pass, cutter, region);
    return { path, facts: { levels: levels.length } };
  },
  joinFacts: (all) => ({ levels: Math.max(...all.map((f) => f.levels)) }),
  checks: [boardStands, trenchNarrow, trenchRoom, trenchCutout, roughIdle],
};
