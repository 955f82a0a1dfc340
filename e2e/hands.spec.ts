import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { loaf, shapeMesh } from '../demo/shapes';
import { writeStl } from '../src/core/sources/stl';
import { emptyBoard, enter, field, jobOf, layerRow, pressBoard, putJob, saved } from './board';
import { TestServer } from './server';
import { expect, type Page, test } from './test';

const server = new TestServer();
let file: string;
test.beforeAll(async () => {
  await server.start();
  file = path.join(server.data, 'loaf.stl');
  writeFileSync(file, writeStl(shapeMesh(loaf, 4), 'loaf'));
});
test.afterAll(async () => {
  await server.close();
});

const station = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name} `) });
const programs = (page: Page) => page.getByRole('button', { name: /^Programs, / });
const add = async (page: Page, name: string) => {
  await page.getByText('Add', { exact: true }).click();
  await page.getByRole('button', { name, exact: true }).click();
};

/** Goes on with Tab until what has the focus is called so. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  const called = () =>
    page.evaluate(() => {
      const e = document.activeElement as HTMLElement | null;
      if (e === document.body) return '';
      const labels = e instanceof HTMLInputElement ? [...(e.labels ?? [])].map((l) => l.textContent) : [];
      return [e?.getAttribute('aria-label'), ...labels, e?.textContent].filter(Boolean).join(' ').trim();
    });
  for (let i = 0; i < 150; i++) {
    if (name.test(await called())) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`nothing called ${name} takes the focus`);
}

test('a file becomes programs in six actions where nothing is changed but the board', async ({ page }) => {
  await page.goto('/');
  // 1: the file. 2 to 4: the board as it was measured. 5: the programs. 6: all of them downloaded.
  await page.getByLabel(/Drop a relief here/).setInputFiles(file);
  await enter(page, 'Length, x', '130');
  await enter(page, 'Width, y', '110');
  await enter(page, 'Thickness', '24');
  await programs(page).click({ timeout: 300_000 });
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download all programs' }).click();
  expect((await download).suggestedFilename()).toContain('.zip');
});

test('a file, chosen in a dialog, becomes programs by keyboard alone', async ({ page }) => {
  // A page that has asked for its jobs hears its keys.
  const asked = page.waitForResponse((r) => r.url().endsWith('/api/jobs'));
  await page.goto('/');
  await asked;
  await tabTo(page, /Drop a relief here/);
  const chooser = page.waitForEvent('filechooser');
  await page.keyboard.press('Enter');
  await (await chooser).setFiles(file);
  await expect(page.getByRole('heading', { level: 1, name: 'loaf' })).toBeVisible();
  await tabTo(page, /^Thickness/);
  await page.keyboard.press('Control+a');
  await page.keyboard.type('25');
  await page.keyboard.press('Enter');
  await expect(field(page, 'Thickness')).toHaveValue('25 mm');
  await tabTo(page, /^Passes/);
  await page.keyboard.press('Enter');
  await expect(programs(page)).toBeVisible({ timeout: 300_000 });
  await tabTo(page, /^Programs, /);
  await page.keyboard.press('Enter');
  await tabTo(page, /^Download all programs/);
  const download = page.waitForEvent('download');
  await page.keyboard.press('Enter');
  expect((await download).suggestedFilename()).toContain('.zip');
});

test('a board that grows leaves its piece where it was, and brings it to its middle or to its size when asked', async ({
  page,
}) => {
  const id = await emptyBoard(page);
  await station(page, 'Arrange').click();
  await add(page, 'Oval');
  await saved(page);
  const was = (await jobOf(id)).layers[0];
  await station(page, 'Board').click();
  const stored = async () => {
    const { layers, board } = await jobOf(id);
    return {
      long: board.x,
      at: layers[0].centre,
      rim: Math.min(board.x - layers[0].size.x, board.y - layers[0].size.y),
    };
  };
  await enter(page, 'Length, x', '400');
  await expect.poll(stored).toMatchObject({ long: 400, at: was.centre });
  await page.getByRole('button', { name: 'Centre piece' }).click();
  await expect.poll(stored).toMatchObject({ at: { x: 200, y: was.centre.y } });
  await page.getByRole('button', { name: 'Fit to board' }).click();
  await expect.poll(async () => (await stored()).rim).toBeCloseTo(20, 2);
});

test('a piece is made smaller as one, and told what its bit still reaches', async ({ page }) => {
  const id = await emptyBoard(page);
  await station(page, 'Arrange').click();
  await add(page, 'Oval');
  await enter(page, 'Rise', '6');
  await pressBoard(page, 4, 4);
  await page.getByText('Size of the whole piece').click();
  const stored = async () => {
    const { size, rise } = (await jobOf(id)).layers[0];
    return { ...size, rise };
  };
  await expect.poll(async () => (await stored()).rise).toBe(6);
  const { x, y } = await stored();
  await enter(page, 'Whole length, x', String(x / 2));
  await expect.poll(stored).toEqual({ x: x / 2, y: y / 2, rise: 3 });
  await expect(page.getByText(/now leaves more than 0.05 mm on .* before/)).toBeVisible();
});

test('a height is kept: a layer stays flush with another whatever becomes of that one', async ({ page }) => {
  const id = await emptyBoard(page);
  await station(page, 'Arrange').click();
  await add(page, 'Oval');
  await enter(page, 'Rise', '4');
  await add(page, 'Rectangle');
  await page.getByText('Distances kept', { exact: true }).click();
  await page.getByLabel('of', { exact: true }).selectOption({ label: 'Oval' });
  await page.getByLabel('Keep it', { exact: true }).selectOption('top over the top of');
  await page.getByRole('button', { name: 'Keep this distance' }).click();
  await enter(page, 'Rectangle top over the top of Oval', '0');
  const tops = async () => (await jobOf(id)).layers.map((l) => [l.name, l.lift + l.rise]);
  await expect.poll(tops).toEqual([
    ['Oval', 4],
    ['Rectangle', 4],
  ]);
  await layerRow(page, 'Oval').click();
  await enter(page, 'Rise', '7');
  await expect.poll(tops).toEqual([
    ['Oval', 7],
    ['Rectangle', 7],
  ]);
});

test('the paths of the bits are shown over the board, told apart, and read at the pointer; turned about the piece is seen alone', async ({
  page,
}) => {
  await emptyBoard(page);
  await station(page, 'Arrange').click();
  await add(page, 'Oval');
  await station(page, 'Proof').click();
  await expect(programs(page)).toBeVisible({ timeout: 300_000 });
  await page.getByRole('button', { name: 'paths', exact: true }).click();
  const legend = page.getByTestId('ways');
  for (const kind of ['rapid', 'feed in the air', 'cutting', 'going in']) await expect(legend).toContainText(kind);
  await expect(legend).toContainText('point at a path');
  const box = (await page.getByTestId('board-view').boundingBox())!;
  // Somewhere on the way from the board's edge to its middle the trench is cut.
  await expect(async () => {
    for (let x = 0.1; x < 0.5; x += 0.02) {
      await page.mouse.move(box.x + box.width * x, box.y + box.height / 2);
      await page.waitForTimeout(40);
      if (/line \d+, cutting, tip at .* takes/.test((await page.getByTestId('way-here').textContent())!)) return;
    }
    throw new Error('nothing is cut on the way');
  }).toPass({ timeout: 120_000 });
  await page.getByRole('button', { name: 'turn', exact: true }).click();
  await expect(legend).toBeHidden();
  const alone = page.getByRole('button', { name: 'piece alone' });
  await alone.click();
  await expect(alone).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('application', { name: /^The board;/ })).toBeVisible();
});

test('a bit and a setup that are removed come back from the notice', async ({ page }) => {
  await page.goto('/shop/bits');
  const name = (await page.getByRole('heading', { level: 2 }).textContent())!;
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('heading', { level: 2 })).not.toHaveText(name);
  await page.getByRole('status').getByRole('button', { name: /undo/i }).click();
  await expect(page.getByRole('button', { name: new RegExp(name) }).first()).toBeVisible();
  const id = await emptyBoard(page);
  const view = await jobOf(id);
  view.board.setups.push({ ...structuredClone(view.setup), id: 'second', name: 'Second' });
  const two = await putJob(view);
  await page.goto(`/jobs/${two}?station=board`);
  await page.getByText(/^Setup: /).click();
  await page.getByRole('button', { name: 'Remove this setup' }).click();
  const setups = async () => (await jobOf(two)).board.setups.length;
  await expect.poll(setups).toBe(1);
  await page.getByRole('status').getByRole('button', { name: /undo/i }).click();
  await expect.poll(setups).toBe(2);
});

test.describe('with a finger', () => {
  test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true, isMobile: true });

  test('what lies under it is shown beside it while it rests', async ({ page }) => {
    await emptyBoard(page);
    await station(page, 'Arrange').tap();
    const box = (await page.getByTestId('board-view').boundingBox())!;
    const at = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    const touch = await page.context().newCDPSession(page);
    await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [at] });
    await expect(page.getByTestId('magnifier')).toBeVisible();
    await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
    await expect(page.getByTestId('magnifier')).toBeHidden();
  });
});
