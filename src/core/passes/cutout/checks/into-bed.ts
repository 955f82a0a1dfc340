import type { Found } from '../../../findings/finding';
import { bedFinding } from '../../bed';
import { aboutPass, type PassDone } from '../../kind';
import type { CutoutFacts } from '../plan';
import type { CutoutPass } from '../schema';

type Done = PassDone<CutoutPass, CutoutFacts>;

/** A cut-out into the machine's bed. */
export function intoBed(d: Done): Found[] {
  if (d.facts.rings.length === 0 || d.pass.depth !== null) return [];
  return bedFinding(d.view, { subject: aboutPass(d), what: 'the cut-out', into: d.pass.into, place: null });
}
