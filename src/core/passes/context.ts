import type { Groove } from '../arrange/grooves';
import type { Target } from '../arrange/target';
import { MASK } from '../arrange/target';
import type { Cutter } from '../cutter/cutter';
import type { Board } from '../doc/board';
import type { OutlineRef } from '../doc/outline-ref';
import type { Heights } from '../doc/setup';
import { rowInTurn } from '../field/drum';
import { AIR, cellAt, goesRound, type HeightField, makeField, padField, poolField } from '../field/height-field';
import type { KernelHost } from '../kernels/host';
import { removeBy } from '../kernels/spans';
import { cutEased } from '../motion/ease';
import type { Moving } from '../motion/link';
import type { Path } from '../motion/path';
import type { Polygon } from '../outline/polygon';
import type { Underside } from './underside';

/** A bit on its way: what it has done so far, and what it may do. */
export interface Tool {
  path: Path;
  cutter: Cutter;
  heights: Heights;
  /** Highest stock under the cutter, as it stood before the way that is being made. */
  clear: HeightField;
}

/** What rows leave by their own numbers, mm. */
export interface Finished {
  tolerance: number;
  ridge: number;
}

/** What the passes of a job share while they are planned, one after the other. */
export interface PassContext {
  target: Target;
  /** Target with the kept board grown by one cell, so that no interpolated point of a path reaches into it. */
  planning: HeightField;
  /** Pairs of cell and how far finishing raises it, mm, for edges that stand between cells, as raisedEdges says. */
  raised: Float64Array;
  /** What stands at the moment, on a coarser grid padded with air: an upper bound, which rapids stay above. */
  stock: HeightField;
  /** The same at the middles of the stock's cells, exactly: what passes ask before they make a move. */
  stands: HeightField;
  /** Whether anything has been cut yet. */
  worked: boolean;
  /** Most that finishing has left by its own numbers so far, mm: its tolerance, and the ridge between its rows on a flat. */
  finished: Finished;
  /** 1 on the target's grid where a level field has been cleared and finishing has nothing to do. */
  cleared: Uint8Array;
  /** Whether a place of the board belongs to the ground that is planned; the rest of the board is planned by itself. */
  here(x: number, y: number): boolean;
  /** What V bits are to cut, worked out when a pass asks for it. */
  grooves(): Promise<Groove[]>;
  /** Outlines of layers as they lie on the board, each layer's copies together: what walls between their cells follow. */
  edges(): Promise<Polygon[]>;
  /** Outlines that passes name. */
  outline(ref: OutlineRef): Promise<Polygon>;
  /** What stands from below; null where nothing has been cut from there. */
  under: Underside | null;
  board: Pick<Board, 'x' | 'y' | 'thickness'> & Partial<Pick<Board, 'drum'>>;
  mode: 'raised' | 'sunk';
  heights: Heights;
  /** How steeply bits sink into its wood, degrees. */
  rampAngle: number;
  machine: Moving;
  host: KernelHost;
}

/**
 * Kept board is planned on this share of a cell higher, so that a ball that rests on its cells stays off it between them too: it sinks by
 * c^2 / 8R there, which is less down to balls of four cells' radius.
 */
const KEEP_PROUD = 32;
const STOCK_FACTOR = 2;
/** Boards of cells coarser than this, mm, and no more of them than this have their stock on the cells themselves: bits are few cells wide there. */
const COARSE = 0.2;
const FEW = 4e6;
/** Air around the board in the stock grid, mm: wider than any cutter's radius and overrun. */
const STOCK_PAD = 30;

/** What a context is made of; what V bits cut, outlines, edges and where the ground ends may be left out where no pass asks for them. */
export type ContextInput = Pick<
  PassContext,
  'target' | 'board' | 'mode' | 'heights' | 'rampAngle' | 'machine' | 'host'
> &
  Partial<Pick<PassContext, 'grooves' | 'edges' | 'outline' | 'raised' | 'here' | 'under'>>;

