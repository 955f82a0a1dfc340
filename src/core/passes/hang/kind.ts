import { shankFrom } from '../../cutter/cutter';
import { clean } from '../../units/round';
import type { PassKind, Proposing } from '../kind';
import { passProblem, setValue } from '../pass-problems';
import { freeId } from '../proposals';
import { hangSlot, hangsAt, planHang } from './plan';

/** Least wood over the head that a piece hangs by, mm, and what is proposed. Common practice, no source. */
const LEAST_LIP = 2;
const LIP = 4;
/** A hanging slot is about 3/8 in deep and 2 to 2.5 in long (trade handbook, section 7), mm. */
const DEPTH = 9.525;
const LENGTH = 57;

/** Where the slot of a board goes and which way: in its middle, its end a quarter from the edge that is up when the piece hangs. */
function lying({ board, setup }: Proposing): { at: { x: number; y: number }; length: number; towards: number } {
  const down = setup.up === 'back' && board.flip === 'about-x';
  const length = clean(Math.min(LENGTH, board.y / 2));
  const end = down ? board.y / 4 : (3 * board.y) / 4;
  return {
    at: { x: clean(board.x / 2), y: clean(down ? end + length : end - length) },
    length,
    towards: down ? 270 : 90,
  };
}

export const hang: PassKind<'hang'> = {
  kind: 'hang',
  name: 'hanging slots',
  doing: 'cutting hanging slots',
  sentence: 'cuts slots under the wood, for a piece to hang on a screw',
  rank: 4.5,
  late: 'would be cut over',
  needsLayers: false,
  rough: false,
  arcs: false,
  unsuited: (c) => (c.shape === 'slot' ? null : 'cuts nothing under the wood; hanging slots need a slot bit'),
  propose: (view, c) => {
    const { at, length, towards } = lying(view);
    const most = view.board.thickness - view.board.web;
    const depth = clean(Math.max(c.fluteLength + LEAST_LIP, Math.min(DEPTH, most, c.fluteLength + 2 * LIP)));
    return { id: freeId('hang', view), kind: 'hang', cutter: c.id, places: [at], length, towards, depth };
  },
  cell: (c) => c.neckDiameter / 40,
  problems: (at) => {
    const { pass, cutter } = at;
    const deepest = shankFrom(cutter);
    if (pass.depth > deepest)
      return [passProblem(at, 'slot-deep', 'depth', { depth: pass.depth, deepest }, [setValue(at, 'depth', deepest)])];
    const lip = pass.depth - cutter.fluteLength;
    if (lip >= LEAST_LIP) return [];
    const depth = clean(Math.min(deepest, cutter.fluteLength + LIP));
    return [passProblem(at, 'slot-lip', 'depth', { lip, least: LEAST_LIP }, [setValue(at, 'depth', depth)])];
  },
  ground: (pass) =>
    pass.places.map((p) => {
      const end = hangsAt(pass, p);
      return {
        x0: Math.min(p.x, end.x),
        y0: Math.min(p.y, end.y),
        x1: Math.max(p.x, end.x),
        y1: Math.max(p.y, end.y),
      };
    }),
  plan: async (ctx, pass, cutter) => ({ ...(await planHang(ctx, pass, cutter)), facts: null }),
  opens: ({ pass, cutter }) => [hangSlot(pass, cutter)],
};
