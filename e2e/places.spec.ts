import { readFileSync } from 'node:fs';
import path from 'node:path';
import { DESKTOP_MACHINE } from '../src/core/doc/defaults';
import { dishes } from '../src/core/plan/plan-test-kit';
import { clean, emptyBoard, enter, field, jobOf, putJob, saved } from './board';
import { BASE, TestServer } from './server';
import { expect, type Page, test } from './test';

const server = new TestServer();
test.beforeAll(() => server.start());
test.afterAll(() => server.close());

const list = (page: Page, what: string) => page.getByRole('region', { name: `All ${what}` }).getByRole('listitem');

/** What the shop has, as its server tells it. */
const library = async () => (await fetch(`${BASE}/api/library`)).json();

test('a bit is entered, copied, taken away and brought back, searched, and goes out and in as a table', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('navigation', { name: 'Places of the shop' }).getByRole('link', { name: 'Bits' }).click();
  await expect(list(page, 'bits')).toHaveCount(9);
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('heading', { name: '10 · new bit' })).toBeVisible();
  await enter(page, 'Name', 'ball 1/8 in long');
  await page.getByLabel('Shape').selectOption('ball');
  await enter(page, 'Diameter', '1/8 in');
  await enter(page, 'Shank', '3.175');
  await enter(page, 'Stick-out', '40');
  // Feeds are understood in other units, and one that was typed in a wrong one is noticed by its chip load.
  await enter(page, 'Feed', '30');
  await page.getByRole('button', { name: 'mm/s: 1800 mm/min' }).click();
  await expect(field(page, 'Feed')).toHaveValue('1800');
  await enter(page, 'Feed', '20 mm/s');
  await expect(field(page, 'Feed')).toHaveValue('1200');
  await expect(page.getByRole('img', { name: 'ball 1/8 in long from the side, to scale' })).toBeVisible();
  await expect(page.getByText('it reaches 25 mm deep')).toBeVisible();
  await expect
    .poll(async () => (await library()).cutters.at(-1))
    .toMatchObject({ name: 'ball 1/8 in long', shape: 'ball', diameter: 3.175, feed: 1200 });

  // What its owner has found in a material wins over what is proposed there, until it is taken back.
  await page.getByText('Feeds by material').click();
  const inAcrylic = page.getByRole('row', { name: /^acrylic/ });
  // 0.05 mm a tooth at the least, with two flutes at 16000 rpm; the bit's own 1200 mm/min would be finer.
  await expect(field(page, 'Feed in acrylic')).toHaveValue('1600');
  await expect(inAcrylic).toContainText('starting figure');
  await enter(page, 'Feed in acrylic', '30 mm/s');
  await expect(inAcrylic).toContainText('your own');
  await expect(page.getByText('Feeds by material: 1 of your own')).toBeVisible();
  await expect
    .poll(async () => (await library()).cutters.at(-1).feeds)
    .toEqual([{ material: 'acrylic', feed: 1800, plunge: 500, rpm: 16000 }]);
  await inAcrylic.getByRole('button', { name: 'your own' }).click();
  await expect(field(page, 'Feed in acrylic')).toHaveValue('1600');
  await enter(page, 'Feed in maple', '1111');

  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(page.getByRole('heading', { name: '11 · ball 1/8 in long copy' })).toBeVisible();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(list(page, 'bits')).toHaveCount(10);
  await page.getByRole('button', { name: 'Undo: removed ball 1/8 in long copy' }).click();
  await expect(list(page, 'bits')).toHaveCount(11);
  await page.locator('body').press('Control+z');
  await expect(list(page, 'bits')).toHaveCount(10);

  await page.getByLabel('Search bits').fill('ball 1/8');
  await expect(list(page, 'bits')).toHaveCount(1);
  await page.getByLabel('Search bits').fill('plough');
  await expect(page.getByText('None of 10 bits has “plough”.')).toBeVisible();
  await page.getByLabel('Search bits').fill('');

  const coming = page.waitForEvent('download');
  await page.getByRole('button', { name: 'CSV' }).click();
  const file = path.join(server.data, 'cutters.csv');
  await (await coming).saveAs(file);
  const table = readFileSync(file, 'utf8');
  const take = (text: string) =>
    page
      .getByLabel('File to import')
      .setInputFiles({ name: 'mine.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await take(table.replace(',1200,', ',fast,'));
  await expect(page.locator('p[role=alert]')).toContainText('mine.csv: row');
  await expect(page.locator('p[role=alert]')).toContainText('feed mm/min is "fast"');
  expect((await library()).cutters).toHaveLength(10);
  await take(table.replaceAll(',1200,', ',1300,'));
  await expect.poll(async () => (await library()).cutters.at(-1).feed).toBe(1300);
  await page.getByRole('button', { name: 'Undo: imported mine.csv' }).click();
  await expect.poll(async () => (await library()).cutters.at(-1).feed).toBe(1200);
});

