import { useMemo, useRef } from 'react';
import { type Estimate, estimate, type Known } from '@/core/plan/estimate';
import { summaryOf } from '@/core/plan/summary';
import { type SetupView, setupView } from '@/core/setup/view';
import type { Editing } from './use-editor';

/** What the last finished plan of a job knows of the time of one setup's passes; null while none is known. */
function useKnown({ plan, line }: Editing, setup: string | null): Known | null {
  const last = useRef<{ setup: string; known: Known } | null>(null);
  const found = useMemo(() => {
    if (setup === null || plan?.status !== 'done' || !plan.summary) return null;
    const summary = summaryOf(plan.summary, setup);
    const document = line.entries.find((e) => e.id === plan.revision)?.document;
    if (!summary || !document) return null;
    return { view: setupView(document, setup), passes: summary.passes, deepest: summary.deepest };
  }, [plan, line, setup]);
  if (found && setup !== null) last.current = { setup, known: found };
  return last.current?.setup === setup ? last.current.known : null;
}

/** The hours of a setup that is not planned as it is now, from its last plan and what has changed; null where they are known, or nothing is. */
export function useHours(state: Editing, job: SetupView | null, planned: boolean): Estimate | null {
  const known = useKnown(state, job?.setup.id ?? null);
  const { trying } = state;
  const last = useRef<Estimate | null>(null);
  const hours = useMemo(
    () => (planned || trying || !known || !job ? null : estimate(known, job)),
    [known, job, planned, trying],
  );
  if (!trying) last.current = hours;
  // While something is dragged they stay as they were.
  return trying ? last.current : hours;
}
