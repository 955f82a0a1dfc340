import { planningRadius } from '../../cutter/cutter';
import type { Found } from '../../findings/finding';
import { clean } from '../../units/round';
import type { PassKind } from '../kind';
import { passProblem, setOf, setValue } from '../pass-problems';
import { freeId, stepdownFor } from '../proposals';
import { partSlot, planPart } from './plan';

/** Diameter that is left between the work and what holds it as a rule, mm (common practice, no source). */
const LEFT = 10;

export const part: PassKind<'part'> = {
  kind: 'part',
  name: 'cut-off',
  doing: 'the cut-off',
  sentence: 'cuts grooves round a drum in which the work is sawn off',
  rank: 7,
  late: 'would work on a piece that hangs by thin rests only',
  needsLayers: false,
  rough: false,
  arcs: false,
  round: true,
  roundOnly: true,
  unsuited: (c) => (c.shape === 'endmill' ? null : 'leaves no square groove; a cut-off needs an end mill'),
  propose: ({ document, board }, c) => {
    const { chuck, tailStock } = board.drum ?? { chuck: 0, tailStock: 0 };
    return {
      id: freeId('part', { document }),
      kind: 'part',
      cutter: c.id,
      along: [clean(chuck + c.diameter), clean(board.x - tailStock - c.diameter)],
      width: c.diameter,
      left: clean(Math.min(LEFT, board.thickness)),
      stepdown: stepdownFor(c, board.material),
    };
  },
  cell: (c) => planningRadius(c) / 20,
  problems: (at) => {
    const { view, pass, cutter } = at;
    const { board } = view;
    const out: Found[] = [];
    const { chuck, tailStock } = board.drum ?? { chuck: 0, tailStock: 0 };
    if (pass.width < cutter.diameter)
      out.push(
        passProblem(at, 'part-narrow', 'width', { width: pass.width, diameter: cutter.diameter }, [
          setValue(at, 'width', cutter.diameter),
        ]),
      );
    if (pass.left >= 2 * board.thickness)
      out.push(
        passProblem(at, 'part-nothing', 'left', { left: pass.left, diameter: 2 * board.thickness }, [
          setValue(at, 'left', clean(Math.min(LEFT, board.thickness))),
        ]),
      );
    const half = Math.max(pass.width, cutter.diameter) / 2;
    const [low, high] = [chuck > 0 ? chuck + half : 0, tailStock > 0 ? board.x - tailStock - half : board.x];
    const collar = board.drum?.collar;
    const onCollar = (x: number) =>
      collar !== null && collar !== undefined && Math.abs(x - collar.x) < collar.width / 2 + half;
    const held = pass.along.find((x) => x < low - 1e-6 || x > high + 1e-6);
    const cuts = pass.along.find(onCollar);
    if (cuts !== undefined)
      out.push(passProblem(at, 'part-collar', 'along', { x: cuts, collar: collar?.x ?? 0, width: collar?.width ?? 0 }));
    if (held !== undefined && low < high)
      out.push(
        passProblem(at, 'part-held', 'along', { x: held, low, high }, [
          {
            id: 'part-clear',
            figures: { low, high },
            edits: [
              setOf(
                at,
                'along',
                pass.along.map((x) => clean(Math.min(high, Math.max(low, x)))),
              ),
            ],
          },
        ]),
      );
    return out;
  },
  ground: () => 'board',
  plan: async (ctx, pass, cutter) => ({ ...(await planPart(ctx, pass, cutter)), facts: null }),
  opens: ({ pass, cutter, board }) => [partSlot(pass, cutter, board)],
};