test('a machine of one’s own is entered, and new boards are proposed for it; a material is changed and offered to the job that has it', async ({
  page,
}) => {
  await page.goto('/shop/machines');
  await expect(list(page, 'machines')).toHaveCount(4);
  const order = async () => (await library()).machines.map((m: { name: string }) => m.name);
  await list(page, 'machines').getByRole('button', { name: 'Shop router 2400' }).click();
  await page.getByRole('button', { name: 'Use it for new boards' }).click();
  await expect(page.getByText('It is used for new boards.')).toBeVisible();
  expect((await order())[0]).toBe('Shop router 2400');
  await page.getByRole('button', { name: 'Undo: uses Shop router 2400 for new boards' }).click();
  await expect.poll(async () => (await order())[0]).toBe('Bench router 600');
  // Only the weak desktop machine stays: bits are proposed that fit its collet, at speeds that it turns.
  for (const name of ['Bench router 600', 'Bench router 600 with rotary axis', 'Shop router 2400']) {
    await list(page, 'machines').getByRole('button', { name }).first().click();
    await page.getByRole('region', { name, exact: true }).getByRole('button', { name: 'Remove', exact: true }).click();
    await expect(list(page, 'machines').getByText(name, { exact: true })).toHaveCount(0);
  }
  await enter(page, 'Name', 'Kitchen router');
  await expect(page.getByRole('heading', { level: 2, name: 'Kitchen router' })).toBeVisible();
  const job = await jobOf(await emptyBoard(page));
  expect(job.machine.name).toBe('Kitchen router');
  for (const c of job.cutters) {
    expect(DESKTOP_MACHINE.collets).toContain(c.shankDiameter);
    expect(c.rpm).toBeLessThanOrEqual(DESKTOP_MACHINE.maxRpm);
  }

  await page.goto('/shop/materials');
  await list(page, 'materials').getByRole('button', { name: 'maple' }).click();
  await expect(page.getByRole('link', { name: 'New board' })).toBeVisible();
  await enter(page, 'Stepdown', '30');
  await expect(list(page, 'materials').getByRole('button', { name: 'maple' })).toContainText('30 % of the bit');
  await page.getByRole('link', { name: 'New board' }).click();
  await expect(page.getByText(/maple/).first()).toBeVisible();
});

test('a job is planned and proven on a machine and with a bit of one’s own', async ({ page }) => {
  await page.goto('/shop/machines');
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'new machine' })).toBeVisible();
  await enter(page, 'Name', 'Garage router');
  await enter(page, 'Collets, mm', '3, 3.175');
  await expect(page.getByRole('heading', { level: 2, name: 'Garage router' })).toBeVisible();
  await page.goto('/shop/bits');
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('heading', { level: 2, name: /· new bit$/ })).toBeVisible();
  await enter(page, 'Name', 'own ball 3');
  await page.getByLabel('Shape').selectOption('ball');
  await enter(page, 'Diameter', '3');
  await enter(page, 'Shank', '3');
  await enter(page, 'Stick-out', '25');
  await enter(page, 'Deepest plunge', '1');
  await expect.poll(async () => (await library()).cutters.at(-1)).toMatchObject({ name: 'own ball 3', diameter: 3 });

  const { face } = dishes();
  face.cell = 0.3;
  face.board.setups.splice(1);
  const id = await putJob(face);
  await page.goto(`/jobs/${id}?station=board`);
  await page.getByText(/^Machine: /).click();
  await page.getByRole('combobox', { name: 'Machine' }).selectOption({ label: 'Garage router' });
  await page.getByRole('button', { name: /^Passes / }).click();
  await page
    .getByRole('button', { name: /^Finishing/ })
    .first()
    .click();
  // Its number is the first that was free.
  const { number } = (await library()).cutters.find((c: { name: string }) => c.name === 'own ball 3');
  await page.getByRole('combobox', { name: 'Bit', exact: true }).selectOption({ label: `${number}  own ball 3` });
  await saved(page);
  await page.getByRole('button', { name: /^Run / }).click();
  await expect(page.getByText(/own-ball-3\.nc/)).toBeVisible({ timeout: 300_000 });
  await expect(page.getByText(/^Garage router, bits changed by hand/)).toBeVisible();
});

