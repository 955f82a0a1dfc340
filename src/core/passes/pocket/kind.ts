import { planningRadius, stepoverBase, tipRadius } from '../../cutter/cutter';
import { type OutlineRef, WHOLE_PIECE } from '../../doc/outline-ref';
import { clean } from '../../units/round';
import type { PassKind, Proposing } from '../kind';
import { passProblem, setValue, stepoverProblems } from '../pass-problems';
import { FINE_STEPOVER, FLAT_STEPOVER, freeId, millingFor, stepdownFor } from '../proposals';
import { pocketNarrow } from './checks/pocket-narrow';
import { pocketRelief } from './checks/pocket-relief';
import { pocketRest } from './checks/pocket-rest';
import { joinPockets, type PocketFacts, planPocket } from './plan';
import { pocketSlot } from './shape';

/** Left at the wall for the last lap (trade handbook, section 3, cut-out; common practice, no source), mm. */
const LAST = 0.2;

/** The outline of the layer on top, its openings left standing: inside the whole piece's nothing of it would be left. */
function topLayer({ setup }: Proposing): OutlineRef {
  const top = setup.layers.findLast((l) => !l.hidden);
  return { ...WHOLE_PIECE, of: top ? [top.id] : null, holes: true };
}

export const pocket: PassKind<'pocket', PocketFacts> = {
  kind: 'pocket',
  name: 'pocket',
  doing: 'the pocket',
  sentence: 'clears a recess inside an outline, with its wall exactly on the line',
  rank: 4,
  late: 'would cut into letters and holes',
  needsLayers: true,
  rough: false,
  arcs: true,
  unsuited: (c) =>
    c.shape === 'endmill' || c.shape === 'bullnose' || c.shape === 'ball'
      ? null
      : 'leaves no floor; pockets need an end mill, a bull-nose or a ball',
  // Its floor comes out flat.
  likes: (c) => (c.shape === 'endmill' ? 1 : 0),
  propose: (view, c) => ({
    id: freeId('pocket', view),
    kind: 'pocket',
    cutter: c.id,
    outline: topLayer(view),
    depth: clean(Math.min(c.fluteLength, view.board.thickness / 2)),
    allowance: 0,
    stepover: clean((tipRadius(c) > 0 && c.shape === 'ball' ? FINE_STEPOVER : FLAT_STEPOVER) * stepoverBase(c)),
    stepdown: stepdownFor(c, view.board.material),
    rampAngle: view.board.material.rampAngle,
    milling: millingFor(view.document.machine),
    last: LAST,
  }),
  cell: (c) => planningRadius(c) / 20,
  problems: (at) => {
    const { pass, view } = at;
    const out = stepoverProblems(at, at.cutter.diameter / 2);
    if (pass.depth >= view.board.thickness)
      out.push(
        passProblem(at, 'pocket-through', 'depth', { depth: pass.depth, board: view.board.thickness }, [
          setValue(at, 'depth', clean(view.board.thickness / 2)),
        ]),
      );
    return out;
  },
  joinFacts: joinPockets,
  plan: planPocket,
  opens: ({ pass, cutter, outline, facts }) => (facts.fits ? [pocketSlot(pass, cutter, outline)] : []),
  outline: (pass) => pass.outline,
  checks: [pocketNarrow, pocketRelief, pocketRest],
};
