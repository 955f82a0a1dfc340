import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from 'vitest';
import { type Job, jobSchema } from '../src/core/doc/job';
import { localHost } from '../src/core/kernels/host';
import { planJob } from '../src/core/plan/pipeline';
import { contentLoader } from '../src/server/content';
import { demoJobs } from './shop';

/**
 * SHA-256 of every program without its comment lines: a job that has not changed gives the programs that it gave. A hash changes only
 * with a fault or a gain that is named beside it.
 */
const PROGRAMS: Record<string, string[]> = JSON.parse(
  readFileSync(path.join(import.meta.dirname, 'programs.sha256.json'), 'utf8'),
);

/** Coarse, so that all of them are planned in a minute; what they are planned by is the same at any cell. */
const CELL = 0.3;

const withoutComments = (text: string) =>
  text
    .split('\n')
    .filter((l) => !l.startsWith('('))
    .join('\n');

async function programsOf(job: Job, load: Parameters<typeof planJob>[1]): Promise<string[]> {
  const plan = await planJob(job, load, {
    host: localHost,
    progress() {},
    stage: async (_, input, run) => ({ key: JSON.stringify(input), result: await run() }),
  });
  return plan.summary.programs.map((p) => createHash('sha256').update(withoutComments(p.text)).digest('hex'));
}

describe('the same job gives the same programs', () => {
  const folder = path.resolve(import.meta.dirname, '../src/core/doc/upgrade/fixtures');
  for (const file of readdirSync(folder).filter((f) => f.startsWith('v2-'))) {
    test(file, async () => {
      const job = jobSchema.parse(JSON.parse(readFileSync(path.join(folder, file), 'utf8')));
      expect(
        await programsOf(
          job,
          contentLoader(() => new Uint8Array(0)),
        ),
      ).toEqual(PROGRAMS[file]);
    });
  }

  test('the sample shop', async () => {
    for (const { job, files } of await demoJobs()) {
      const load = contentLoader((h) => files.get(h)!.bytes);
      expect(await programsOf({ ...job, cell: CELL }, load), job.order).toEqual(PROGRAMS[job.order]);
    }
  });
});
