import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { unzipSync } from 'fflate';
import { emptyBoard, enter, field, fillDrawer, fromDrawer, jobOf, join, pressBoard, saved } from './board';
import { TestServer } from './server';
import { expect, test } from './test';

const server = new TestServer();
test.beforeAll(async () => {
  await server.start();
  await fillDrawer();
});
test.afterAll(async () => {
  await server.close();
});

test('a plaque from nothing: joined, added up, undone to the empty board and redone, out and in again', async ({
  page,
}) => {
  const id = await emptyBoard(page, null);
  await page.getByRole('button', { name: /^Board / }).click();
  await enter(page, 'Length, x', '300');
  await enter(page, 'Width, y', '200');
  await enter(page, 'Thickness', '19');
  await page.getByRole('button', { name: /^Arrange / }).click();
  await expect(page.getByText('An empty board. Add something')).toBeVisible();
  await saved(page);

  // A panel with an ogee border, and a field sunk into it.
  await page.getByText('Add', { exact: true }).click();
  await page.getByRole('button', { name: 'Panel', exact: true }).click();
  await field(page, 'Proportions locked').uncheck();
  await enter(page, 'Length, x', '280');
  await enter(page, 'Width, y', '180');
  await enter(page, 'Rise', '8');
  await expect(page.getByText('It raises the base plane by up to 8 mm.')).toBeVisible();
  await page.getByText('Add', { exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle', exact: true }).click();
  await join(page, 'carve into');
  await field(page, 'Form').selectOption({ label: 'coved edge' });
  await field(page, 'Proportions locked').uncheck();
  await enter(page, 'Length, x', '240');
  await enter(page, 'Width, y', '140');
  await enter(page, 'Rise', '4');
  await expect(page.getByText('It digs 4 mm into panel.')).toBeVisible();

  // The sheaf, dragged from the drawer beside the middle, and centred in the field by the command.
  await fromDrawer(page, 'Wheat sheaf', 120, 90);
  await enter(page, 'Length, x', '72');
  await page.getByRole('button', { name: 'Centre in field' }).click();
  await expect(page.getByText(/^centred in the field: \d+(\.\d)? mm left and right/)).toBeVisible();
  await enter(page, 'Rise', '5.6');
  await expect(field(page, 'Centre, x')).toHaveValue(/^(149\.\d+|150(\.\d+)?) mm$/);
  await expect(field(page, 'Centre, y')).toHaveValue(/^(9\d\.\d+|100(\.\d+)?) mm$/);

  await fromDrawer(page, 'Ribbon', 150, 62);
  await join(page, 'highest wins');
  await enter(page, 'Length, x', '176');
  await enter(page, 'Rise', '4');
  await enter(page, 'Lift', '4.4');
  await expect(page.getByText(/^It raises what lies beneath by up to \d/)).toBeVisible();

  await page.getByRole('button', { name: 'Words', exact: true }).click();
  const words = page.getByRole('textbox', { name: 'Words' });
  await words.fill('Ottersedge Mill');
  await words.blur();
  await field(page, 'Baseline').selectOption({ label: 'an arc' });
  await enter(page, "Arc's radius", '210');
  await enter(page, 'Centre, y', '153');
  await expect(page.getByRole('heading', { level: 2, name: 'Ottersedge Mill' })).toBeVisible();

  await fromDrawer(page, 'Ear of wheat', 55, 66);
  await enter(page, 'Length, x', '16');
  await enter(page, 'Rise', '2.6');
  await enter(page, 'Turn', '-24');
  await enter(page, 'Centre, x', '55');
  await page.getByRole('button', { name: 'Mirrored copy' }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'Ear of wheat, mirrored' })).toBeVisible();
  await expect(field(page, 'Centre, x')).toHaveValue('245 mm');
  await expect(field(page, 'Turn')).toHaveValue('24');

  // The ledger: skin, highest and backing make the board; the highest is the sheaf on the field, 8 - 4 + 5.6.
  await pressBoard(page, -8, -4);
  await expect(page.getByText('7 layers, joined from the lowest up')).toBeVisible();
  await expect(page.getByTestId('ledger')).toContainText(/highest 9\.(59|6)/);
  const sum = (await page.getByTestId('ledger').textContent())!.replace(/\s+/g, ' ');
  const [, skin, highest, backing, board] = /skin ([\d.]+) \+ highest ([\d.]+) \+ backing ([\d.]+) = ([\d.]+) mm/
    .exec(sum)!
    .map(Number);
  expect(highest).toBeCloseTo(8 - 4 + 5.6, 1);
  expect(skin + highest + backing).toBeCloseTo(board, 6);
  expect(board).toBe(19);
  await saved(page);
  const full = await jobOf(id);
  expect(full.layers.map((l) => l.join)).toEqual(['stack', 'carve', 'stack', 'highest', 'stack', 'stack', 'stack']);
  expect(full.layers[5].centre.x + full.layers[6].centre.x).toBe(300);

  // Back to the empty board, over a reload in the middle, and forward again.
  const undo = page.getByRole('button', { name: 'Undo' });
  const redo = page.getByRole('button', { name: 'Redo' });
  const steps = 12;
  for (let k = 0; k < steps; k++) await undo.click();
  await saved(page);
  await page.reload();
  await page.getByRole('button', { name: /^Arrange / }).click();
  await expect(redo).toBeEnabled();
  for (let k = 0; k < 200 && (await undo.isEnabled()); k++) await undo.click();
  await saved(page);
  const start = await jobOf(id);
  expect(start.layers).toEqual([]);
  await page.reload();
  await page.getByRole('button', { name: /^Arrange / }).click();
  await expect(page.getByText('An empty board. Add something')).toBeVisible();
  await expect(redo).toBeEnabled();
  for (let k = 0; k < 200 && (await redo.isEnabled()); k++) await redo.click();
  await saved(page);
  expect((await jobOf(id)).document).toEqual(full.document);

  // Out as one zip, and in again as an equal job.
  await page.getByText('Export: models, heights, picture, whole job').click();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Whole job with its files, zip' }).click();
  const zip = readFileSync(await (await download).path());
  const names = Object.keys(unzipSync(new Uint8Array(zip)));
  for (const l of full.layers) if ('hash' in l.source) expect(names.join(' ')).toContain(l.source.hash);
  const copy = path.join(server.data, 'copy.zip');
  writeFileSync(copy, zip);
  await page.goto('/');
  await page.getByLabel(/Drop a relief here/).setInputFiles(copy);
  await page.waitForURL((u) => u.pathname.startsWith('/jobs/') && !u.pathname.endsWith(id));
  expect((await jobOf(page.url().split('/').pop()!)).document).toEqual(full.document);
});
