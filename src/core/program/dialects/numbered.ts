import { type Dialect, SPINDLE_WAIT } from './dialect';

/** Every line numbered by tens, arcs, comments in parentheses, and M2 at the end, for older controllers. */
export const numbered: Dialect = {
  name: 'numbered lines',
  traits: 'arcs, numbered lines, ends with M2',
  arcs: true,
  numbers: 10,
  comment: (text) => `(${text})`,
  decimals: { mm: 3, in: 4 },
  lengthOffset: true,
  wait: SPINDLE_WAIT,
  end: 'M2',
};
