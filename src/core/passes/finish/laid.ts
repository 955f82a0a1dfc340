import { beyondEnds, type PassContext } from '../context';
import type { FinishPass } from './schema';

/** Where rows lie. */
export interface Laid {
  /** Their direction. */
  along: [x: number, y: number];
  numbers: number[];
  /** Where row v's middle sample lies, and how many there are on either side of it, a cell apart. */
  place(v: number): { ox: number; oy: number; nu: number };
  /** From row v to the row between it and the next, mm to the left. */
  between(v: number): number;
}

/** A direction, exact on the axes, so that rows along them stay on the cells' centres. @param angle degrees */
function exactly(angle: number): [number, number] {
  const a = (angle * Math.PI) / 180;
  const exact = (v: number) => (Math.abs(v) < 1e-12 ? 0 : v);
  return [exact(Math.cos(a)), exact(Math.sin(a))];
}

/** Rows on a board, one stepover apart from the middle one, whose samples lie on cells' centres where they run along an axis. */
function flat(ctx: PassContext, { angle, stepover }: FinishPass, radius: number): Laid {
  const { field } = ctx.target;
  const { cell } = ctx.planning;
  const [ux, uy] = exactly(angle);
  const half = radius + stepover;
  const w = (field.width * field.cell) / 2 + half;
  const h = (field.height * field.cell) / 2 + half;
  const cx = field.originX + Math.floor(field.width / 2) * field.cell;
  const cy = field.originY + Math.floor(field.height / 2) * field.cell;
  const nu = Math.ceil((Math.abs(ux) * w + Math.abs(uy) * h) / cell);
  const count = Math.ceil((Math.abs(uy) * w + Math.abs(ux) * h) / stepover);
  return {
    along: [ux, uy],
    numbers: Array.from({ length: 2 * count + 1 }, (_, i) => i - count),
    place: (v) => ({ ox: cx - v * stepover * uy, oy: cy + v * stepover * ux, nu }),
    between: () => stepover / 2,
  };
}

/** The first and the last column of a drum's cells that a bit may stand over. */
function columnsOf(ctx: PassContext, radius: number): [number, number] {
  const { width, cell, originX } = ctx.target.field;
  const own = Array.from({ length: width }, (_, i) => i).filter((i) => !beyondEnds(ctx, originX + i * cell, radius));
  return [own[0] ?? 0, own[own.length - 1] ?? -1];
}

/** One row of many turns round a drum, which climbs a stepover a turn: on the sheet it is a straight line. */
function spiral(ctx: PassContext, { stepover }: FinishPass, radius: number): Laid {
  const { height, cell, originX, originY } = ctx.target.field;
  const [first, last] = columnsOf(ctx, radius);
  const turn = height * cell;
  const long = Math.hypot(turn, stepover);
  const turns = ((last - first) * cell) / stepover + 1;
  const [ox, oy] = [originX + ((first + last) / 2) * cell, originY + (turns * turn) / 2];
  const nu = Math.ceil((turns * long) / 2 / cell);
  return { along: [stepover / long, turn / long], numbers: [0], place: () => ({ ox, oy, nu }), between: () => 0 };
}

/**
 * Rows round a drum: on rows or columns of cells, where the tip's surface is exact, as even as these allow and no further apart than the stepover
 * on the drum's circle, which is where its surface is widest. Rows around end where they began.
 */
function round(ctx: PassContext, { angle, stepover }: FinishPass, radius: number): Laid {
  const { width, height, cell, originX, originY } = ctx.target.field;
  const along = exactly(angle);
  const most = Math.max(1, Math.floor(stepover / cell + 1e-6));
  if (along[1] === 0) {
    const n = Math.ceil(height / most);
    const row = (v: number) => originY + Math.round((v * height) / n) * cell;
    const ox = originX + Math.floor(width / 2) * cell;
    return {
      along,
      numbers: Array.from({ length: n }, (_, v) => v),
      place: (v) => ({ ox, oy: row(v), nu: Math.ceil(width / 2) }),
      between: (v) => row(v + 0.5) - row(v),
    };
  }
  const [first, last] = columnsOf(ctx, radius);
  const n = Math.ceil((last - first) / most);
  // Numbered to the left of their own direction, as rows on a board are.
  const column = (v: number) => originX + (n > 0 ? last - Math.round((v * (last - first)) / n) : first) * cell;
  const oy = originY + (height / 2) * cell;
  return {
    along,
    numbers: Array.from({ length: last < first ? 0 : n + 1 }, (_, v) => v),
    place: (v) => ({ ox: column(v), oy, nu: height / 2 }),
    between: (v) => column(v) - column(v + 0.5),
  };
}

/** Where the rows of a finishing pass lie, as it asks for them. @param radius of its bit, mm */
export function layRows(ctx: PassContext, pass: FinishPass, radius: number): Laid {
  if (!ctx.planning.drum) return flat(ctx, pass, radius);
  return (pass.lines === 'spiral' ? spiral : round)(ctx, pass, radius);
}
