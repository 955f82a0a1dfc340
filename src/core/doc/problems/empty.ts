import type { Found } from '../../findings/finding';
import { type Job, setupsOf } from '../job';
import { problem } from './problem';

/** A job without a board, a setup or a pass: nothing is there to be planned. */
export function empty(job: Job): Found[] {
  if (setupsOf(job).length === 0) return [problem('no-setup', ['boards'], {})];
  return setupsOf(job).every((p) => p.setup.passes.length === 0)
    ? [problem('no-pass', ['boards', 0, 'setups', 0, 'passes'], {})]
    : [];
}
