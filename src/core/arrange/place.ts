import type { Board } from '../doc/board';
import { type Gap, type Layer, THE_BOARD } from '../doc/layer';
import { inTurn } from '../field/drum';
import { type Bounds, joinBounds } from '../outline/polygon';
import { clean } from '../units/round';
import { copiesOf } from './copies';
import { heightOff, type InHeight, keepHeights } from './heights';

/** The upright boxes around a layer's copies, by its size, mm. */
export function copyBounds(l: Pick<Layer, 'size' | 'centre' | 'turn' | 'copies'>): Bounds[] {
  const a = (l.turn * Math.PI) / 180;
  return copiesOf(l.copies).map((c) => {
    const x = l.centre.x + c.dx * Math.cos(a) - c.dy * Math.sin(a);
    const y = l.centre.y + c.dx * Math.sin(a) + c.dy * Math.cos(a);
    const t = a + (c.turn * Math.PI) / 180;
    const w = (Math.abs(Math.cos(t)) * l.size.x + Math.abs(Math.sin(t)) * l.size.y) / 2;
    const h = (Math.abs(Math.sin(t)) * l.size.x + Math.abs(Math.cos(t)) * l.size.y) / 2;
    return { x0: x - w, y0: y - h, x1: x + w, y1: y + h };
  });
}

/** The upright box around a layer and its copies, by their sizes, mm. */
export const boundsOf = (l: Pick<Layer, 'size' | 'centre' | 'turn' | 'copies'>): Bounds => joinBounds(copyBounds(l));

/** Whether a place of the board lies in the box of a layer or one of its copies. */
export function layerHas(l: Pick<Layer, 'size' | 'centre' | 'turn' | 'copies'>, x: number, y: number): boolean {
  const a = (l.turn * Math.PI) / 180;
  return copiesOf(l.copies).some((c) => {
    const dx = x - (l.centre.x + c.dx * Math.cos(a) - c.dy * Math.sin(a));
    const dy = y - (l.centre.y + c.dx * Math.sin(a) + c.dy * Math.cos(a));
    const t = a + (c.turn * Math.PI) / 180;
    const u = dx * Math.cos(t) + dy * Math.sin(t);
    const v = -dx * Math.sin(t) + dy * Math.cos(t);
    return Math.abs(u) <= l.size.x / 2 && Math.abs(v) <= l.size.y / 2;
  });
}

/**
 * The topmost layer at a place of the board; hidden ones are not there.
 * @param turn width of a sheet that is wound round a drum, mm: what reaches over its edge lies at the other one too; 0 for a board
 */
export function layerAt(layers: Layer[], x: number, y: number, turn = 0): Layer | null {
  const places = turn > 0 ? [y, y + turn, y - turn] : [y];
  for (let i = layers.length - 1; i >= 0; i--)
    if (!layers[i].hidden && places.some((v) => layerHas(layers[i], x, v))) return layers[i];
  return null;
}

type Axis = 'x' | 'y';
type Side = Gap['ofSide'];

/** Where a side of a box lies along an axis. */
export function sideOf(b: Bounds, axis: Axis, side: Side): number {
  const [low, high] = axis === 'x' ? [b.x0, b.x1] : [b.y0, b.y1];
  return side === 'low' ? low : side === 'high' ? high : (low + high) / 2;
}

export interface Snap {
  axis: Axis;
  /** Where the two things meet, and what they are, in words. */
  at: number;
  with: string;
}

/**
 * Moves a box by up to `reach` mm on each axis so that its edges or middle meet another's, the board's or a field's, or so
 * that its margins on both sides become equal.
 * @returns the shift on each axis, and what was met
 */
