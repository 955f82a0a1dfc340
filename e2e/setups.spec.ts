import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { allWrong, dishes } from '../src/core/plan/plan-test-kit';
import { problems } from '../src/core/plan/problems';
import { openDatabase } from '../src/server/database';
import { enter, jobOf, putJob, saved } from './board';
import { BASE, TestServer } from './server';
import { expect, test } from './test';

const server = new TestServer();
test.beforeAll(async () => {
  await server.start();
});
test.afterAll(async () => {
  await server.close();
});

test('a board of two setups: each is shown and changed by itself, both are proven in one solid, an older proof is told', async ({
  page,
}) => {
  const { face } = dishes();
  face.cell = 0.2;
  const id = await putJob(face);
  await page.goto(`/jobs/${id}`);
  const back = page.getByRole('button', { name: '2 Back' });
  await expect(page.getByRole('button', { name: '1 Face' })).toHaveAttribute('aria-pressed', 'true');
  await back.click();
  await expect(back).toHaveAttribute('aria-pressed', 'true');
  // What is changed on the back leaves the face as it is.
  await page.getByRole('button', { name: /^Board / }).click();
  await page.getByText('Heights over the board').click();
  await enter(page, 'Over everything', '9');
  await saved(page);
  const { setups } = (await jobOf(id)).board;
  expect(setups.map((s) => s.heights.everything)).toEqual([5, 9]);
  await page.getByRole('button', { name: /^Proof / }).click();
  await expect(page.getByText(/^Cut from the programs as written/)).toBeVisible({ timeout: 300_000 });
  await expect(page.getByText('4.5 mm').first()).toBeVisible();

  // As if the program had been renewed since.
  const plans = path.join(server.data, 'plans');
  for (const result of readdirSync(plans)) {
    const file = path.join(plans, result, 'envelope.json');
    writeFileSync(file, JSON.stringify({ ...JSON.parse(readFileSync(file, 'utf8')), planner: 'an older one' }));
  }
  await page.reload();
  await page.getByRole('button', { name: /^Proof / }).click();
  await expect(page.getByText(/^Proven by an older version of this program/)).toBeVisible();
  const rack = (await (await fetch(`${BASE}/api/jobs`)).json()) as { id: string; plan: { id: string } }[];
  const plan = rack.find((j) => j.id === id)!.plan.id;
  const status = async (asked: string) => (await fetch(`${BASE}/api/plans/${plan}/programs/0${asked}`)).status;
  const programs = [await status(''), await status('?older=yes')];
  expect(programs).toEqual([409, 200]);
  await page.getByRole('button', { name: 'Prove again', exact: true }).click();
  await expect(page.getByText('Proven again: the programs are the same as before.')).toBeVisible({ timeout: 300_000 });
});

test('a document with faults opens and lists them; a press mends one, undo brings it back, and a reload keeps it', async ({
  page,
}) => {
  const { face } = dishes();
  face.passes[0].cutter = 'lent';
  face.output.oneFile = true;
  const id = await putJob(face);
  await page.goto(`/jobs/${id}`);
  await page.getByRole('button', { name: /^Proof / }).click();
  await expect(page.getByText('2 things stop planning.')).toBeVisible();
  await expect(page.getByText(/the bit "lent" is not among the job's bits/)).toBeVisible();
  await page.getByRole('button', { name: 'Write a file for each bit', exact: true }).click();
  await expect(page.getByText('One thing stops planning.')).toBeVisible();
  await saved(page);
  await page.reload();
  await page.getByRole('button', { name: /^Proof / }).click();
  await expect(page.getByText('One thing stops planning.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('2 things stop planning.')).toBeVisible();
  await page.getByRole('button', { name: 'Redo' }).click();
  await page.getByRole('button', { name: /^Use end mill/i }).click();
  await expect(page.getByText(/^Cut from the programs as written|^Do not cut this yet/)).toBeVisible({
    timeout: 300_000,
  });
});

test('a program dropped on Proof is judged: one that cuts too deep by its line, one that cannot be followed by its sentence', async ({
  page,
}) => {
  const id = await putJob(dishes().face);
  await page.goto(`/jobs/${id}`);
  await page.getByRole('button', { name: /^Proof / }).click();
  const given = page.getByRole('region', { name: 'Programs from files' });
  await expect(given).toBeVisible({ timeout: 300_000 });
  const head = 'G21\nG17 G90 G94 G54\nG0 Z5\nS16000 M3\nG4 P3\nG0 X0 Y0\n';
  const text = `${head}G1 Z-9 F300\nX5 F1800\nG0 Z5\nM5\nM30\n`;
  const choose = given.getByLabel('Choose programs');
  await choose.setInputFiles({ name: 'mine.nc', mimeType: 'text/plain', buffer: Buffer.from(text) });
  await expect(given.getByText(/^mine\.nc: do not cut it, \d+ things are wrong/)).toBeVisible({ timeout: 300_000 });
  await expect(given.getByText(/mine\.nc, line [78]/).first()).toBeVisible();
  await choose.setInputFiles({ name: 'mine.nc', mimeType: 'text/plain', buffer: Buffer.from(`${head}G5 X1\n`) });
  await expect(given.getByText('mine.nc, line 7: G5 is not followed by this reader')).toBeVisible({ timeout: 300_000 });
});

test('a document with everything wrong opens at every station, and lists it all', async ({ page }) => {
  const document = allWrong();
  const id = await putJob({ document });
  await page.goto(`/jobs/${id}`);
  for (const station of ['Arrange', 'Passes', 'Run', 'Proof'])
    await page.getByRole('button', { name: new RegExp(`^${station} `) }).click();
  const stopping = problems(document).filter((f) => f.stops).length;
  await expect(page.getByText(`${stopping} things stop planning.`)).toBeVisible();
  for (const said of [
    'ramp angle of pass',
    'is there twice',
    'needs a tool changer',
    'must not be skimmed off',
    'missing',
  ])
    await expect(page.getByText(said).first()).toBeVisible();
});

test('a job that cannot be read stands on the rack with its reason, and its document goes out as it is', async ({
  page,
}) => {
  const id = await putJob(dishes().face);
  const text = '{"version": 3, "name": "Half a plaque", "order": "", "boards": 7}';
  const db = await openDatabase(server.data);
  const { head } = await db.selectFrom('jobs').select('head').where('id', '=', id).executeTakeFirstOrThrow();
  await db.updateTable('revisions').set({ document: text }).where('id', '=', head!).execute();
  await db.destroy();
  await page.goto('/');
  const entry = page.getByRole('listitem').filter({ hasText: 'Half a plaque' });
  await expect(entry).toContainText('boards is 7');
  await expect(page.getByRole('link', { name: /Dishes/ }).first()).toBeVisible();
  expect(await (await fetch(`${BASE}/api/jobs/${id}/raw`)).text()).toBe(text);
});
