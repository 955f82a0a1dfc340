import { expose, transfer } from 'comlink';
import { detailOf, largerFor } from '@/core/arrange/detail';
import { Arrangement, neededLayers } from '@/core/arrange/engine';
import { type FlatField, flatFieldAt, standingBounds } from '@/core/arrange/flat-field';
import { type MadeShape, shapeOf, strokesOf } from '@/core/arrange/made-shape';
import { changeOutline, joinSilhouettes, outlineOf } from '@/core/arrange/silhouette';
import { middleLines, traceOutlines } from '@/core/arrange/trace';
import { type Cutter, profileOf } from '@/core/cutter/cutter';
import type { SeenLayer } from '@/core/doc/layer';
import type { OutlineRef } from '@/core/doc/outline-ref';
import { layersNamed } from '@/core/doc/pass';
import type { Words } from '@/core/doc/words';
import { AIR, type Grid, gridOf } from '@/core/field/height-field';
import { localHost } from '@/core/kernels/host';
import type { Bounds } from '@/core/outline/polygon';
import type { Joining } from '@/core/outline/union';
import { gridOfBoard } from '@/core/setup/board-grid';
import type { LaidWords } from '@/core/sources/lettering';
import { Contents } from './contents';
import {
  type ArrangeInput,
  type CoarseLook,
  closeLook,
  type Look,
  look,
  sectionLook,
  shownOn,
  thinSections,
  VIEW,
} from './looks';

/** Cells along the longer side while something moves. */
const COARSE = 360;
const MOST_FULL = 8e6;

const contents = new Contents();
let coarse: Arrangement | null = null;
let full: Arrangement | null = null;
/** As fine as the screen shows a whole board, where the full grid is finer. */
let fine: Arrangement | null = null;
/** The board's other side, on the coarse grid. */
let other: Arrangement | null = null;

let last: Promise<unknown> = Promise.resolve();

/** Does what works on the full grid after what was asked for before it: two at once would each find the other's layers there. */
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const mine = last.then(work);
  last = mine.catch(() => {});
  return mine;
}

const fullCell = ({ cell, board }: ArrangeInput) => Math.max(cell, Math.sqrt((board.x * board.y) / MOST_FULL));

/** Brings the full grid to these layers; only what has changed is worked out again. */
async function brought(input: ArrangeInput): Promise<Arrangement> {
  await contents.load(needed(input));
  full = arrangementFor(full, input.board, fullCell(input));
  full.update(input.layers, input.seat);
  return full;
}

/** The same as finely as a whole board is shown. */
async function broughtFine(input: ArrangeInput): Promise<Arrangement> {
  const cell = Math.max(input.board.x, input.board.y) / VIEW;
  if (cell <= fullCell(input)) return brought(input);
  await contents.load(needed(input));
  fine = arrangementFor(fine, input.board, cell);
  fine.update(input.layers, input.seat);
  return fine;
}

/** What is shown of an arrangement, with the time since it was begun. */
async function shown(a: Arrangement, input: ArrangeInput, start: number): Promise<Look> {
  const out = await look(a, input, contents);
  const answer = { ...out, target: out.target.slice(), mask: out.mask.slice() };
  answer.seconds = (performance.now() - start) / 1000;
  return transfer(answer, [answer.target.buffer, answer.mask.buffer]);
}

function arrangementFor(had: Arrangement | null, board: ArrangeInput['board'], cell: number): Arrangement {
  const grid = gridOfBoard(board, cell);
  const same = (a: Grid, b: Grid) =>
    a.width === b.width && a.height === b.height && a.cell === b.cell && !a.drum === !b.drum;
  if (had && same(had.grid, grid)) return had;
  return new Arrangement(grid, (l) => contents.get(l));
}

const coarseCell = (b: { x: number; y: number }) => Math.max(b.x, b.y) / COARSE;

/** The layers whose content is needed: what is shown, what masks name, and what passes name of other setups. */
function needed({ layers, own, passes }: ArrangeInput): SeenLayer[] {
  const named = new Set(passes.flatMap(layersNamed));
  return [...neededLayers(layers), ...layers.slice(own).filter((l) => named.has(l.id))];
}

