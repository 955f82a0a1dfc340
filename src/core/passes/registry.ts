import type { Pass, PassKindName } from '../doc/pass';
import { cutout } from './cutout/kind';
import { finish } from './finish/kind';
import { flat } from './flat/kind';
import { hang } from './hang/kind';
import { hole } from './hole/kind';
import type { PassKind } from './kind';
import { letter } from './letter/kind';
import { part } from './part/kind';
import { pocket } from './pocket/kind';
import { rough } from './rough/kind';
import { skim } from './skim/kind';
import { turn } from './turn/kind';

/** All kinds of passes; a new one has a line here and one in doc/pass.ts. */
const KINDS = [skim, turn, rough, flat, finish, letter, pocket, hang, hole, cutout, part];

const byName = new Map(KINDS.map((k) => [k.kind as PassKindName, k as unknown as PassKind]));

/** All kinds, in the order of work. */
export const PASS_KINDS: PassKind[] = [...byName.values()].sort((a, b) => a.rank - b.rank);

/** What is known of a kind of pass. */
export function kindOf(p: Pick<Pass, 'kind'> | PassKindName): PassKind {
  return byName.get(typeof p === 'string' ? p : p.kind) as PassKind;
}