/** The context before the first pass: a whole board. */
export function makeContext(input: ContextInput): PassContext {
  const { field, mask } = input.target;
  const planning = makeField(field);
  planning.data.set(field.data);
  const { width, height } = field;
  const proud = field.cell / KEEP_PROUD;
  const round = goesRound(field) ? field.drum : undefined;
  const [first, last] = round ? [-1, height] : [0, height - 1];
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      if (mask[j * width + i] !== MASK.keep) continue;
      for (let b = Math.max(first, j - 1); b <= Math.min(last, j + 1); b++) {
        for (let a = Math.max(0, i - 1); a <= Math.min(width - 1, i + 1); a++)
          planning.data[(round ? rowInTurn(round, b) : b) * width + a] = proud;
      }
    }
  }
  const factor = field.cell > COARSE && field.data.length <= FEW ? 1 : STOCK_FACTOR;
  const coarse = poolField(makeField(field, 0), factor, 'max');
  // Round a drum there is nothing beside it but beyond its ends.
  const pad = Math.ceil(STOCK_PAD / coarse.cell);
  const stock = padField(coarse, pad, AIR, round ? 0 : pad);
  if (!round) boardAround(stock, coarse, input.board);
  return {
    raised: new Float64Array(0),
    here: () => true,
    grooves: async () => [],
    edges: async () => [],
    outline: async () => [],
    under: null,
    ...input,
    planning,
    stock,
    stands: { ...stock, data: stock.data.slice() },
    worked: false,
    finished: { tolerance: 0, ridge: 0 },
    cleared: new Uint8Array(field.data.length),
  };
}

/** Puts whole board into a stock's cells that lie beyond the planned ground, where the board goes on. */
function boardAround(stock: HeightField, inner: HeightField, board: { x: number; y: number }): void {
  const pad = (stock.width - inner.width) / 2;
  for (let j = 0; j < stock.height; j++) {
    const y = stock.originY + j * stock.cell;
    if (y < 0 || y > board.y) continue;
    const beside = j < pad || j >= pad + inner.height;
    for (let i = 0; i < stock.width; i++) {
      if (i === pad && !beside) i += inner.width;
      const x = stock.originX + i * stock.cell;
      if (x >= 0 && x <= board.x && i < stock.width) stock.data[j * stock.width + i] = 0;
    }
  }
}

/** Whether a bit of a radius would come over what holds a drum at its ends, or run further beyond an end that nothing holds than it is wide. */
export function beyondEnds({ board }: Pick<PassContext, 'board'>, x: number, radius: number): boolean {
  const { chuck, tailStock } = board.drum ?? { chuck: 0, tailStock: 0 };
  const from = chuck > 0 ? chuck + radius : -radius;
  const to = tailStock > 0 ? board.x - tailStock - radius : board.x + radius;
  return x < from || x > to;
}

/** Highest of a field's cells within r mm of every place; `slack` mm more all around. */
export async function highestWithin(
  { host }: Pick<PassContext, 'host'>,
  field: HeightField,
  r: number,
  slack = 0,
): Promise<HeightField> {
  const data = await host.offset(field, { shape: 0, R: r, p0: 0, p1: 0, p2: 0 }, slack);
  return { ...field, data };
}

/** Highest stock under a cutter of radius R at every place: what a tip must stay above. */
export const clearHeights = (ctx: PassContext, R: number): Promise<HeightField> =>
  highestWithin(ctx, ctx.stock, R, 1.5 * ctx.stock.cell);

/** Highest value of a coarse field along a straight line, its cells taken whole. */
export function highestAlong(f: HeightField, x0: number, y0: number, x1: number, y1: number): number {
  const n = Math.max(1, Math.ceil((Math.hypot(x1 - x0, y1 - y0) / f.cell) * 2));
  let high = AIR;
  for (let s = 0; s <= n; s++) {
    const k = cellAt(f, x0 + ((x1 - x0) * s) / n, y0 + ((y1 - y0) * s) / n);
    if (k >= 0 && f.data[k] > high) high = f.data[k];
  }
  return high;
}

/** Over to a place and down to where the wall beside it begins to be in the way: on from there it is not rapid, for the wall is no further than the bit is wide. */
export function descend(
  path: Path,
  clear: HeightField,
  at: { x: number; y: number; z: number },
  heights: Heights,
): void {
  const over = Math.max(at.z, highestAlong(clear, path.x, path.y, at.x, at.y)) + heights.between;
  path.hop(at.x, at.y, over, Math.max(at.z, highestAlong(clear, at.x, at.y, at.x, at.y)) + heights.approach / 2);
}

/**
 * Lowers what stands by the moves from the given one on, and eases their feeds by what they meet; the bound with a cutter a little too small, so
 * that it stays one.
 */
export async function lowerStock(ctx: PassContext, path: Path, from: number, cutter: Cutter): Promise<void> {
  if (path.moves <= from) return;
  const segments = await cutEased(ctx.host, ctx.stands, { path, from, cutter });
  await removeBy(ctx.host, ctx.stock, cutter, segments, 0.8 * ctx.stock.cell);
  ctx.worked = true;
}
