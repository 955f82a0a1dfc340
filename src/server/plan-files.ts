import { type JobSummary, jobSummary } from '../contract/wire';
import { packStage } from '../core/plan/pack';
import type { Plan } from '../core/plan/summary';
import { transferableView, transferableWays } from '../core/plan/view';
import type { NewResult } from './results';

/** The files of a result: programs, summary, and the surfaces of every setup, for the page and in full. */
export function planFiles(plan: Plan, stageSeconds: Record<string, number>): NewResult['files'] {
  const text = (t: string) => [new TextEncoder().encode(t)];
  const { programs, ...rest } = plan.summary;
  const written = programs.map(({ text: t, ...p }) => ({ ...p, bytes: t.length }));
  const summary = JSON.stringify({ ...rest, stageSeconds, programs: written } satisfies JobSummary);
  // A figure that JSON cannot hold fails the plan here, and not whoever opens its result.
  jobSummary.parse(JSON.parse(summary));
  return [
    ...programs.map((p, i) => ({ name: `program-${i}.nc`, parts: text(p.text) })),
    { name: 'summary.json', parts: text(summary) },
    ...plan.surfaces.flatMap((s, i) => {
      const { packed, full } = transferableView(s);
      return [
        { name: `view-${i}.bin`, parts: packStage(packed) },
        { name: `full-${i}.bin`, parts: packStage(full) },
        { name: `ways-${i}.bin`, parts: packStage(transferableWays(s)) },
      ];
    }),
  ];
}
