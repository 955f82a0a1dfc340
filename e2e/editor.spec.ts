import { demoPatterns } from '../demo/patterns';
import { emptyBoard, enter, field, jobOf, saved } from './board';
import { OTHER, TestServer } from './server';
import { expect, type Page, test } from './test';

const server = new TestServer({ ZG_LISTEN: OTHER });
test.beforeAll(() => server.start());
test.afterAll(() => server.close());

const station = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name} `) });

/** Adds a shape to the board. */
async function add(page: Page, name: string): Promise<void> {
  await page.getByText('Add', { exact: true }).click();
  await page.getByRole('button', { name, exact: true }).click();
  await expect(page.getByRole('heading', { level: 2, name })).toBeVisible();
}

test('the address says where one is: reload, Back and a link come to the same place, and the tab is named after the job', async ({
  page,
}) => {
  const id = await emptyBoard(page);
  await expect(page).toHaveTitle('New board');
  // A small board, for it is proven on the way.
  await station(page, 'Board').click();
  await enter(page, 'Length, x', '90');
  await enter(page, 'Width, y', '70');
  await station(page, 'Arrange').click();
  await add(page, 'Circle');
  await add(page, 'Oval');
  await expect(page).toHaveURL(/station=arrange&layer=/);
  await saved(page);
  const there = page.url();
  await page.reload();
  await expect(page.getByRole('heading', { level: 2, name: 'Oval' })).toBeVisible();
  expect(page.url()).toBe(there);

  // A rise that the board does not have: a finding, pointed at, and its link.
  await enter(page, 'Rise', '30');
  await station(page, 'Proof').click();
  const finding = page
    .getByRole('listitem')
    .filter({ hasText: /^error/ })
    .first();
  await finding.getByRole('button').first().click();
  await expect(page).toHaveURL(/station=proof.*finding=/);
  const link = page.url();
  await page.goBack();
  await page.goBack();
  await expect(page.getByRole('heading', { level: 2, name: 'Oval' })).toBeVisible();
  await saved(page);
  await page.goto('/');
  await expect(page).toHaveTitle('zealous grain');
  await page.goto(link);
  await expect(page.locator('[aria-pressed="true"]').filter({ hasText: /^error/ })).toBeVisible();
  expect(page.url()).toContain(id);
});

test('a page hears of what another has saved, and not of what it has saved itself', async ({ page }) => {
  const id = await emptyBoard(page);
  await station(page, 'Board').click();
  let read = 0;
  page.on('request', (r) => {
    if (r.method() === 'GET' && new URL(r.url()).pathname === `/api/jobs/${id}`) read++;
  });
  for (const thickness of [21, 22, 23]) {
    await enter(page, 'Thickness', String(thickness));
    await expect.poll(async () => (await jobOf(id)).board.thickness).toBe(thickness);
  }
  // Long enough for a question that saving would have led to.
  await page.waitForTimeout(1000);
  expect(read).toBe(0);
});

test('undo works in a field whose text is not being edited, and leaves alone the text that is', async ({ page }) => {
  const id = await emptyBoard(page);
  await station(page, 'Board').click();
  await enter(page, 'Thickness', '25');
  await expect(field(page, 'Thickness')).toBeFocused();
  await page.keyboard.press('Control+z');
  await expect(field(page, 'Thickness')).toHaveValue('19 mm');
  await page.keyboard.press('Control+Shift+z');
  await expect(field(page, 'Thickness')).toHaveValue('25 mm');
  // A text on its way has its own undo; the board stays.
  await field(page, 'Thickness').press('End');
  await page.keyboard.type(' + 2');
  await page.keyboard.press('Control+z');
  await saved(page);
  expect((await jobOf(id)).board.thickness).toBe(25);
  await field(page, 'Thickness').press('Escape');
  await expect(field(page, 'Thickness')).toHaveValue('25 mm');
});

test('what a field cannot save yet is there after a reload, with why not', async ({ page }) => {
  await emptyBoard(page);
  await station(page, 'Board').click();
  await enter(page, 'Length, x', 'three hundred');
  const said = page.getByText('"three hundred" is not a length', { exact: false });
  await expect(said).toBeVisible();
  await field(page, 'Width, y').fill('210 mm + ');
  await page.reload();
  await expect(field(page, 'Length, x')).toHaveValue('three hundred');
  await expect(said).toBeVisible();
  await expect(field(page, 'Width, y')).toHaveValue('210 mm + ');
  await enter(page, 'Length, x', '310');
  await expect(said).toBeHidden();
  await saved(page);
  await page.reload();
  await expect(field(page, 'Length, x')).toHaveValue('310 mm');
});

test('a file that arrives late does not take the selection away', async ({ page }) => {
  await emptyBoard(page);
  await station(page, 'Arrange').click();
  await add(page, 'Circle');
  await add(page, 'Oval');
  let letGo = () => {};
  const held = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  await page.route('**/api/assets?name=*', async (route) => {
    await held;
    await route.continue();
  });
  const [sheaf] = demoPatterns();
  await page.getByLabel('Add a file').setInputFiles({
    name: sheaf.file,
    mimeType: 'application/octet-stream',
    buffer: Buffer.from(sheaf.bytes),
  });
  await page.getByRole('button', { name: /^Circle/ }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'Circle' })).toBeVisible();
  letGo();
  const arrived = page.getByRole('button', { name: new RegExp(`^${sheaf.file.replace(/\.\w+$/, '')}`) });
  await expect(arrived.first()).toBeVisible();
  await saved(page);
  await expect(page.getByRole('heading', { level: 2, name: 'Circle' })).toBeVisible();
});

test('a server that is gone is said, what changes meanwhile stays, and is saved when it is back', async ({ page }) => {
  const id = await emptyBoard(page);
  // All that the page needs has been loaded.
  await station(page, 'Arrange').click();
  await expect(page.locator('[data-sharp="true"]')).toBeVisible();
  await station(page, 'Board').click();
  await saved(page);
  await server.kill();
  await enter(page, 'Thickness', '23');
  await expect(page.getByText('not saved yet', { exact: true })).toBeVisible();
  await expect(page.getByText('this change is kept here', { exact: false })).toBeVisible();
  await server.start();
  await saved(page);
  expect((await jobOf(id)).board.thickness).toBe(23);
});

test('a tablet is paired by the code that is shown at the machine, works, and is out when it is removed', async ({
  page,
  browser,
}) => {
  await page.goto('/');
  const devices = page.getByRole('region', { name: 'Other devices' });
  await expect(devices.getByText(`http://${OTHER}`)).toBeVisible();
  const code = (await devices.getByTestId('pairing-code').textContent()) ?? '';
  const context = await browser.newContext({ baseURL: `http://${OTHER}` });
  const tablet = await context.newPage();
  await tablet.goto('/');
  await expect(tablet.getByText('This connection is plain http.')).toBeVisible();
  await tablet.getByLabel('Pairing code').fill('AAAA-AAAA');
  await tablet.getByRole('button', { name: 'Pair this device' }).click();
  await expect(tablet.getByRole('alert')).toContainText('4 tries are left');
  await tablet.getByLabel('Pairing code').fill(code.toLowerCase());
  await tablet.getByLabel('What this device is called').fill('Bench tablet');
  await tablet.getByRole('button', { name: 'Pair this device' }).click();
  await expect(tablet.getByRole('heading', { name: 'On the rack' })).toBeVisible();
  await expect(tablet.getByRole('link', { name: 'Machines' })).toBeVisible();
  // Who may come in is said at the machine only.
  await expect(tablet.getByRole('region', { name: 'Other devices' })).toBeHidden();
  // A press before the page has come to life does nothing: it is pressed until a board is there.
  await expect(async () => {
    await tablet.getByRole('button', { name: 'Start from an empty board' }).click({ timeout: 5000 });
    await tablet.waitForURL(/\/jobs\//, { timeout: 120_000 });
  }).toPass({ timeout: 300_000 });
  await enter(tablet, 'Thickness', '21');
  await saved(tablet);

  await expect(devices.getByText('Bench tablet')).toBeVisible();
  await expect(devices.getByTestId('pairing-code')).not.toHaveText(code);
  await devices.getByRole('button', { name: 'Remove Bench tablet' }).click();
  await expect(devices.getByText('Bench tablet')).toBeHidden();
  await tablet.reload();
  await expect(tablet.getByRole('button', { name: 'Pair this device' })).toBeVisible();
  await context.close();
});
