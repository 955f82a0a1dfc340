import { LINE } from '@/core/arrange/fresh';
import type { TurnedForm } from '@/core/arrange/kinds/turned/schema';
import type { ReliefOf } from '@/core/doc/relief-of';
import type { Edge, Outline } from '@/core/outline/shapes';

/** A shape that can be added: its name, outline and form, how much of the board it takes, and how its edge is worked. */
export type Entry = [name: string, outline: Outline, relief: ReliefOf, share: number, edge?: Edge];

export const SHAPES: Entry[] = [
  ['Panel', { kind: 'rounded', radius: 12 }, { kind: 'ogee', width: 12, band: false }, 0.9],
  ['Rectangle', { kind: 'rectangle' }, { kind: 'flat' }, 0.6],
  ['Oval', { kind: 'oval' }, { kind: 'flat' }, 0.6],
  ['Circle', { kind: 'circle' }, { kind: 'flat' }, 0.6],
  ['Arch', { kind: 'arch' }, { kind: 'flat' }, 0.6],
  ['Scalloped round', { kind: 'scalloped', lobes: 16 }, { kind: 'flat' }, 0.7],
  ['Cartouche', { kind: 'cartouche' }, { kind: 'bead', width: 5, band: false }, 0.6],
  ['Waney board', { kind: 'rectangle' }, { kind: 'flat' }, 0.9, { kind: 'waney', depth: 6, length: 40, seed: 1 }],
  ['Notched round', { kind: 'circle' }, { kind: 'flat' }, 0.7, { kind: 'notched', count: 24, width: 6, depth: 3 }],
  ['Hexagon', { kind: 'polygon', sides: 6 }, { kind: 'flat' }, 0.6],
  ['Drawn lines', { kind: 'strokes', d: LINE, width: 3 }, { kind: 'flat' }, 0.5],
  ['Drawn outline', { kind: 'path', d: 'M 0 40 C 0 0 100 0 100 40 L 50 100 Z' }, { kind: 'flat' }, 0.5],
];

export const FORMS: Entry[] = [
  ['Dish', { kind: 'circle' }, { kind: 'dish' }, 0.5],
  ['Dome', { kind: 'oval' }, { kind: 'dome' }, 0.4],
  ['Ogee border', { kind: 'rounded', radius: 12 }, { kind: 'ogee', width: 10, band: true }, 0.9],
  ['Cove border', { kind: 'rounded', radius: 12 }, { kind: 'cove', width: 8, band: true }, 0.9],
  ['Bead border', { kind: 'rounded', radius: 12 }, { kind: 'bead', width: 6, band: true }, 0.85],
  ['Rope border', { kind: 'rounded', radius: 12 }, { kind: 'rope', width: 7, pitch: 8, band: true }, 0.8],
  ['Pearl border', { kind: 'rounded', radius: 12 }, { kind: 'pearls', width: 6, pitch: 7, band: true }, 0.8],
  ['Shell', { kind: 'oval' }, { kind: 'shell', ribs: 11 }, 0.4],
  ['Flutes', { kind: 'rectangle' }, { kind: 'flutes', pitch: 9 }, 0.5],
  ['Basket weave', { kind: 'rectangle' }, { kind: 'weave', pitch: 10 }, 0.6],
  ['Gouge marks', { kind: 'rectangle' }, { kind: 'gouge', length: 14, width: 7, seed: 1 }, 0.7],
  ['Ripples', { kind: 'circle' }, { kind: 'ripples', pitch: 9 }, 0.6],
];

/** Turned forms that a drum can be given, by the names that turners use. */
export const TURNED: [name: string, form: TurnedForm['kind']][] = [
  ['Contour', 'contour'],
  ['Tenon', 'cylinder'],
  ['Beads', 'beads'],
  ['Flutes', 'flutes'],
  ['Knurl', 'knurl'],
  ['Flat', 'flat'],
];
