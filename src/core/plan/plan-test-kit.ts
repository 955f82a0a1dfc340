import { localHost } from '../kernels/host';
import type { Job } from './job';
import { type Plan, planJob } from './pipeline';

/** Plans a job made of shapes alone in this thread, with nothing stored: for tests. */
export function planShapes(job: Job): Promise<Plan> {
  return planJob(job, async () => ({ content: {}, facts: { depth: 0, step: 0, missing: [] } }), {
    host: localHost,
    progress() {},
    stage: async (_, input, run) => ({ key: JSON.stringify(input).slice(0, 5000), result: await run() }),
  });
}

/** What the proof and the geometry hold to be wrong: rule and message. */
export const errorsOf = (p: Plan) =>
  p.summary.findings.filter((f) => f.severity === 'error').map((f) => `${f.rule}: ${f.message}`);
