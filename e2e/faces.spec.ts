import type { Job } from '../src/core/doc/job';
import { DISHED, dishes } from '../src/core/plan/plan-test-kit';
import { clean, jobOf, putJob, saved } from './board';
import { BASE, TestServer } from './server';
import { expect, test } from './test';

const server = new TestServer();
test.beforeAll(() => server.start());
test.afterAll(() => server.close());

/** The document as it is stored. */
const documentOf = async (id: string): Promise<Job> =>
  ((await (await fetch(`${BASE}/api/jobs/${id}`)).json()) as { document: Job }).document;

test('a back is made from its face, by keys; the flip, the dowels and the web are chosen, and both faces are proven', async ({
  page,
}) => {
  const { face } = dishes({ ...DISHED, y: 100 });
  face.cell = 0.4;
  face.board.setups.splice(1);
  const id = await putJob(face);
  await page.goto(`/jobs/${id}?station=board`);
  await page.getByText('Both faces', { exact: true }).click();
  // The mirror of the face, by the keyboard alone.
  await page.getByRole('button', { name: 'Mirror behind it' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: '2 Back' })).toHaveAttribute('aria-pressed', 'true');
  await saved(page);
  const [first, second] = (await documentOf(id)).boards[0].setups;
  expect(second).toMatchObject({ up: 'back', register: 'none' });
  expect(second.layers).toHaveLength(first.layers.length);
  expect(second.layers[0].mirror).toBe(!first.layers[0].mirror);
  expect(second.layers[0].centre.x).toBeCloseTo(DISHED.x - first.layers[0].centre.x, 6);
  expect(second.passes.map((p) => p.kind)).toEqual(first.passes.map((p) => p.kind));

  // Turned over the other way the layers stay where they are; the program mirrors.
  const flip = page.getByRole('combobox', { name: 'Turned over' });
  if (!(await flip.isVisible())) await page.getByText(/^Both faces, turned over/).click();
  await expect(page.getByRole('img', { name: 'The board is turned over left to right' })).toBeVisible();
  await flip.selectOption({ label: 'near edge to far edge' });
  await expect(page.getByRole('img', { name: 'The board is turned over near edge to far edge' })).toBeVisible();
  await flip.selectOption({ label: 'left to right' });
  await page.getByRole('button', { name: 'Drill for dowels in Face' }).click();
  await expect(page.getByText(/^leaves up to 0\.1 mm and 0\.\d+°: 0\.\d+ mm at the farthest corner/)).toBeVisible();
  await saved(page);
  const { setups } = (await documentOf(id)).boards[0];
  expect(setups[1].register).toBe('dowels');
  const holes = setups[0].passes.find((p) => p.kind === 'hole');
  expect(holes).toMatchObject({ depth: null, places: [{ x: DISHED.x / 2 }, { x: DISHED.x / 2 }] });

  // Dishes of 4 mm over each other in 12 mm: a web of 4, seen at once and proven.
  await page.getByRole('button', { name: 'web', exact: true }).click();
  await expect(page.getByText('12 mm of wood')).toBeVisible();
  await page.getByRole('button', { name: /^Proof / }).click();
  await expect(page.getByText(/^Cut from the programs as written/)).toBeVisible({ timeout: 300_000 });
  await expect(page.getByText('4 mm', { exact: true }).first()).toBeVisible();
  for (const scheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme: scheme });
    await clean(page, `both faces, ${scheme}`);
  }
});

test('an opening is told in both setups and can be wanted; what is wrong with one side is not called proven on the other', async ({
  page,
}) => {
  const { face, back } = dishes({ ...DISHED, y: 100 });
  face.cell = 0.2;
  face.layers[0].rise = 6;
  back.layers[0].rise = 6.5;
  back.setup.register = 'fence';
  const id = await putJob(face);
  await page.goto(`/jobs/${id}?station=proof`);
  await expect(page.getByText(/^Do not cut this yet/)).toBeVisible({ timeout: 300_000 });
  // The face's own card names the back, and the header does not call it proven.
  await expect(page.getByRole('heading', { name: 'In other setups' })).toBeVisible();
  await expect(page.getByText('do not cut it yet', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: /^Run / }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Do not run these programs' })).toBeVisible();
  await page.getByRole('button', { name: /^Proof / }).click();
  await page.getByRole('button', { name: /^Back, error: cuts through/ }).click();
  await expect(page.getByRole('button', { name: '2 Back' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'It is to be open here' }).click();
  await saved(page);
  expect((await jobOf(id)).board.openings).toHaveLength(1);
  await expect(page.getByText(/^Cut from the programs as written/)).toBeVisible({ timeout: 300_000 });
  await expect(page.getByText(/^Open on purpose: \d+ mm² at/)).toBeVisible();
  await page.getByRole('button', { name: /^Board / }).click();
  const taken = page.getByText(/^open on purpose at/);
  if (!(await taken.isVisible())) await page.getByText(/^Both faces, turned over/).click();
  await page.getByRole('button', { name: 'not any more' }).click();
  await saved(page);
  expect((await jobOf(id)).board.openings).toHaveLength(0);
});
