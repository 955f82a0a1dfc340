import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { dishes, planWhole } from '../core/plan/plan-test-kit';
import { BadRequest, NotFound } from './errors';
import { createJob } from './jobs';
import { openShop, type Shop } from './shop';

// Programs from files as the page sends them: judged in the queue, told when they are asked for.
const folder = mkdtempSync(path.join(tmpdir(), 'zg-given-'));
let shop: Shop;
let id: string;
let files: { file: string; text: string }[];

beforeAll(async () => {
  shop = await openShop(folder);
  const { document } = dishes().face;
  id = (await createJob(shop.db, document)).id;
  files = (await planWhole(document)).summary.programs.map(({ file, text }) => ({ file, text }));
});

afterAll(async () => {
  await shop.plans.close();
  await shop.db.destroy();
  rmSync(folder, { recursive: true, force: true });
});

/** Judges programs, and waits for what comes of it. */
async function judged(given: typeof files) {
  let told = await shop.plans.judge(id, given);
  expect(told.proof).toMatch(/^[0-9a-f]{64}$/);
  while (told.status === 'planning') {
    await new Promise((r) => setTimeout(r, 100));
    told = await shop.plans.judged(told.proof);
  }
  return told;
}

test('programs as they were planned have nothing wrong, an edited one is found at its line, and both are known at once when asked again', async () => {
  const same = await judged(files);
  expect(same.status).toBe('known');
  expect(same.files.map((f) => f.file)).toEqual(files.map((f) => f.file));
  expect(same.findings.filter((f) => f.severity === 'error')).toEqual([]);
  const lines = files[1].text.split('\n');
  const at = lines.findIndex((l, i) => i > 60 && /Z-2\./.test(l));
  lines[at] = lines[at].replace(/Z-2\./, 'Z-4.');
  const edited = files.map((f, i) => (i === 1 ? { ...f, text: lines.join('\n') } : f));
  const wrong = await judged(edited);
  const gouge = wrong.findings.find((f) => f.rule === 'gouge');
  expect(gouge?.subject.file).toBe(files[1].file);
  expect(Math.abs(gouge!.subject.line! - at - 1)).toBeLessThanOrEqual(1);
  expect((await shop.plans.judge(id, edited)).status).toBe('known');
});

test('what cannot be followed is told with its line; what was never given is not known; a file twice is refused', async () => {
  const broken = await judged([{ file: 'mine.nc', text: 'G21\nG5 X1 Y1\n' }]);
  expect(broken).toMatchObject({ status: 'failed', findings: [] });
  expect(broken.message).toContain('mine.nc, line 2: G5');
  for (const proof of ['0'.repeat(64), '../plans', ''])
    await expect(shop.plans.judged(proof)).rejects.toBeInstanceOf(NotFound);
  await expect(shop.plans.judge(id, [files[0], files[0]])).rejects.toBeInstanceOf(BadRequest);
});
