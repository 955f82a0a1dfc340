import { smaller } from '../../../arrange/fit';
import type { Target } from '../../../arrange/target';
import type { Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import type { RoughPass } from '../schema';

type Done = PassDone<RoughPass, { levels: number }>;

/** Room between the relief's outline and each edge of the board, mm. */
function roomAround({ field, outside }: Target): { side: string; room: number; x: number; y: number }[] {
  let [west, east, south, north] = [field.width, -1, field.height, -1];
  for (let j = 0; j < field.height; j++) {
    for (let i = 0; i < field.width; i++) {
      if (outside[j * field.width + i] > 0) continue;
      if (i < west) west = i;
      if (i > east) east = i;
      if (j < south) south = j;
      if (j > north) north = j;
    }
  }
  if (east < 0) return [];
  const c = field.cell;
  const [w, h] = [field.width * c, field.height * c];
  return [
    { side: 'left', room: west * c, x: 0, y: h / 2 },
    { side: 'right', room: (field.width - 1 - east) * c, x: w, y: h / 2 },
    { side: 'near', room: south * c, x: w / 2, y: 0 },
    { side: 'far', room: (field.height - 1 - north) * c, x: w / 2, y: h },
  ];
}

/** A trench that runs off the board. */
export function trenchRoom(d: Done): Found[] {
  const { view, pass, trench, target } = d;
  if (view.seat.mode !== 'raised' || pass.area.kind !== 'relief') return [];
  const tight = roomAround(target)
    .filter((r) => r.room < trench - 0.05)
    .sort((a, b) => a.room - b.room);
  if (tight.length === 0) return [];
  const margin = trench + target.field.cell;
  return [
    {
      rule: 'trench-room',
      severity: 'warning',
      subject: aboutPass(d),
      place: { x: tight[0].x, y: tight[0].y },
      figures: { trench, sides: tight.map((r) => r.side), rooms: tight.map((r) => String(Math.max(0, r.room))) },
      fixes: smaller(view, margin),
    },
  ];
}