const api = {
  /** The arrangement on a coarse grid, at once. */
  async coarse(input: ArrangeInput): Promise<CoarseLook> {
    await contents.load(needed(input));
    const start = performance.now();
    coarse = arrangementFor(coarse, input.board, coarseCell(input.board));
    const effects = coarse.effects(input.layers, input.seat);
    const out = await look(coarse, input, contents);
    const problems: Record<string, string> = {};
    for (const l of input.layers) {
      const p = contents.problem(l);
      if (p) problems[l.id] = p;
    }
    const close = closeLook(coarse, input, effects);
    const section = sectionLook(coarse, input);
    const thin = thinSections(coarse, input);
    // The surface's own arrays go on being worked with: what is handed over is a copy.
    const answer = { ...out, target: out.target.slice(), mask: out.mask.slice(), close, section, thin, problems };
    answer.seconds = (performance.now() - start) / 1000;
    return transfer(answer, [answer.target.buffer, answer.mask.buffer]);
  },

  /** The target of the board's other side on the coarse grid. */
  behind: (input: ArrangeInput): Promise<{ grid: Grid; target: Float32Array<ArrayBuffer> }> =>
    inTurn(async () => {
      await contents.load(needed(input));
      other = arrangementFor(other, input.board, coarseCell(input.board));
      other.update(input.layers, input.seat);
      const { target } = await look(other, input, contents);
      const own = target.slice();
      return transfer({ grid: gridOf(other.grid), target: own }, [own.buffer]);
    }),

  /** The arrangement on the full grid; only what has changed is worked out again. */
  full: (input: ArrangeInput): Promise<Look> =>
    inTurn(async () => {
      const start = performance.now();
      return shown(await brought(input), input, start);
    }),

  /** The arrangement as finely as a whole board is shown. */
  fine: (input: ArrangeInput): Promise<Look> =>
    inTurn(async () => {
      const start = performance.now();
      return shown(await broughtFine(input), input, start);
    }),

  /** A part of the full grid, mm, with so many cells along its longer side at most. */
  part: (input: ArrangeInput, box: Bounds, most: number): Promise<Look> =>
    inTurn(async () => {
      const answer = await look(await brought(input), input, contents, { box, most });
      return { ...answer, target: answer.target.slice(), mask: answer.mask.slice() };
    }),

  /** The flat field that lies under a layer, and the layer itself, on the full grid. */
  fieldUnder: (input: ArrangeInput, id: string): Promise<{ field: FlatField; standing: Bounds } | null> =>
    inTurn(async () => {
      const a = await brought(input);
      const index = input.layers.findIndex((l) => l.id === id);
      const l = input.layers[index];
      const why = l && contents.problem(l);
      if (why) throw new Error(why);
      const r = l && a.rendered(l, input.layers);
      if (!r) return null;
      const beneath = a.without(input.layers, input.seat, (_, i) => i >= index);
      const field = flatFieldAt(beneath, l.centre.x, l.centre.y);
      const standing = standingBounds(r, a.grid, AIR);
      return field && standing ? { field, standing } : null;
    }),

  /** The outline of layers as a shape of its own; null when nothing is left of it. */
  outline: (input: ArrangeInput, ids: string[], ref: OutlineRef, how: Joining): Promise<MadeShape | null> =>
    inTurn(async () => {
      const a = await brought(input);
      const shown = shownOn(a, input, contents).filter((s) => ids.includes(s.layer.id));
      if (shown.length === 0) return null;
      if (how === 'union') return shapeOf(outlineOf({ ...ref, of: ids }, shown, a.grid, input.seat.mode));
      return shapeOf(changeOutline(joinSilhouettes(how, shown, a.grid), ref));
    }),

  /** What of a layer stands higher than a share of its rise, as outlines or as their middle lines of a width; null when nothing does. */
  trace: (input: ArrangeInput, id: string, share: number, width: number | null): Promise<MadeShape | null> =>
    inTurn(async () => {
      const a = await brought(input);
      const l = input.layers.find((o) => o.id === id);
      const r = l && a.rendered(l, input.layers);
      if (!r) return null;
      const polygon = traceOutlines(r, a.grid, share * l.rise);
      return width === null ? shapeOf(polygon) : strokesOf(middleLines(polygon, a.grid.cell), width);
    }),

  /** What bits would leave of this surface: shares missed, and for the one looked at the map of it. */
  async detail(
    input: ArrangeInput,
    cutters: Cutter[],
    tolerance: number,
    shown: string,
  ): Promise<{ shares: Record<string, number>; map: { grid: Grid; mask: Uint8Array }; larger: number | null }> {
    await contents.load(needed(input));
    const finest = Math.max(input.cell, Math.max(input.board.x, input.board.y) / 1500);
    const a = new Arrangement(gridOfBoard(input.board, finest), (l) => contents.get(l));
    a.update(input.layers, input.seat);
    const shares: Record<string, number> = {};
    let mask = new Uint8Array(a.surface.z.length);
    let larger: number | null = null;
    for (const c of cutters) {
      const d = await detailOf(a.surface, profileOf(c), tolerance, localHost);
      shares[c.id] = d.missed;
      if (c.id !== shown) continue;
      mask = Uint8Array.from(d.left, (v) => (v > tolerance ? 1 : 0));
      larger = await largerFor(a.surface, profileOf(c), tolerance, localHost);
    }
    return { shares, map: { grid: gridOf(a.grid), mask }, larger };
  },

  /** Size, origin and missing letters of words as they would be set. */
  async measure(words: Words): Promise<Omit<LaidWords, 'polygon'>> {
    const { polygon: _, ...rest } = await contents.lay(words);
    return rest;
  },
};

export type ArrangeApi = typeof api;

expose(api);
