import { createHash } from 'node:crypto';
import type { Judged } from '../contract/jobs';
import type { Job } from '../core/doc/job';
import type { GivenProgram } from '../core/plan/given-programs';
import { NotFound } from './errors';
import type { PlanQueue } from './plan-queue';
import type { ResultStore } from './results';

/** How many failures are remembered until they are asked for. */
const REMEMBERED = 100;

/** Programs from files, judged in the place of those that a job's document is planned to. */
export class GivenProofs {
  private readonly failed = new Map<string, string>();

  constructor(
    private readonly results: ResultStore,
    private readonly queue: PlanQueue,
  ) {}

  /** Puts programs in line, or says what is known of them. */
  judge(job: string, document: Job, given: GivenProgram[]): Judged {
    const input = createHash('sha256')
      .update(JSON.stringify([document, given]))
      .digest('hex');
    const key = `given ${input}`;
    this.failed.delete(input);
    if (!this.results.isFresh(input))
      this.queue.add({
        key,
        job,
        document,
        given,
        input,
        rank: 'asked',
        ended: ({ status, message }) => {
          if (status !== 'failed') return;
          this.failed.set(input, message ?? 'they could not be judged');
          for (const [old] of this.failed) if (this.failed.size > REMEMBERED) this.failed.delete(old);
        },
      });
    return this.state(input);
  }

  /** What came of programs that were put in line. @throws NotFound when nothing is known of them (any more) */
  state(input: string): Judged {
    if (!/^[0-9a-f]{64}$/.test(input)) throw new NotFound('there are no such programs');
    const told = { proof: input, share: 0, message: null, files: [], findings: [] };
    const message = this.failed.get(input);
    if (message !== undefined) return { ...told, status: 'failed', message };
    const summary = this.results.isFresh(input) ? this.results.summary(input) : null;
    if (summary) {
      const files = summary.programs.map(({ file, seconds }) => ({ file, seconds }));
      return { ...told, status: 'known', share: 1, files, findings: summary.findings };
    }
    const key = `given ${input}`;
    if (!this.queue.has(key)) throw new NotFound('nothing is known of these programs any more; choose them again');
    return { ...told, status: 'planning', share: this.queue.progressOf(key)?.share ?? 0 };
  }
}
