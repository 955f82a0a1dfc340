import { Pause } from 'lucide-react';
import { isReserve, type Pass } from '@/core/doc/pass';
import { formatDuration } from '@/core/units/length';
import { Tick } from '../controls/fields';
import type { Edited } from './kind-card';

/** Says of a pass in reserve that it is, and what that means at the machine. */
export function InReserve({ pass, seconds }: { pass: Pass; seconds: number | undefined }) {
  if (!isReserve(pass)) return null;
  return (
    <p className="my-2 rounded-lg border border-(--wood-line) border-dashed px-3 py-2 text-sm leading-snug">
      <Pause size={14} className="mr-1 inline" aria-hidden />
      <b>In reserve.</b> It has a program of its own
      {seconds !== undefined && ` of ${formatDuration(seconds)}, which no time of the job counts`}. What comes after it
      does without it; the board is proven both ways.
    </p>
  );
}

/** Keeps a pass in reserve, or has it cut as a matter of course; passes that work over no area cannot wait. */
export function ReserveTick({ pass, set }: Pick<Edited, 'pass' | 'set'>) {
  if (!('reserve' in pass)) return null;
  return (
    <Tick
      label="Keep in reserve"
      value={pass.reserve}
      onChange={(v) =>
        set((p) => {
          if ('reserve' in p) p.reserve = v;
        })
      }
      note="cut only if it is wanted, as when the finishing bit labours"
    />
  );
}