export function snapBox(
  box: Bounds,
  others: { name: string; bounds: Bounds }[],
  reach: number,
): { dx: number; dy: number; snaps: Snap[] } {
  const snaps: Snap[] = [];
  const along = (axis: Axis): number => {
    let best = reach;
    let shift = 0;
    let met: Snap | null = null;
    const mine = (['middle', 'low', 'high'] as const).map((s) => [s, sideOf(box, axis, s)] as const);
    for (const o of others) {
      for (const theirs of ['middle', 'low', 'high'] as const) {
        const at = sideOf(o.bounds, axis, theirs);
        for (const [side, v] of mine) {
          // Middles meet middles; edges meet edges. A middle on an edge says nothing.
          if ((side === 'middle') !== (theirs === 'middle')) continue;
          const d = Math.abs(at - v);
          if (d >= best - 1e-9) continue;
          best = d;
          shift = at - v;
          const what =
            theirs === 'middle'
              ? 'the middle'
              : axis === 'x'
                ? theirs === 'low'
                  ? 'the left edge'
                  : 'the right edge'
                : theirs === 'low'
                  ? 'the near edge'
                  : 'the far edge';
          met = { axis, at, with: `${what} of ${o.name}` };
        }
      }
    }
    // Equal margins: as far from the neighbour on one side as from the one on the other.
    const lows = others.map((o) => sideOf(o.bounds, axis, 'high')).filter((v) => v <= sideOf(box, axis, 'low') + reach);
    const highs = others
      .map((o) => sideOf(o.bounds, axis, 'low'))
      .filter((v) => v >= sideOf(box, axis, 'high') - reach);
    if (lows.length > 0 && highs.length > 0) {
      const at = (Math.max(...lows) + Math.min(...highs)) / 2;
      const d = Math.abs(at - sideOf(box, axis, 'middle'));
      if (d < best - 1e-9) {
        shift = at - sideOf(box, axis, 'middle');
        met = { axis, at, with: 'equal margins' };
      }
    }
    if (met) snaps.push(met);
    return shift;
  };
  const dx = along('x');
  return { dx, dy: along('y'), snaps };
}

export function moveLayer(l: Layer, dx: number, dy: number): void {
  l.centre = { x: clean(l.centre.x + dx), y: clean(l.centre.y + dy) };
}

/** Layers that have been moved over the edge of a drum's sheet come back at its other edge, all together: their middle stays on the sheet. */
export function backOnSheet(layers: Layer[], { drum, thickness }: Pick<Board, 'drum' | 'thickness'>): void {
  if (!drum || layers.length === 0) return;
  const middle = sideOf(joinBounds(layers.map(boundsOf)), 'y', 'middle');
  const by = inTurn({ radius: thickness }, middle) - middle;
  if (by !== 0) for (const l of layers) moveLayer(l, 0, by);
}

/** Lines several layers up by a side or middle of the box around them all. Locked ones stay. */
export function alignLayers(layers: Layer[], axis: Axis, side: Side): void {
  const at = sideOf(joinBounds(layers.map(boundsOf)), axis, side);
  for (const l of layers) {
    if (l.locked) continue;
    const d = at - sideOf(boundsOf(l), axis, side);
    moveLayer(l, axis === 'x' ? d : 0, axis === 'y' ? d : 0);
  }
}

/** Spreads three or more layers so that the spaces between them are equal; the first and the last stay. */
export function distributeLayers(layers: Layer[], axis: Axis): void {
  const sorted = layers
    .map((l) => ({ l, low: sideOf(boundsOf(l), axis, 'low'), high: sideOf(boundsOf(l), axis, 'high') }))
    .sort((a, b) => a.low + a.high - b.low - b.high);
  if (sorted.length < 3) return;
  const inner = sorted.slice(1, -1).reduce((s, e) => s + e.high - e.low, 0);
  const space = (sorted[sorted.length - 1].low - sorted[0].high - inner) / (sorted.length - 1);
  let at = sorted[0].high + space;
  for (const e of sorted.slice(1, -1)) {
    if (!e.l.locked) moveLayer(e.l, axis === 'x' ? at - e.low : 0, axis === 'y' ? at - e.low : 0);
    at += e.high - e.low + space;
  }
}

/** What distances are kept among: a setup's layers, with how they sit in their board. */
export interface Arranged extends InHeight {
  gaps: Gap[];
  board: Pick<Board, 'x' | 'y' | 'thickness'>;
}

