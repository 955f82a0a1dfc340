import type { Copies, Layer } from '../doc/layer';
import type { ReliefOf } from '../doc/relief-of';
import type { Words } from '../doc/words';
import type { Edge, Outline } from '../outline/shapes';
import { clean } from '../units/round';

/** Figures that a layer begins with when it is made something else: in proportion to its size, so that they can be seen at once. */

type Sized = Pick<Layer, 'size'>;
const shorter = (l: Sized) => Math.min(l.size.x, l.size.y);

/** A line that new drawn lines begin with. */
export const LINE = 'M 0 12 C 15 -8 25 -8 40 12 S 65 32 80 12';

export function freshOutline(kind: Outline['kind'], l: Sized): Outline {
  if (kind === 'rounded') return { kind, radius: clean(shorter(l) * 0.12) };
  if (kind === 'scalloped') return { kind, lobes: 16 };
  if (kind === 'path') return { kind, d: 'M 0 40 C 0 0 100 0 100 40 L 50 100 Z' };
  if (kind === 'polygon') return { kind, sides: 6 };
  if (kind === 'strokes') return { kind, d: LINE, width: 3 };
  return { kind };
}

export function freshEdge(kind: Edge['kind']): Edge {
  if (kind === 'waney') return { kind, depth: 6, length: 40, seed: 1 };
  if (kind === 'notched') return { kind, count: 24, width: 6, depth: 3 };
  return { kind };
}

export function freshRelief(kind: ReliefOf['kind'], l: Sized, was: ReliefOf): ReliefOf {
  const width = 'width' in was && was.kind !== 'gouge' ? was.width : clean(shorter(l) * 0.08);
  const band = 'band' in was ? was.band : false;
  switch (kind) {
    case 'bevel':
    case 'cove':
    case 'ogee':
    case 'bead':
      return { kind, width, band };
    case 'rope':
    case 'pearls':
      return { kind, width, pitch: width, band: true };
    case 'shell':
      return { kind, ribs: 11 };
    case 'flutes':
    case 'weave':
    case 'ripples':
      return { kind, pitch: 9 };
    case 'gouge':
      return { kind, length: 14, width: 7, seed: 1 };
    case 'vee':
      return { kind, angle: 60 };
    default:
      return { kind };
  }
}

export function freshCopies(kind: Copies['kind'], l: Sized): Copies {
  switch (kind) {
    case 'one':
      return { kind };
    case 'rows':
      return {
        kind,
        columns: 3,
        rows: 1,
        dx: clean(l.size.x * 1.2),
        dy: clean(l.size.y * 1.2),
      };
    case 'ring':
      return { kind, count: 8, radius: clean(1.5 * Math.max(l.size.x, l.size.y)), turning: true };
    case 'path':
      return { kind, count: 5, d: `M ${-2 * l.size.x} 0 Q 0 ${-l.size.y} ${2 * l.size.x} 0`, turning: true };
  }
}

/** The line that words begin with when they run on another kind of one. */
export function freshLine(kind: Words['line']['kind'], l: Sized, board: { x: number }): Words['line'] {
  const { x } = l.size;
  if (kind === 'arc') return { kind, radius: clean(Math.max(x, board.x / 4) * 0.8), under: false };
  if (kind === 'curve') return { kind, d: `M 0 0 C ${clean(x * 0.33)} -20 ${clean(x * 0.66)} 20 ${clean(x)} 0` };
  return { kind };
}
