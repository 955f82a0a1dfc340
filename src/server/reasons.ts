import { textOf } from '../core/findings/texts/text-of';
import { PlanStopped } from '../core/plan/stopped';
import { diskFull, isDiskFull } from './disk';

/** Why a plan has failed, for a person. @param folder of the results, named when its disk is full */
export function reasonOf(e: unknown, folder: string): string {
  if (isDiskFull(e)) return diskFull(folder);
  if (!(e instanceof PlanStopped)) return (e as Error).message;
  const all = e.findings
    .filter((f) => f.stops)
    .map(textOf)
    .map((t) => `${t.message}; ${t.remedy}`);
  return `${all[0]}${all.length > 1 ? ` (and ${all.length - 1} more: ${all.slice(1).join(' | ')})` : ''}`;
}
