import { type Cutter, DRILLS, planningRadius } from '../../cutter/cutter';
import type { Found } from '../../findings/finding';
import { clean } from '../../units/round';
import type { PassAt, PassKind, Proposing } from '../kind';
import { passProblem, setOf, setValue } from '../pass-problems';
import { freeId } from '../proposals';
import { intoBed } from './checks/into-bed';
import { holeSlot, planHoles } from './plan';
import type { HolePass } from './schema';

/** Two places on the board's long middle line, near its ends, as for pins to turn it over on. */
function ends({ board: { x, y } }: Pick<Proposing, 'board'>, diameter: number) {
  const inset = clean(Math.max(diameter, Math.min(x, y) / 20));
  return x >= y
    ? [
        { x: inset, y: y / 2 },
        { x: clean(x - inset), y: y / 2 },
      ]
    : [
        { x: x / 2, y: inset },
        { x: x / 2, y: clean(y - inset) },
      ];
}

/** The hole that a bit makes: its own width where it drills, wider where it must be milled. */
const widthFor = (c: Cutter) => (c.maxPlungeDepth > 0 ? c.diameter : clean(1.5 * c.diameter));

/** Holes of a drum end so far short of its axis at least, mm. */
const SHORT = 1;

/** Round a drum holes run towards its axis: they are drilled, for one that is milled by turning would be a cone, and end before the axis. */
function roundHoles(at: PassAt<HolePass>, drilled: boolean): Found[] {
  const { pass, cutter, view } = at;
  const most = clean(view.board.thickness - SHORT);
  const out: Found[] = [];
  if (!drilled)
    out.push(
      passProblem(
        at,
        'hole-cone',
        'diameter',
        { hole: pass.diameter },
        // A bit that does not plunge drills nothing: another one is for the carver to choose.
        cutter.maxPlungeDepth > 0 ? [setValue(at, 'diameter', cutter.diameter)] : [],
      ),
    );
  if (pass.depth === null || pass.depth > most)
    out.push(
      passProblem(at, 'hole-axis', 'depth', { most, radius: view.board.thickness }, [setValue(at, 'depth', most)]),
    );
  if (pass.dowel !== null)
    out.push(
      passProblem(at, 'hole-dowel', 'dowel', {}, [{ id: 'no-dowels', figures: {}, edits: [setOf(at, 'dowel', null)] }]),
    );
  return out;
}

export const hole: PassKind<'hole'> = {
  kind: 'hole',
  name: 'holes',
  doing: 'making holes',
  sentence: 'drills round holes, or mills them in helices',
  rank: 5,
  late: 'would be cut over',
  needsLayers: false,
  rough: false,
  arcs: true,
  round: true,
  unsuited: (c) =>
    c.shape === 'endmill' || c.shape === 'drill' ? null : 'leaves no upright wall; holes need a drill or an end mill',
  likes: (c) => (c.shape === 'drill' ? 1 : 0),
  propose: (view, c) => {
    const drilled = c.maxPlungeDepth > 0;
    return {
      id: freeId('hole', view),
      kind: 'hole',
      cutter: c.id,
      places: ends(view, c.diameter),
      diameter: view.board.drum ? c.diameter : widthFor(c),
      depth: clean(Math.min(10, view.board.thickness / 2)),
      into: 0.5,
      peck: drilled ? Math.min(c.maxPlungeDepth, c.maxStepdown) : c.maxStepdown,
      rampAngle: view.board.material.rampAngle,
      dowel: null,
    };
  },
  cell: (c) => planningRadius(c) / 20,
  problems: (at) => {
    const { pass, cutter, view } = at;
    const fits = Math.abs(pass.diameter - cutter.diameter) <= DRILLS;
    const figures = { width: cutter.diameter, hole: pass.diameter };
    if (cutter.diameter > pass.diameter + DRILLS)
      return [passProblem(at, 'hole-narrow', 'diameter', figures, [setValue(at, 'diameter', widthFor(cutter))])];
    if (cutter.shape === 'drill' && !fits)
      return [passProblem(at, 'hole-wide', 'diameter', figures, [setValue(at, 'diameter', cutter.diameter)])];
    if (fits && cutter.maxPlungeDepth === 0)
      return [passProblem(at, 'hole-plunge', 'diameter', figures, [setValue(at, 'diameter', widthFor(cutter))])];
    return view.board.drum ? roundHoles(at, fits) : [];
  },
  ground: ({ places, diameter: d }) =>
    places.map(({ x, y }) => ({ x0: x - d / 2, y0: y - d / 2, x1: x + d / 2, y1: y + d / 2 })),
  plan: async (ctx, pass, cutter) => ({ ...(await planHoles(ctx, pass, cutter)), facts: null }),
  opens: ({ pass, cutter, board }) => [holeSlot(pass, cutter, board.thickness)],
  checks: [intoBed],
};
