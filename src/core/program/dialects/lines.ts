import { type Dialect, SPINDLE_WAIT } from './dialect';

/** Straight lines only and comments after a semicolon, for small controllers. */
export const lines: Dialect = {
  name: 'straight lines',
  traits: 'straight lines only, comments after a semicolon',
  arcs: false,
  numbers: 0,
  comment: (text) => `; ${text}`,
  decimals: { mm: 3, in: 4 },
  lengthOffset: true,
  wait: SPINDLE_WAIT,
  end: 'M30',
};
