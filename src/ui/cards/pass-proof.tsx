import type { Summary } from '@/contract/wire';
import type { Cutter } from '@/core/cutter/cutter';
import { trimNumber } from '@/core/units/length';
import { sayLength, sayNumber } from '@/core/units/say';
import { isOver } from './program-figures';

/** How often a pass goes into the wood, by how, in a few words. @param most how deep its bit may go straight down into wood, mm */
function entriesWords({ ramp = 0, helix = 0, plunge = 0 }: Summary['passes'][number]['entries'], most: number): string {
  const parts: string[] = [];
  if (ramp > 0) parts.push(ramp === 1 ? '1 ramp' : `${ramp} ramps`);
  if (helix > 0) parts.push(helix === 1 ? '1 helix' : `${helix} helices`);
  if (plunge > 0) {
    const into = most > 0 ? `in air and up to ${sayLength(most, 1)} of wood` : 'in air';
    parts.push(`${plunge === 1 ? 'once' : `${plunge} times`} straight down, as planned ${into}`);
  }
  return parts.join(', ') || 'from the side';
}

/** What the proof saw of a pass: its deepest bite and where, its way in air, and how it goes into the wood. */
export function PassProof({ summary, id, cutter }: { summary: Summary; id: string; cutter: Cutter }) {
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
              <b>{sayNumber(bite.deep, 1)}</b> of {sayLength(bite.most, 1)}
            </span>{' '}
            at {sayNumber(bite.x, 0)}, {sayLength(bite.y, 0)}
            <span className="soft"> · line {bite.line}</span>
          </>
        ) : (
          'straight down only'
        )}
      </dd>
      <dt className="soft">In air</dt>
      <dd>{trimNumber(air * 100, 0)} % of its path at feed</dd>
      <dt className="soft">Entries</dt>
      <dd>{entriesWords(planned.entries, cutter.maxPlungeDepth)}</dd>
    </dl>
  );
}
