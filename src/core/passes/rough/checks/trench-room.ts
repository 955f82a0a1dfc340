import { smaller } from '../../../arrange/fit';
import type { Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import type { RoughPass } from '../schema';

type Done = PassDone<RoughPass, { levels: number }>;

/** Room between the relief's outline and each edge of the board, mm. */
function roomAround({
  view: { board },
  ground: { relief },
}: Done): { side: string; room: number; x: number; y: number }[] {
  if (!relief) return [];
  const { x, y } = board;
  return [
    { side: 'left', room: relief.x0, x: 0, y: y / 2 },
    { side: 'right', room: x - relief.x1, x, y: y / 2 },
    { side: 'near', room: relief.y0, x: x / 2, y: 0 },
    { side: 'far', room: y - relief.y1, x: x / 2, y },
  ];
}

/** A trench that runs off the board. */
export function trenchRoom(d: Done): Found[] {
  const { view, pass, trench, ground } = d;
  if (view.seat.mode !== 'raised' || pass.area.kind !== 'relief') return [];
  const tight = roomAround(d)
    .filter((r) => r.room < trench - 0.05)
    .sort((a, b) => a.room - b.room);
  if (tight.length === 0) return [];
  const margin = trench + ground.cell;
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