test('jobs on the rack are found, put in order, and duplicated; the copy is a job of its own', async ({ page }) => {
  const id = await emptyBoard(page);
  await page.goto('/');
  const rack = page.getByRole('region', { name: 'Jobs' }).getByRole('listitem');
  await expect(rack.first()).toContainText('New board');
  const before = await rack.count();
  await rack.first().getByRole('button', { name: 'Duplicate New board' }).click();
  await expect(rack).toHaveCount(before + 1);
  await expect(rack.first()).toContainText('New board copy');
  await page.getByRole('button', { name: 'Folder of New board copy' }).click();
  await page.getByLabel('Customer or series').fill('Ottersedge');
  await page.getByRole('button', { name: 'Move it there' }).click();
  await page.getByLabel('Folder of the jobs shown').selectOption('Ottersedge');
  await expect(rack).toHaveCount(1);
  await expect(rack.first()).toContainText('Ottersedge ·');
  await page.getByLabel('Folder of the jobs shown').selectOption('all folders');
  await page.getByLabel('Search jobs').fill('board copy maple');
  await expect(rack).toHaveCount(1);
  await rack.first().getByRole('link').click();
  await expect(page).toHaveTitle('New board copy');
  expect(page.url()).not.toContain(id);
  await page.goto('/');
  await page.getByLabel('State of the jobs shown').selectOption('with errors');
  await expect(rack).toHaveCount(0);
  await expect(page.getByText(/^None of the \d+ jobs matches/)).toBeVisible();
  await page.getByLabel('State of the jobs shown').selectOption('all');
  await page.getByLabel('Order of the jobs').selectOption('by name');
  await expect(rack).toHaveCount(before + 1);
  await expect(rack.last()).toContainText('New board copy');
});

test('Ctrl K finds stations, layers and jobs by name and goes there; ? lists the keys; nothing serious is found in either', async ({
  page,
}) => {
  const other = await emptyBoard(page);
  await emptyBoard(page);
  await page.getByRole('button', { name: /^Arrange / }).click();
  for (const name of ['Circle', 'Oval']) {
    await page.getByText('Add', { exact: true }).click();
    await page.getByRole('button', { name, exact: true }).click();
    await expect(page.getByRole('heading', { level: 2, name })).toBeVisible();
  }
  await saved(page);
  const find = page.getByRole('combobox', { name: 'What is to be found or done' });
  await page.locator('body').press('Control+k');
  await expect(find).toBeFocused();
  await clean(page, 'find', '[role="dialog"]');
  await find.fill('circ');
  await find.press('Enter');
  await expect(page.getByRole('heading', { level: 2, name: 'Circle' })).toBeVisible();
  // Delete is a key of the board's, but not while something is being looked for.
  await page.locator('body').press('Control+k');
  await find.fill('passes');
  await find.press('Backspace');
  await find.press('Enter');
  await expect(page).toHaveURL(/station=passes/);
  // A setting of the card is gone to, also where it is folded away.
  await page.locator('body').press('Control+k');
  await find.fill('setting ramp');
  await find.press('Enter');
  await expect(field(page, 'Ramp')).toBeFocused();
  await page.locator('body').press('Control+k');
  await find.fill('no such thing');
  await expect(page.getByText('Nothing here has “no such thing” in its name.')).toBeVisible();
  await find.press('Escape');
  await expect(find).toBeHidden();

  // The field that had the keys before has them again; a question mark there is a text's own.
  await field(page, 'Ramp').blur();
  await page.locator('body').press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('duplicate');
  await clean(page, 'keys', '[role="dialog"]');
  await page.getByRole('button', { name: 'Close' }).click();
  await page.locator('body').press('Control+k');
  await find.fill('job new board');
  await find.press('Enter');
  await expect(page).toHaveURL(new RegExp(other));
});

test.describe('the places by eye and ear', () => {
  for (const scheme of ['light', 'dark'] as const)
    test(`nothing serious is found in them, ${scheme}`, async ({ page }) => {
      await page.emulateMedia({ colorScheme: scheme });
      for (const place of ['', 'shop/bits', 'shop/machines', 'shop/materials', 'guide']) {
        await page.goto(`/${place}`);
        await expect(page.getByRole('navigation', { name: 'Places of the shop' })).toBeVisible();
        if (place.startsWith('shop')) await expect(page.getByRole('button', { name: 'Duplicate' })).toBeVisible();
        if (place === 'guide') await expect(page.getByRole('img').first()).toBeVisible();
        await clean(page, place);
      }
    });
});
