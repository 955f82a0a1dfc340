import type { Found } from '../../findings/finding';
import type { Job } from '../job';
import { problem } from './problem';

/** One file for all bits where the machine does not change them by itself. */
export function oneFile(job: Job): Found[] {
  if (!job.output.oneFile || job.machine.toolChanger) return [];
  return [
    problem(
      'one-file',
      ['output', 'oneFile'],
      { machine: job.machine.name },
      { fixes: [{ id: 'file-each', figures: {}, edits: [{ set: ['output', 'oneFile'], to: false }] }] },
    ),
  ];
}
