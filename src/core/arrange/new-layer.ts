import svgpath from 'svgpath';
import { type Layer, PLAIN_LAYER } from '../doc/layer';
import type { ReliefOf } from '../doc/relief-of';
import type { Words } from '../doc/words';
import type { Edge, Outline } from '../outline/shapes';
import { clean } from '../units/round';

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
    ...PLAIN_LAYER,
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
): Layer {
  return {
    ...PLAIN_LAYER,
    id,
    name: words.text.split('\n')[0].trim().slice(0, 80) || 'Words',
    source: { kind: 'words', words, relief: { kind: 'flat' } },
    size: { x: clean(size.x), y: clean(size.y) },
    rise: 2,
    centre: { x: board.x / 2, y: board.y / 2 },
  };
}

/** Words of another size: letters, spaces and the line that they stand on grow together. */
export function scaleWords(w: Words, k: number): Words {
  const nudges = Object.fromEntries(Object.entries(w.nudges).map(([i, v]) => [i, clean(v * k)]));
  const line =
    w.line.kind === 'arc'
      ? { ...w.line, radius: clean(w.line.radius * k) }
      : w.line.kind === 'curve'
        ? { ...w.line, d: svgpath(w.line.d).scale(k).round(4).toString() }
        : w.line;
  return { ...w, height: clean(w.height * k), spacing: clean(w.spacing * k), nudges, line };
}

/** Makes a layer kx and ky times as large. Words keep their proportions: their height follows the larger change. */
export function resizeLayer(l: Layer, kx: number, ky: number): void {
  if (l.source.kind === 'words') {
    const k = Math.abs(Math.log(kx)) > Math.abs(Math.log(ky)) ? kx : ky;
    l.source.words = scaleWords(l.source.words, k);
    l.size = { x: clean(l.size.x * k), y: clean(l.size.y * k) };
    return;
  }
  l.size = { x: clean(l.size.x * kx), y: clean(l.size.y * ky) };
}

/** A copy of a layer under a new id, a little aside. */
export function duplicateLayer(l: Layer, id: string): Layer {
  return {
    ...structuredClone(l),
    id,
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

/** Each line of words as a layer of its own, where it stood. @param sizes of the lines as they would be set alone */
export function splitLines(l: Layer, ids: string[], sizes: { x: number; y: number }[]): Layer[] {
  if (l.source.kind !== 'words') return [l];
  const { words } = l.source;
  const lines = words.text.split('\n');
  const a = (l.turn * Math.PI) / 180;
  let first = 0;
  return lines
    .map((text, i) => {
      const nudges = Object.fromEntries(
        Object.entries(words.nudges)
          .map(([k, v]) => [Number(k) - first, v] as const)
          .filter(([k]) => k >= 0 && k < [...text].length)
          .map(([k, v]) => [String(k), v]),
      );
      first += [...text].length + 1;
      const up = ((lines.length - 1) / 2 - i) * words.lineGap * words.height;
      const sideways = words.align === 'middle' ? 0 : ((words.align === 'left' ? -1 : 1) * (l.size.x - sizes[i].x)) / 2;
      return {
        ...structuredClone(l),
        id: ids[i],
        name: text.trim().slice(0, 80) || 'Line',
        source: { ...(l.source as Extract<Layer['source'], { kind: 'words' }>), words: { ...words, text, nudges } },
        size: { x: clean(sizes[i].x), y: clean(sizes[i].y) },
        centre: {
          x: clean(l.centre.x + sideways * Math.cos(a) - up * Math.sin(a)),
          y: clean(l.centre.y + sideways * Math.sin(a) + up * Math.cos(a)),
        },
      };
    })
    .filter((n) => n.source.words.text.trim() !== '');
}
