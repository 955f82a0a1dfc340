import type { Found } from '../../../findings/finding';
import { clean } from '../../../units/round';
import { cutoutRoom } from '../../cutout/room';
import { aboutPass, type PassDone } from '../../kind';
import { setOf } from '../../pass-problems';
import type { RoughPass } from '../schema';

/** A trench that is wider than roughing needs because a cut-out's shank or holder comes down into it, or too narrow for that. */
export function trenchCutout(d: PassDone<RoughPass, { levels: number }>): Found[] {
  const { view, pass, trench } = d;
  if (view.seat.mode !== 'raised' || pass.area.kind !== 'relief') return [];
  const room = cutoutRoom(view);
  if (!room) return [];
  const narrow = trench < room.width - 0.005;
  // A trench that was worked out is told where that widened it.
  if (!narrow && (pass.area.trench !== null || trench > room.width + 0.005)) return [];
  const width = clean(Math.ceil(10 * room.width) / 10);
  return [
    {
      rule: 'trench-cutout',
      severity: narrow ? 'warning' : 'note',
      subject: aboutPass(d),
      place: null,
      figures: { trench, narrow, bit: room.bit, part: room.part, least: width },
      fixes: narrow
        ? [{ id: 'widen-trench', figures: { width }, edits: [setOf(d, 'area', { kind: 'relief', trench: width })] }]
        : [],
    },
  ];
}
