'use client';
import type { Finding } from '@/core/findings/finding';
import { formatDuration, trimNumber } from '@/core/units/length';
import type { Editing } from './use-editor';

/** What is going on with the plan, above the board. */
export function Progress({
  state,
  arranging,
  sharp,
  proven,
}: {
  state: Editing;
  arranging: boolean;
  sharp: boolean;
  proven: boolean;
}) {
  const { plan, fresh } = state;
  const running = plan?.status === 'queued' || plan?.status === 'running';
  if (fresh && proven && !running) return null;
  if (arranging && !running && state.saving !== 'refused' && state.saving !== 'offline')
    return sharp ? null : (
      <div className="px-1 text-sm" role="status">
        sharpening
      </div>
    );
  const p = plan?.progress;
  return (
    <div className="flex min-w-0 items-center gap-3 px-1 text-sm" role={running ? undefined : 'status'}>
      {running ? (
        <>
          <progress className="progress progress-primary w-28" value={p?.share ?? 0} max={1} aria-label="planning" />
          <span>
            {/* What is done is announced as it changes; the time that is left ticks too often for that. */}
            <span role="status">{plan?.status === 'queued' ? 'waiting its turn' : (p?.name ?? 'starting')}</span>
            {p && (p.longer ? ', longer than usual' : `, about ${formatDuration(Math.max(1, p.secondsLeft))} left`)}
          </span>
          <button type="button" className="btn btn-sm" onClick={state.editor.cancel}>
            Cancel
          </button>
        </>
      ) : state.saving === 'refused' || state.saving === 'offline' ? (
        <span className="text-accent">not planned: see the card's foot</span>
      ) : plan?.status === 'failed' ? (
        <span className="text-accent">planning failed: {plan.message}</span>
      ) : plan?.status === 'cancelled' ? (
        <span>cancelled; this is the target, not yet proven</span>
      ) : (
        <span>a coarse preview; planning makes it exact</span>
      )}
    </div>
  );
}

export function Footer({
  state,
  stopping,
  onRun,
  onStopping,
  onRunStation,
}: {
  state: Editing;
  /** What in the document stops planning. */
  stopping: Finding[];
  onRun(): void;
  onStopping(): void;
  onRunStation: boolean;
}) {
  const { plan, fresh, saving, problem } = state;
  const running = plan?.status === 'queued' || plan?.status === 'running';
  const done = fresh && plan?.status === 'done';
  const said = { saved: 'saved', waiting: 'changed', saving: 'saving', refused: 'not saved', offline: 'not saved yet' }[
    saving
  ];
  return (
    <div className="border-t border-base-300 px-4 py-3">
      {problem && (
        <p role="alert" className="mb-2 text-sm text-accent">
          {problem}
        </p>
      )}
      {stopping.length > 0 ? (
        <button type="button" className="btn w-full text-accent" onClick={onStopping}>
          {stopping.length === 1 ? 'One thing to mend first' : `${stopping.length} things to mend first`}
        </button>
      ) : done && plan?.older ? (
        <button
          type="button"
          className="btn btn-primary w-full"
          disabled={saving !== 'saved'}
          onClick={state.editor.prove}
        >
          Prove again
        </button>
      ) : done ? (
        !onRunStation && (
          <button type="button" className="btn btn-primary w-full" onClick={onRun}>
            Programs, {plan?.summary ? formatDuration(plan.summary.seconds) : ''}
          </button>
        )
      ) : (
        <button
          type="button"
          className="btn btn-primary w-full"
          disabled={running || saving !== 'saved'}
          onClick={state.editor.prove}
        >
          {running ? `Proving the cut, ${trimNumber((plan?.progress?.share ?? 0) * 100, 0)} %` : 'Prove the cut'}
        </button>
      )}
      <p className="soft mt-1 text-right text-[13px]" role="status">
        {said}
      </p>
    </div>
  );
}
