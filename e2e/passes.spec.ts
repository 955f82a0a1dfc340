import { expect, test } from '@playwright/test';
import { demoJobs } from '../demo/shop';
import type { Job } from '../src/core/plan/job';
import { enter, jobOf, putJob, saved } from './board';
import { TestServer } from './server';

const server = new TestServer();
let plaque: Job;
test.beforeAll(async () => {
  await server.start();
  const demo = (await demoJobs())[3];
  // What is made here alone is planned and proven sooner.
  const made = ['panel', 'field', 'name'];
  plaque = { ...demo.job, layers: demo.job.layers.filter((l) => made.includes(l.id)) };
});
test.afterAll(async () => {
  await server.close();
});

test('words cut with a V bit and flats cleared by the end mill: offered, taken, proven, and the minutes said', async ({
  page,
}) => {
  const id = await putJob(plaque);
  await page.goto(`/jobs/${id}`);
  await page.getByRole('button', { name: /^Arrange / }).click();
  await page.getByRole('button', { name: /^Ottersedge Mill words/ }).click();
  await page.getByRole('button', { name: 'Cut with V 60' }).click();
  await enter(page, 'Rise', '2.5');
  await expect(page.getByText(/^It digs [\d.]+ mm into what lies beneath/)).toBeVisible();
  await saved(page);
  const job = await jobOf(id);
  expect(job.layers.at(-1)).toMatchObject({ join: 'carve', rise: 2.5, source: { relief: { kind: 'vee', angle: 60 } } });
  expect(job.passes.map((p) => p.kind)).toEqual(['rough', 'finish', 'letter']);
  await page.getByRole('button', { name: /^Passes / }).click();
  await expect(page.getByText('There are level fields')).toBeVisible({ timeout: 120_000 });
  await page.getByRole('button', { name: 'Clear the flats' }).click();
  await expect(page.getByText(/^Clears level fields at exactly their height/)).toBeVisible();
  await expect(page.getByText(/against the ball alone/)).toBeVisible({ timeout: 120_000 });
  // Its place in the order of work; another is refused with its reason.
  await expect(page.getByRole('list', { name: 'Passes in the order they are cut' }).getByRole('button')).toHaveText([
    /Rough/,
    /Flats/,
    /Finish/,
    /Letters/,
  ]);
  await page.getByRole('button', { name: /^Letters with V 60/ }).focus();
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(page.getByText('finishing after cutting letters would wear the edges of letters off')).toBeVisible();
  await page.getByRole('button', { name: /^Letters with V 60/ }).click();
  await expect(page.getByText(/^Cuts the V grooves of/)).toBeVisible();
  await page.getByRole('button', { name: /^Proof / }).click();
  await expect(page.getByText('Cut from the programs as written: nothing too deep')).toBeVisible({ timeout: 120_000 });
  await page.getByRole('button', { name: /^Run / }).click();
  await expect(page.getByText(/v-60/).first()).toBeVisible();
});
