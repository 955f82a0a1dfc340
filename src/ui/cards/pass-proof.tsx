import type { Summary } from '@/contract/wire';
import { formatLength, trimNumber } from '@/core/units/length';
import { isOver } from './program-figures';

const TOLD = { plunge: ['once straight down', 'straight down'], ramp: ['ramp', 'ramps'], helix: ['helix', 'helices'] };

/** How often a pass goes into the wood, by how, in a few words. */
function entriesWords(entries: Summary['passes'][number]['entries']): string {
  const parts = (Object.keys(TOLD) as (keyof typeof TOLD)[]).flatMap((kind) => {
    const n = entries[kind] ?? 0;
    if (n === 0) return [];
    const [one, many] = TOLD[kind];
    if (kind === 'plunge') return [n === 1 ? one : `${n} times ${many}`];
    return [`${n} ${n === 1 ? one : many}`];
  });
  return parts.join(', ') || 'from the side';
}

/** What the proof saw of a pass: its deepest bite and where, its way in air, and how it goes into the wood. */
export function PassProof({ summary, id }: { summary: Summary; id: string }) {
  const program = summary.programs.find((p) => p.byPass.some((f) => f.pass === id));
  const seen = program?.byPass.find((f) => f.pass === id);
  const planned = summary.passes.find((p) => p.id === id);
  if (!program || !seen || !planned) return null;
  const { bite, air } = seen;
  return (
    <dl
      aria-label="This pass as proven"
      className="mt-3 grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-[13px] leading-snug"
    >
      <dt className="soft">Deepest bite</dt>
      <dd>
        {bite ? (
          <>
            <span className={isOver(bite) ? 'text-accent' : ''}>
              <b>{trimNumber(bite.deep, 1)}</b> of {formatLength(bite.most, 'mm', 1)}
            </span>{' '}
            at {trimNumber(bite.x, 0)}, {formatLength(bite.y, 'mm', 0)}
            <span className="soft"> · line {bite.line}</span>
          </>
        ) : (
          'straight down only'
        )}
      </dd>
      <dt className="soft">In air</dt>
      <dd>{trimNumber(air * 100, 0)} % of its way at feed</dd>
      <dt className="soft">Goes in</dt>
      <dd>{entriesWords(planned.entries)}</dd>
    </dl>
  );
}
