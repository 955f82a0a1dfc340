import { planningRadius } from '../../cutter/cutter';
import { WHOLE_PIECE } from '../../doc/outline-ref';
import type { Found } from '../../findings/finding';
import { clean } from '../../units/round';
import type { PassKind } from '../kind';
import { passProblem, setOf, setValue } from '../pass-problems';
import { freeId, stepdownFor } from '../proposals';
import { corners } from './checks/corner';
import { intoBed } from './checks/into-bed';
import { noLine } from './checks/no-line';
import { tabPlunge } from './checks/tab-plunge';
import { tabsOverlap, tabsPlaced } from './checks/tabs-placed';
import { upcutLap } from './checks/upcut-lap';
import { type CutoutFacts, joinCutouts, planCutout } from './plan';
import { cutoutSlot } from './slot';

/** Tabs in hardwood are about 8 mm tall and 25 mm long (trade handbook, section 3; common practice, no source), mm. */
const TAB = { thickness: 8, length: 25 };

export const cutout: PassKind<'cutout', CutoutFacts> = {
  kind: 'cutout',
  name: 'cut-out',
  doing: 'the cut-out',
  sentence: 'cuts the piece out along an outline, held by its tabs',
  rank: 6,
  late: 'would work on a piece that hangs by its tabs only',
  needsLayers: true,
  rough: false,
  arcs: true,
  unsuited: (c) => (c.shape === 'endmill' ? null : 'leaves no upright wall; a cut-out needs an end mill'),
  /** Cuts the whole piece out, held by four tabs; none is thicker than a third of the board. */
  propose: ({ document, board, setup }, c) => ({
    id: freeId('cutout', { document }),
    kind: 'cutout',
    cutter: c.id,
    outline: { ...WHOLE_PIECE },
    side: 'outside',
    start: 'machined',
    depth: null,
    stepdown: stepdownFor(c, board.material),
    rampAngle: board.material.rampAngle,
    into: setup.spoilboard === null ? 0 : 0.5,
    lead: 7,
    last: 0.2,
    floor: 0,
    tabs: {
      count: 4,
      length: Math.min(TAB.length, clean(Math.min(board.x, board.y) / 10)),
      thickness: clean(Math.min(TAB.thickness, Math.floor(board.thickness / 0.3) / 10)),
      sloped: c.maxPlungeDepth === 0,
      at: null,
    },
  }),
  cell: (c) => planningRadius(c) / 20,
  problems: (at) => {
    const { pass, view } = at;
    const { tabs } = pass;
    const out: Found[] = [];
    const { thickness } = view.board;
    if (pass.depth !== null) {
      if (pass.depth < thickness) return [];
      const half = [setValue(at, 'depth', clean(thickness / 2))];
      return [passProblem(at, 'cutout-depth', 'depth', { depth: pass.depth, board: thickness }, half)];
    }
    if (tabs.at && tabs.at.length !== tabs.count)
      out.push(
        passProblem(at, 'tab-places', 'tabs', { count: tabs.count, places: tabs.at.length }, [
          { id: 'place-tabs', figures: {}, edits: [setOf(at, 'tabs.at', null)] },
        ]),
      );
    if (pass.floor > 0 && tabs.count > 0 && pass.floor > tabs.thickness)
      out.push(
        passProblem(at, 'floor-over-tabs', 'floor', { floor: pass.floor, tabs: tabs.thickness }, [
          setValue(at, 'floor', tabs.thickness),
        ]),
      );
    return out;
  },
  beyond: (pass, c) => 2 * c.diameter + pass.lead + pass.last,
  plan: async (ctx, pass, cutter) => {
    const { path, cutout: facts } = await planCutout(ctx, pass, cutter);
    return { path, facts };
  },
  opens: ({ pass, cutter, facts, outline }) => [cutoutSlot(pass, cutter, facts, outline)],
  outline: (pass) => pass.outline,
  joinFacts: joinCutouts,
  checks: [noLine, intoBed, tabsPlaced, tabsOverlap, tabPlunge, upcutLap, corners],
};
