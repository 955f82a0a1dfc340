import type { Found } from '../../../findings/finding';
import { clean } from '../../../units/round';
import { aboutPass, type PassDone } from '../../kind';
import { setOf } from '../../pass-problems';
import type { RoughPass } from '../schema';

type Done = PassDone<RoughPass, { levels: number }>;

/** A trench in which the bit with stock on both sides has no room. */
export function trenchNarrow(d: Done): Found[] {
  const { view, pass, cutter, trench } = d;
  if (view.seat.mode !== 'raised' || pass.area.kind !== 'relief') return [];
  const least = cutter.diameter + 2 * pass.stockToLeave;
  if (trench >= least) return [];
  return [
    {
      rule: 'trench-narrow',
      severity: 'warning',
      subject: aboutPass(d),
      place: null,
      figures: { trench, bit: cutter.name, stock: pass.stockToLeave, least: least + 1 },
      fixes: [
        {
          id: 'widen-trench',
          figures: { width: clean(least + 1) },
          edits: [setOf(d, 'area', { kind: 'relief', trench: clean(least + 1) })],
        },
      ],
    },
  ];
}
