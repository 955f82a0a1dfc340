'use client';
import type { Finding, Fix } from '@/core/findings/finding';
import { labelOf, textOf } from '@/core/findings/texts/text-of';
import { formatDuration } from '@/core/units/length';
import { sayLength, sayNumber } from '@/core/units/say';
import type { Act } from '../controls/act';
import { ActsMenu } from '../controls/acts-menu';
import { useWhatIf } from './use-what-if';

const TONES = { error: 'border-l-accent', warning: 'border-l-warning', note: 'border-l-base-300' } as const;

interface Listed {
  /** The job, and the version that the findings are of; empty while it is not saved. */
  id: string;
  revision: string;
  /** Seconds that the whole job takes as it is; null while that is not known. */
  seconds: number | null;
  onFix(fix: Fix): void;
}

/** A fix as a button; what it costs is worked out while its finding is looked at. */
function FixButton({ fix, looked, id, revision, seconds, onFix }: Listed & { fix: Fix; looked: boolean }) {
  const what = useWhatIf(id, looked && seconds !== null ? fix.edits : null, revision);
  const more =
    what?.seconds !== null && what?.seconds !== undefined && seconds !== null ? what.seconds - seconds : null;
  const cost =
    what?.status === 'planning'
      ? 'being worked out'
      : more === null
        ? null
        : Math.abs(more) < 1
          ? 'takes no longer'
          : `${formatDuration(Math.abs(more))} ${more > 0 ? 'longer' : 'shorter'}`;
  return (
    <span className="flex flex-wrap items-center gap-x-2">
      <button type="button" className="btn btn-sm" onClick={() => onFix(fix)}>
        {labelOf(fix)}
      </button>
      {cost && <span className="soft text-[13px]">{cost}</span>}
    </span>
  );
}

/** Findings with what mends them. */
export function FindingList({
  findings,
  picked,
  onPick,
  acts,
  ...listed
}: Listed & { findings: Finding[]; picked: Finding | null; onPick(f: Finding): void; acts?(f: Finding): Act[] }) {
  return (
    <ul className="space-y-2">
      {findings.map((f) => {
        const { message, remedy } = textOf(f);
        const looked = picked?.id === f.id;
        const row = (
          <li
            key={f.id}
            className={`rounded border border-l-4 border-base-300 ${TONES[f.severity]} ${looked ? 'bg-base-200' : 'bg-(--paper)'}`}
          >
            <button
              type="button"
              onClick={() => onPick(f)}
              aria-pressed={looked}
              className="w-full cursor-pointer px-3 py-2 text-left text-sm"
            >
              <span className="block break-words">
                <b className={f.severity === 'error' ? 'text-accent' : ''}>{f.severity}</b>: {message}
              </span>
              <span className="soft block">{remedy}</span>
              {f.place && (
                <span className="soft block text-[12.5px]">
                  at x {sayNumber(f.place.x, 1)}, y {sayLength(f.place.y, 1)} from the near left corner
                </span>
              )}
            </button>
            {f.fixes.length > 0 && (
              <div className="flex flex-col gap-1.5 px-3 pb-2">
                {f.fixes.map((fix) => (
                  <FixButton key={labelOf(fix)} fix={fix} looked={looked} {...listed} />
                ))}
              </div>
            )}
          </li>
        );
        if (!acts) return row;
        return (
          <ActsMenu key={f.id} label="What can be done with this finding" acts={() => acts(f)}>
            {row}
          </ActsMenu>
        );
      })}
    </ul>
  );
}
