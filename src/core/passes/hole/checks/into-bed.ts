import type { Found } from '../../../findings/finding';
import { bedFinding } from '../../bed';
import { aboutPass, type PassDone } from '../../kind';
import { holeBottom } from '../plan';
import type { HolePass } from '../schema';

/** Holes into the machine's bed. */
export function intoBed(d: PassDone<HolePass, unknown>): Found[] {
  const { board } = d.view;
  if (-holeBottom(d.pass, board.thickness) < board.thickness) return [];
  return bedFinding(d.view, { subject: aboutPass(d), what: 'holes', into: d.pass.into, place: d.pass.places[0] });
}
