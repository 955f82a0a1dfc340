import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect } from 'vitest';
import type { Job } from '../src/core/doc/job';
import { localHost } from '../src/core/kernels/host';
import { planJob } from '../src/core/plan/pipeline';
import type { Plan } from '../src/core/plan/summary';
import { oneThread } from '../src/core/plan/threads';
import { contentLoader } from '../src/server/content';
import { type DemoOrder, demoJobOf } from './shop';

/**
 * SHA-256 of every program without its comment lines: a job that has not changed gives the programs that it gave. A hash changes only
 * with a fault or a gain that is named beside it.
 */
const PROGRAMS: Record<string, string[]> = JSON.parse(
  readFileSync(path.join(import.meta.dirname, 'programs.sha256.json'), 'utf8'),
);

/** Coarse, so that they are soon planned; what they are planned by is the same at any cell. */
const CELL = 0.5;

const withoutComments = (text: string) =>
  text
    .split('\n')
    .filter((l) => !l.startsWith('('))
    .join('\n');

/**
 * What bits do on the way that they may not, as rule and kind of pass: the passes make these cuts still, and no rule is loosened for them.
 * A line goes when the passes no longer make it.
 */
const KNOWN: Record<string, string[]> = JSON.parse(
  readFileSync(path.join(import.meta.dirname, 'known-harm.json'), 'utf8'),
);
const HARM = ['bite', 'chip-area', 'load', 'plunge-deep', 'plunge-fast'];

function harmOf({ summary }: Plan, job: Job): string[] {
  const passes = job.boards.flatMap((b) => b.setups.flatMap((s) => s.passes));
  const kinds = (file: string) =>
    (summary.programs.find((p) => p.file === file)?.passes ?? []).map((id) => passes.find((p) => p.id === id)?.kind);
  const told = summary.findings.flatMap((f) =>
    HARM.includes(f.rule) ? [`${f.rule}: ${[...new Set(kinds(f.subject.file ?? ''))].join(', ')}`] : [],
  );
  return [...new Set(told)].sort();
}

/** Plans a job, and finds its programs and what its bits do to be those that are written down under a name. */
export async function expectWritten(name: string, job: Job, load: Parameters<typeof planJob>[1]): Promise<void> {
  const plan = await planJob(job, load, {
    host: localHost,
    threads: oneThread,
    progress() {},
    stage: async (_, input, run) => ({ key: JSON.stringify(input), result: await run() }),
  });
  const programs = plan.summary.programs.map((p) => createHash('sha256').update(withoutComments(p.text)).digest('hex'));
  expect(programs).toEqual(PROGRAMS[name]);
  expect(harmOf(plan, job)).toEqual(KNOWN[name]);
}

/** A job of the sample shop on the coarse cell. */
export async function expectSample(order: DemoOrder): Promise<void> {
  const { job, files } = await demoJobOf(order);
  await expectWritten(
    order,
    { ...job, cell: CELL },
    contentLoader((h) => files.get(h)!.bytes),
  );
}
