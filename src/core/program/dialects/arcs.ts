import { type Dialect, SPINDLE_WAIT } from './dialect';

/** Arcs, comments in parentheses, no line numbers. */
export const arcs: Dialect = {
  name: 'arcs',
  traits: 'arcs, comments in parentheses',
  arcs: true,
  numbers: 0,
  comment: (text) => `(${text})`,
  decimals: { mm: 3, in: 4 },
  lengthOffset: true,
  wait: SPINDLE_WAIT,
  end: 'M30',
};
