import type { Found } from '../findings/finding';
import { clean } from '../units/round';
import type { FinishPass } from './finish/schema';
import { aboutPass, type PassDone } from './kind';
import { setOf } from './pass-problems';
import type { RoughPass } from './rough/schema';

/** A trench wider than this is not proposed to clear what stands within it, mm. */
const WIDEST = 60;

/** Board that stays at its own top within cleared ground: between pieces, inside a band, in a letter that stands free. Told of the first pass over the relief. */
export function boardStands(d: PassDone<RoughPass | FinishPass, unknown>): Found[] {
  const { view, pass, ground, trench } = d;
  const first = view.passes.find((p) => 'area' in p && p.area.kind === 'relief' && !p.reserve);
  if (view.seat.mode !== 'raised' || first?.id !== pass.id || ground.islands.length === 0) return [];
  const [{ x, y, area }] = ground.islands;
  const width = clean(Math.ceil(10 * (Math.max(...ground.islands.map((i) => i.far)) + 2 * ground.cell)) / 10);
  const clearing = pass.kind === 'rough' && width > trench && width <= WIDEST;
  return [
    {
      rule: 'board-stands',
      severity: 'note',
      subject: aboutPass(d),
      place: { x, y },
      figures: { count: ground.islands.length, area },
      fixes: clearing
        ? [{ id: 'widen-trench', figures: { width }, edits: [setOf(d, 'area', { kind: 'relief', trench: width })] }]
        : [],
    },
  ];
}
