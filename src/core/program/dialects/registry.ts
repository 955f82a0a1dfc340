import type { DIALECTS } from '../../doc/machine';
import { arcs } from './arcs';
import type { Dialect } from './dialect';
import { lines } from './lines';
import { numbered } from './numbered';

/** The dialects that a machine can name. */
export const DIALECT_OF: Record<(typeof DIALECTS)[number], Dialect> = {
  rs274: arcs,
  'rs274-lines': lines,
  'rs274-numbered': numbered,
};
