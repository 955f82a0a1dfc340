import { type EyeFigures, OVERLOOKED } from '@/core/proof/eye';
import { sayLength } from '@/core/units/say';

/** How closely the proof looked, and what it may have overlooked: nothing is promised where something is too deep already. */
export function EyeLine({ cell, closer, left, tooDeep }: EyeFigures & { tooDeep: boolean }) {
  const many = (n: number) => `${n.toLocaleString('en')} ${n === 1 ? 'place' : 'places'}`;
  return (
    <p className="soft mt-3 text-sm leading-snug">
      The proof draws the target again on cells of its own, {sayLength(cell, 3)} wide
      {closer > 0 && `, and looked with finer ones at ${many(closer)} where an edge could hide a cut`}.{' '}
      {tooDeep
        ? 'Something is cut too deep already; other places may be too.'
        : left > 0
          ? `At ${many(left)} more it did not: there a cut may be a little deeper than it says. A finer cell shows them.`
          : `What it may overlook lies under ${sayLength(OVERLOOKED, 3)}; walls are known to half a cell.`}
    </p>
  );
}
