'use client';
import { useState } from 'react';
import type { SurfaceFacts } from '@/core/arrange/compose';
import { fitWhole, ledgerOf, pressTo, proposedDepth } from '@/core/arrange/ledger';
import type { SetupView } from '@/core/setup/view';
import { sayLength } from '@/core/units/say';
import { Choice, Folded, LengthField } from '../controls/fields';

/** Brings what is arranged to a depth: all of it, or only what lies beyond a height. */
export function FitToDepth({
  job,
  facts,
  change,
}: {
  job: SetupView;
  facts: SurfaceFacts;
  change(edit: (j: SetupView) => void): void;
}) {
  const l = ledgerOf(job.layers, job.seat, job.board.thickness, facts);
  const [how, setHow] = useState<'all' | 'high'>('all');
  const [wanted, setWanted] = useState<number | null>(null);
  const [above, setAbove] = useState<number | null>(null);
  const [error, setError] = useState<string | null>(null);
  const goal = wanted ?? proposedDepth(l.depth, job.board.thickness, job.seat.skin);
  const knee = above ?? Number((l.depth / 2).toFixed(2));
  const high = job.seat.mode === 'sunk' ? 'deep' : 'high';
  const fit = () => {
    try {
      setError(null);
      if (how === 'all') change((j) => fitWhole(j.layers, j.seat, l.depth, goal));
      else {
        const press = pressTo(l.depth, goal, knee);
        change((j) => (j.seat.press = press));
      }
    } catch (e) {
      setError((e as Error).message);
    }
  };
  return (
    <Folded title="Fit to depth">
      <LengthField label="Depth wanted" value={goal} min={0} open max={500} onChange={setWanted} />
      <Choice<'all' | 'high'>
        label="How"
        value={how}
        options={[
          ['all', 'scale everything'],
          ['high', `press only the ${high} part`],
        ]}
        onChange={setHow}
      />
      {how === 'high' && <LengthField label="Unchanged up to" value={knee} min={0} max={500} onChange={setAbove} />}
      <button type="button" className="btn btn-sm my-1 w-full" disabled={l.depth <= 0} onClick={fit}>
        Fit {sayLength(l.depth)} to {sayLength(goal)}
      </button>
      {job.seat.press && (
        <button type="button" className="btn btn-sm my-1 w-full" onClick={() => change((j) => (j.seat.press = null))}>
          Let the pressed part out again
        </button>
      )}
      {error && (
        <p role="alert" className="text-[13px] text-accent">
          {error}
        </p>
      )}
    </Folded>
  );
}
