import { inSetup } from '../../doc/edits';
import type { Fix, Found } from '../../findings/finding';
import { crossings } from '../../outline/polygon';
import { heldUnder, tapeUnder } from '../../setup/holding';
import type { Held, LoosePiece } from '../holds';
import type { AfterProgram, Rule } from './rule';

/** Pieces whose places are so near are the same one, mm. */
const SAME = 1;

const same = (a: LoosePiece) => (b: LoosePiece) => Math.hypot(a.x - b.x, a.y - b.y) < SAME;

/** Whether a place lies within a cut-out. */
function isWithin({ rings }: { rings: number[][] }, { x, y }: LoosePiece): boolean {
  const own = rings.map((r) => Float64Array.from(r));
  return crossings(own, y).filter((at) => at <= x).length % 2 === 1;
}

/** Whether a place lies within a cut-out that has no tabs: that its piece comes loose is told by itself. */
const withoutTabs = ({ cutouts }: AfterProgram, p: LoosePiece): boolean =>
  cutouts.some((c) => c.tabs.length === 0 && isWithin(c, p));

/** The setup before on whose tabs a piece hung until now; none where it hung on none. */
const hungOn = ({ earlier }: AfterProgram, p: LoosePiece): string =>
  earlier.find((c) => c.tabs.length > 0 && isWithin(c, p))?.setup ?? '';

/** Tape under the board, which a person confirms by taking the fix. */
function fixes({ view }: AfterProgram): Fix[] {
  const tape = tapeUnder('tape', view.board);
  return [
    {
      id: 'hold-by-tape',
      figures: {},
      edits: [{ insert: inSetup(view, 'holding'), at: view.setup.holding.length, value: tape }],
    },
  ];
}

/** Pieces that no program before has left so already, each as a finding of this one; none where the whole board is held from below. */
function told<P extends LoosePiece>(
  at: AfterProgram,
  piecesOf: (h: Held) => P[],
  say: (p: P) => Pick<Found, 'rule' | 'severity' | 'figures'> | null,
): Found[] {
  const { view, program, held } = at;
  if (heldUnder(view.setup.holding)) return [];
  const had = held.slice(0, -1).flatMap(piecesOf);
  return held
    .slice(-1)
    .flatMap(piecesOf)
    .flatMap((p) => {
      const said = had.some(same(p)) ? null : say(p);
      const subject = { setup: view.setup.id, file: program.file };
      return said ? [{ ...said, subject, place: { x: p.x, y: p.y }, fixes: fixes(at) }] : [];
    });
}

/** Pieces that a program leaves joined to nothing that is held, and that its bit then throws. */
export const loose: Rule = {
  id: 'loose',
  program: (at) =>
    told(
      at,
      (h) => h.loose,
      (p) =>
        withoutTabs(at, p)
          ? null
          : { rule: 'loose', severity: 'error', figures: { area: p.area, tabs: hungOn(at, p) } },
    ),
};

/** Pieces that a program leaves hanging on frail wood. */
export const heldHardly: Rule = {
  id: 'held-hardly',
  program: (at) =>
    told(
      at,
      (h) => h.weak,
      ({ area, neck, section }) => ({ rule: 'held-hardly', severity: 'warning', figures: { area, neck, section } }),
    ),
};
