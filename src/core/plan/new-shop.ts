import type { Cutter } from '../cutter/cutter';
import { first, type Library, type LibraryChange, removing } from '../doc/library';
import { fitsCollet } from '../doc/machine';
import { PASS_KINDS } from '../passes/registry';
import { bitFor } from '../passes/with-bit';
import { sayLength } from '../units/say';
import { atHand, newBoardOf } from './at-hand';

/** What a shop of one machine and some bits comes to. */
export interface BegunShop {
  /** Puts the machine first, and takes the bits away that are not owned. */
  change: LibraryChange;
  /** The bits that new boards begin with; null where roughing or finishing has none. */
  begins: { rough: Cutter; finish: Cutter } | null;
  /** Bits that are owned and that no collet of the machine takes. */
  misfits: Cutter[];
  /** What this machine cannot do with these bits, in sentences. */
  cannot: string[];
}

/** What follows from the two answers of a new shop: which machine is worked on, and which bits are owned, by their ids. @throws RangeError where the library has no such machine */
export function shopOf(library: Library, machine: string, bits: string[]): BegunShop {
  const own = library.machines.find((m) => m.id === machine);
  if (!own) throw new RangeError(`the shop has no machine ${machine}`);
  const owned = library.cutters.filter((c) => bits.includes(c.id));
  const fit = owned.filter((c) => fitsCollet(own, c));
  const gone = library.cutters.filter((c) => !bits.includes(c.id)).map((c) => c.id);
  const change = { ...removing('cutters', ...gone), order: first('machines', machine).order };
  const begun = atHand({ machines: [own], cutters: fit }, newBoardOf(library.materials));
  const without = PASS_KINDS.filter((k) => bitFor(k.kind, fit) === null).map((k) => k.name);
  const cannot = [
    `boards longer than ${sayLength(own.x)} or wider than ${sayLength(own.y)} do not lie within its travel`,
    ...(without.length > 0 ? [`none of the bits that fit it suits ${without.join(', ')}`] : []),
    ...(own.toolChanger ? [] : ['it changes no bits by itself: each bit is a program of its own']),
  ];
  return {
    change,
    begins: begun && { rough: begun.rough, finish: begun.finish },
    misfits: owned.filter((c) => !fit.includes(c)),
    cannot,
  };
}
