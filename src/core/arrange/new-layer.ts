import { type Layer, type LayerOf, PLAIN_LAYER } from '../doc/layer';
import type { ReliefOf } from '../doc/relief-of';
import type { Words } from '../doc/words';
import type { Edge, Outline } from '../outline/shapes';
import { clean } from '../units/round';
import { sourceKind } from './kinds/registry';
import { nameOfWords } from './kinds/words/set';

/** A shape in the middle of the board. @param more how much of the board's sides it takes, and how its edge is worked */
export function newShape(
  { id, name }: Pick<Layer, 'id' | 'name'>,
  outline: Outline,
  relief: ReliefOf,
  board: { x: number; y: number },
  { share = 0.8, edge = { kind: 'plain' } }: { share?: number; edge?: Edge } = {},
): Layer {
  const side = Math.min(board.x, board.y) * share;
  const round = outline.kind === 'circle' || outline.kind === 'scalloped';
  return {
    ...structuredClone(PLAIN_LAYER),
    id,
    name,
    source: { kind: 'shape', outline, edge, relief },
    size: round ? { x: clean(side), y: clean(side) } : { x: clean(board.x * share), y: clean(board.y * share) },
    rise: 5,
    centre: { x: board.x / 2, y: board.y / 2 },
  };
}

export const NEW_WORDS: Words = {
  text: 'Words',
  font: 'slab-bold',
  fontName: 'Slab, bold',
  height: 12,
  stretch: 1,
  spacing: 0,
  kerning: true,
  nudges: {},
  lineGap: 1.6,
  align: 'middle',
  line: { kind: 'straight' },
};

/** Words in the middle of the board; their size is measured when they are set. */
export function newWords(
  id: string,
  words: Words,
  size: { x: number; y: number },
  board: { x: number; y: number },
): LayerOf<'words'> {
  return {
    ...structuredClone(PLAIN_LAYER),
    id,
    name: nameOfWords(words) || 'Words',
    source: { kind: 'words', words, relief: { kind: 'flat' } },
    size: { x: clean(size.x), y: clean(size.y) },
    rise: 2,
    centre: { x: board.x / 2, y: board.y / 2 },
  };
}

/** Makes a layer kx and ky times as large. One that keeps its proportions follows the larger change. */
export function resizeLayer(l: Layer, kx: number, ky: number): void {
  const { scaled } = sourceKind(l);
  const larger = Math.abs(Math.log(kx)) > Math.abs(Math.log(ky)) ? kx : ky;
  const [x, y] = scaled ? [larger, larger] : [kx, ky];
  scaled?.(l, larger);
  l.size = { x: clean(l.size.x * x), y: clean(l.size.y * y) };
}

/** A copy of a layer under a new id, a little aside. */
export function duplicateLayer(l: Layer, id: string): Layer {
  return {
    ...structuredClone(l),
    id,
    shared: null,
    name: `${l.name} copy`.slice(0, 80),
    centre: { x: clean(l.centre.x + 5), y: clean(l.centre.y - 5) },
  };
}

/** A copy on the other side of the board's middle line, mirrored. @param axis the way across: 'x' puts it left or right */
export function mirroredCopy(l: Layer, id: string, axis: 'x' | 'y', board: { x: number; y: number }): Layer {
  const copy = structuredClone(l);
  // A mirror about a horizontal line is one about an upright line, turned half round.
  return {
    ...copy,
    id,
    shared: null,
    name: `${l.name}, mirrored`.slice(0, 80),
    mirror: !l.mirror,
    turn: clean(axis === 'x' ? -l.turn : ((180 - l.turn + 540) % 360) - 180),
    slope: { x: l.slope.x, y: l.slope.y },
    centre:
      axis === 'x'
        ? { x: clean(board.x - l.centre.x), y: l.centre.y }
        : { x: l.centre.x, y: clean(board.y - l.centre.y) },
  };
}
