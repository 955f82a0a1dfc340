import type { Summary } from '@/contract/wire';
import { applyEdits } from '@/core/doc/edits';
import type { Setup } from '@/core/doc/setup';
import { otherSideFirst } from '@/core/plan/other-first';
import { MOST_SPAN } from '@/core/proof/checks/rests-hollow';
import { type Rests, strainOf } from '@/core/proof/rests';
import { sayLength } from '@/core/units/say';
import type { SetupProps } from './setup-props';

/** One way is better than the other where the board spans this many times as much of its thickness in that (common practice, no source). */
const CLEARLY = 1.5;
/** Where it spans less than so many times its thickness it lies firmly either way: half of what is told. */
const FIRMLY = MOST_SPAN / 2;

const lies = (r: Rests | null): string =>
  r === null
    ? 'flat on all of its ground'
    : `on ${Math.round(100 * r.share)} % of its ground, and spans ${sayLength(r.span, 0)} over nothing with ${sayLength(r.wood, 1)} of wood`;

/** What the board lies on once it is turned over, as against the other way round. */
function Weighed({ first, second, summary }: { first: Setup; second: Setup; summary: Summary }) {
  const { turned, otherFirst } = summary;
  const [now, other] = [strainOf(turned), strainOf(otherFirst)];
  return (
    <p className="soft py-1 text-[13px] leading-snug">
      {first.name} is cut first: in {second.name} the board then lies {lies(turned)}. The other way round it would lie{' '}
      {lies(otherFirst)} in {first.name}.{' '}
      {Math.max(now, other) < FIRMLY ? (
        'It lies firmly both ways: cut first what may be touched by the table.'
      ) : now > CLEARLY * other ? (
        <span className="text-accent">{second.name} is better cut first: the board lies more firmly then.</span>
      ) : other > CLEARLY * now ? (
        'This order is the firmer one.'
      ) : (
        'Both orders hold it about as firmly: cut first what may be touched by the table.'
      )}
    </p>
  );
}

/** Which side is cut first, why, and the press that turns the order round. */
export function FaceFirst({ job, summary, change }: Pick<SetupProps, 'job' | 'change'> & { summary: Summary | null }) {
  const { setups } = job.board;
  const first = setups[0];
  const second = setups.find((s) => s.up !== first?.up);
  if (!second) return null;
  const edits = otherSideFirst(job);
  return (
    <>
      {summary && <Weighed {...{ first, second, summary }} />}
      {edits && (
        <button
          type="button"
          className="btn btn-sm my-1 w-full"
          title="dowels, the way in which the board finds its place, and the cut-out go along"
          onClick={() => change((j) => applyEdits(j.document, edits))}
        >
          Cut {second.name} first
        </button>
      )}
    </>
  );
}