/** How far the thing that a distance places lies from where the distance says, mm along its axis; null where an end is not there. */
export function gapOff(g: Gap, arranged: Omit<Arranged, 'gaps'>): number | null {
  const { axis } = g;
  if (axis === 'z') return heightOff(g, arranged);
  const { layers, board } = arranged;
  const boxOf = (id: string): Bounds | null => {
    if (id === THE_BOARD) return { x0: 0, y0: 0, x1: board.x, y1: board.y };
    const l = layers.find((o) => o.id === id);
    return l ? boundsOf(l) : null;
  };
  const [of, from] = [boxOf(g.of), boxOf(g.from)];
  if (!of || !from) return null;
  return sideOf(from, axis, g.fromSide) + g.distance - sideOf(of, axis, g.ofSide);
}

/** How far a side of one thing lies from a side of another now, mm along an axis; null where an end is not there. */
export function distanceNow(between: Omit<Gap, 'id' | 'distance'>, arranged: Omit<Arranged, 'gaps'>): number | null {
  const off = gapOff({ ...between, id: '', distance: 0 }, arranged);
  return off === null ? null : -off;
}

/** Where the margins of a thing count from: the field that it lies wholly in, else the board. */
export function aroundOf(standing: Bounds, field: Bounds | null, board: { x: number; y: number }): Bounds {
  const f = field;
  const lies = f && f.x0 <= standing.x0 && f.x1 >= standing.x1 && f.y0 <= standing.y0 && f.y1 >= standing.y1;
  return lies ? f : { x0: 0, y0: 0, x1: board.x, y1: board.y };
}

const SETTLED = 1e-6;

/**
 * Keeps the distances between layers after some of them were moved or sized: what was not moved follows, and what hangs on
 * that follows it. A locked layer or the board stays, and the other end gives way; where both stay the distance is not
 * kept. Heights are kept one way, see keepHeights.
 * @param moved ids of the layers that the person has just changed
 * @returns ids of gaps that could not be kept
 */
export function keepGaps(arranged: Arranged, moved: string[]): string[] {
  const { layers, gaps } = arranged;
  const byId = new Map(layers.map((l) => [l.id, l]));
  const settled: Record<Axis, Set<string>> = { x: new Set(moved), y: new Set(moved) };
  const broken = keepHeights(gaps, arranged);
  const waiting = gaps.filter((g): g is Gap & { axis: Axis } => g.axis !== 'z');
  const stays = (id: string, axis: Axis) => id === THE_BOARD || byId.get(id)?.locked === true || settled[axis].has(id);
  // Gaps with one end settled come first; when none is, the one named first is taken as it is.
  while (waiting.length > 0) {
    const next = waiting.findIndex((g) => stays(g.of, g.axis) || stays(g.from, g.axis));
    const [g] = waiting.splice(Math.max(0, next), 1);
    const off = gapOff(g, arranged);
    if (off === null) continue;
    const fixedOf = stays(g.of, g.axis);
    const fixedFrom = stays(g.from, g.axis);
    if (Math.abs(off) > SETTLED) {
      const push = (id: string, d: number) => moveLayer(byId.get(id)!, g.axis === 'x' ? d : 0, g.axis === 'y' ? d : 0);
      const held = (id: string) => id === THE_BOARD || byId.get(id)!.locked;
      if (!fixedOf) push(g.of, off);
      else if (!fixedFrom) push(g.from, -off);
      // Both ends are where they are: one moved by hand against the board goes back, a lock wins over a hand.
      else if (!held(g.of) && held(g.from)) push(g.of, off);
      else if (!held(g.from) && held(g.of)) push(g.from, -off);
      else broken.push(g.id);
    }
    settled[g.axis].add(g.of);
    settled[g.axis].add(g.from);
  }
  return broken;
}

/** Keeps the distances of all setups of a board, as after its size or how a piece sits in it has changed. */
export function keepBoard(board: Board): void {
  for (const { gaps, layers, seat } of board.setups) keepGaps({ gaps, layers, seat, board }, []);
}
