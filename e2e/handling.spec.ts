import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import sharp from 'sharp';
import { demoJobOf } from '../demo/shop';
import { changed } from '../src/core/plan/plan-test-kit';
import { type SetupView, setupView } from '../src/core/setup/view';
import { meshHealth } from '../src/core/sources/health';
import { parseStl } from '../src/core/sources/stl';
import {
  drag,
  enter,
  field,
  fillDrawer,
  jobOf,
  join,
  layerRow,
  onScreen,
  pressBoard,
  putFile,
  putJob,
  saved,
} from './board';
import { TestServer } from './server';
import { expect, type Page, test } from './test';

const server = new TestServer();
let plaque: SetupView;
test.beforeAll(async () => {
  await server.start();
  await fillDrawer();
  const demo = await demoJobOf('OE-100');
  for (const f of demo.files.values()) await putFile(f.name, f.bytes);
  // Without the words that a V bit cuts: what is done here needs the others only.
  const cut = ['flour', 'bread', 'motto'];
  const job = setupView(demo.job);
  // A coarser grid is as sharp to the eye, and comes sooner.
  plaque = changed(job, {
    cell: 0.5,
    layers: job.layers.filter((l) => !cut.includes(l.id)),
    passes: job.passes.filter((p) => p.kind === 'rough' || p.kind === 'finish'),
  });
});
test.afterAll(async () => {
  await server.close();
});

/** A fresh copy of the demo's plaque, opened at Arrange with its full grid on the screen. */
async function open(page: Page, document = plaque): Promise<string> {
  const id = await putJob(document);
  await page.goto(`/jobs/${id}`);
  await page.getByRole('button', { name: /^Arrange / }).click();
  // Planning and other pages may want the machine meanwhile.
  await expect(page.locator('[data-sharp="true"]')).toBeVisible({ timeout: 300_000 });
  return id;
}

const layer = (j: SetupView, id: string) => j.layers.find((l) => l.id === id)!;

test('on the board: a drag snaps and shows its margins, arrows nudge, corners size, the knob turns', async ({
  page,
}) => {
  const id = await open(page);
  await layerRow(page, 'Wheat sheaf').click();
  await expect(page.getByRole('heading', { level: 2, name: 'Wheat sheaf' })).toBeVisible();
  await expect(page.getByTestId('margins')).toBeVisible();
  // Away from the middle, then back to within reach of it.
  const from = await onScreen(page, 150, 112);
  await drag(page, from, await onScreen(page, 120, 108));
  await expect(page.getByTestId('margins')).toContainText('mm');
  await page.mouse.up();
  await saved(page);
  const moved = layer(await jobOf(id), 'sheaf').centre;
  expect(moved.x).toBeGreaterThan(115);
  expect(moved.x).toBeLessThan(125);
  await drag(page, await onScreen(page, 120, 108), await onScreen(page, 151.5, 108));
  await expect(page.getByText(/the middle of/).first()).toBeVisible();
  await page.mouse.up();
  await saved(page);
  expect(layer(await jobOf(id), 'sheaf').centre.x).toBe(150);
  const y = layer(await jobOf(id), 'sheaf').centre.y;
  for (const key of ['ArrowUp', 'Shift+ArrowUp', 'Alt+ArrowDown']) await page.keyboard.press(key);
  await saved(page);
  expect(layer(await jobOf(id), 'sheaf').centre.y).toBeCloseTo(y + 1 + 10 - 0.1, 3);
  const size = layer(await jobOf(id), 'sheaf').size;
  const corner = (await page.getByRole('button', { name: 'Size Wheat sheaf' }).first().boundingBox())!;
  const at = { x: corner.x + corner.width / 2, y: corner.y + corner.height / 2 };
  await drag(page, at, { x: at.x - 30, y: at.y + 30 });
  await page.mouse.up();
  await saved(page);
  const larger = layer(await jobOf(id), 'sheaf').size;
  expect(larger.x).toBeGreaterThan(size.x + 5);
  expect(larger.y / larger.x).toBeCloseTo(size.y / size.x, 3);
  const knob = (await page.getByRole('button', { name: 'Turn Wheat sheaf' }).boundingBox())!;
  const k = { x: knob.x + knob.width / 2, y: knob.y + 10 };
  await drag(page, k, { x: k.x - 60, y: k.y + 10 });
  await page.mouse.up();
  await saved(page);
  const turn = layer(await jobOf(id), 'sheaf').turn;
  expect(turn).toBeGreaterThan(10);
  expect(turn % 5).toBe(0);
  await page.getByRole('button', { name: 'Face the near side' }).click();
  await expect(field(page, 'Turn')).toHaveValue('0');
});

test('several at once: lined up, spread, grouped, hidden, locked, reordered, and taken off', async ({ page }) => {
  const id = await open(page);
  await layerRow(page, 'Ribbon').click();
  await layerRow(page, 'Wheat sheaf').click({ modifiers: ['Shift'] });
  await layerRow(page, 'Ottersedge Mill').click({ modifiers: ['Shift'] });
  await expect(page.getByRole('heading', { level: 2, name: '3 layers' })).toBeVisible();
  await page.getByRole('group', { name: 'Line up across' }).getByRole('button', { name: 'Left edges' }).click();
  await page.keyboard.press('Control+g');
  await saved(page);
  const job = await jobOf(id);
  const lefts = ['ribbon', 'sheaf', 'name'].map((i) => layer(job, i).centre.x - layer(job, i).size.x / 2);
  expect(Math.max(...lefts) - Math.min(...lefts)).toBeLessThan(0.01);
  expect(new Set(['ribbon', 'sheaf', 'name'].map((i) => layer(job, i).group)).size).toBe(1);
  await page.getByRole('button', { name: 'Hide Ribbon', exact: true }).click();
  await page.getByRole('button', { name: 'Lock Panel', exact: true }).click();
  await saved(page);
  expect(layer(await jobOf(id), 'ribbon').hidden).toBe(true);
  // A locked layer is not dragged.
  await layerRow(page, 'Panel').click();
  const was = layer(await jobOf(id), 'panel').centre;
  await drag(page, await onScreen(page, 20, 100), await onScreen(page, 60, 120));
  await page.mouse.up();
  expect(layer(await jobOf(id), 'panel').centre).toEqual(was);
  // One place up in the order, and down again to where it was.
  await layerRow(page, 'Field').click();
  await page.keyboard.press(']');
  await saved(page);
  expect((await jobOf(id)).layers.map((l) => l.id).indexOf('field')).toBe(2);
  await page.keyboard.press('[');
  await saved(page);
  expect((await jobOf(id)).layers.map((l) => l.id).indexOf('field')).toBe(1);
  await page.keyboard.press('Control+d');
  await expect(page.getByRole('heading', { level: 2, name: 'Field copy' })).toBeVisible();
  await page.keyboard.press('Delete');
  await saved(page);
  expect((await jobOf(id)).layers).toHaveLength(7);
});

test('a distance typed as a number is kept when either end moves', async ({ page }) => {
  const id = await open(page);
  await layerRow(page, 'Ottersedge Mill').click();
  await page.getByText('Distances kept', { exact: true }).click();
  await field(page, 'of').selectOption({ label: 'Wheat sheaf' });
  await field(page, 'Keep it').selectOption('above');
  await page.getByRole('button', { name: 'Keep this distance' }).click();
  await enter(page, 'Ottersedge Mill above Wheat sheaf', '6');
  await saved(page);
  const gap = (j: SetupView) => {
    const [n, s] = [layer(j, 'name'), layer(j, 'sheaf')];
    return n.centre.y - n.size.y / 2 - s.centre.y - s.size.y / 2;
  };
  expect(gap(await jobOf(id))).toBeCloseTo(6, 2);
  await layerRow(page, 'Wheat sheaf').click();
  await page.keyboard.press('Shift+ArrowDown');
  await saved(page);
  const after = await jobOf(id);
  expect(gap(after)).toBeCloseTo(6, 2);
  expect(layer(after, 'sheaf').centre.y).toBeCloseTo(layer(plaque, 'sheaf').centre.y - 10, 3);
});

test('words along a free curve, whose points are dragged on the board', async ({ page }) => {
  const id = await open(page);
  await layerRow(page, 'Ottersedge Mill').click();
  await field(page, 'Baseline').selectOption({ label: 'a free curve' });
  const bend = page.getByRole('button', { name: 'Bend of the curve, 2' });
  await expect(bend).toBeVisible();
  await saved(page);
  const line = (j: SetupView) => {
    const s = layer(j, 'name').source;
    return s.kind === 'words' && s.words.line.kind === 'curve' ? s.words.line.d : '';
  };
  const was = line(await jobOf(id));
  const end = (await page.getByRole('button', { name: 'Point of the curve, 4' }).boundingBox())!;
  const box = (await bend.boundingBox())!;
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  await drag(page, middle, { x: middle.x + 10, y: middle.y - 20 });
  await page.mouse.up();
  await expect.poll(async () => line(await jobOf(id))).not.toBe(was);
  // The rest of the curve has stayed where it was.
  const still = (await page.getByRole('button', { name: 'Point of the curve, 4' }).boundingBox())!;
  expect(Math.hypot(still.x - end.x, still.y - end.y)).toBeLessThan(2);
});

test('the card says what a join does, what is lost, and what is hidden', async ({ page }) => {
  await open(page);
  await layerRow(page, 'Field').click();
  await enter(page, 'Rise', '11');
  await expect(page.getByText('It digs 11 mm into panel.')).toBeVisible();
  await expect(page.getByText(/below the base there, and that is lost/)).toBeVisible();
  await expect(page.getByTestId('ledger')).toContainText('below the base is clipped');
  await page.getByRole('button', { name: 'Undo' }).click();
  await layerRow(page, 'Wheat sheaf').click();
  await join(page, 'lowest wins');
  await expect(page.getByText(/^It (digs|changes)/)).toBeVisible();
  // A model that is itself a recess makes a bump when it is stacked, and the card offers to let it dig.
  await page
    .getByRole('button', { name: /^Dish, a recess/ })
    .first()
    .dblclick();
  await expect(page.getByRole('heading', { level: 2, name: 'Dish, a recess' })).toBeVisible();
  await join(page, 'stack on');
  await expect(page.getByText('This model is itself a recess')).toBeVisible();
  await page.getByRole('button', { name: /^Let it dig/ }).click();
  await expect(page.getByText('This model is itself a recess')).toBeHidden();
  await expect(page.getByText(/^It digs \d/)).toBeVisible();
});

test('fit to depth brings the whole to a height, and lets the pressed part out again', async ({ page }) => {
  const id = await open(page);
  await pressBoard(page, -8, -4);
  await page.getByText('Fit to depth', { exact: true }).click();
  await enter(page, 'Depth wanted', '6');
  await page.getByRole('button', { name: /^Fit 9\.\d+ mm to 6 mm/ }).click();
  await expect(page.getByTestId('ledger')).toContainText(/highest (6|5\.99|6\.01) /);
  await saved(page);
  expect(layer(await jobOf(id), 'panel').rise).toBeCloseTo((8 * 6) / 9.6, 1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await field(page, 'How').selectOption({ label: 'press only the high part' });
  await page.getByRole('button', { name: /^Fit 9\.\d+ mm to 6 mm/ }).click();
  await expect(page.getByTestId('ledger')).toContainText(/highest (6|5\.99|6\.01) /);
  await saved(page);
  expect(layer(await jobOf(id), 'panel').rise).toBe(8);
  await page.getByRole('button', { name: 'Let the pressed part out again' }).click();
  await expect(page.getByTestId('ledger')).toContainText('highest 9.');
});

test('versions side by side: kept under a name, gone back to', async ({ page }) => {
  const id = await open(page);
  await pressBoard(page, -8, -4);
  await page.getByText('Versions side by side').click();
  // Enter keeps it, and so does the button.
  await enter(page, 'Name it', 'With the sheaf');
  await expect(page.getByText('as it is now')).toBeVisible();
  await page.getByRole('button', { name: 'Hide Wheat sheaf', exact: true }).click();
  await saved(page);
  await field(page, 'Name it').fill('Without it');
  await page.getByRole('button', { name: /^Keep the board as it is/ }).click();
  await expect(page.getByRole('list', { name: 'Versions' }).getByRole('listitem')).toHaveCount(2);
  await expect(page.getByRole('img', { name: 'With the sheaf, its layers joined' })).toBeVisible();
  await page.getByTitle('Go on from this version').first().click();
  await expect.poll(async () => layer(await jobOf(id), 'sheaf').hidden).toBe(false);
});

test('out: 16-bit heights, a closed model and a picture for the customer', async ({ page }) => {
  // A cell of 0.6 mm keeps the model under a million triangles, so that its edges are counted.
  await open(page, changed(plaque, { cell: 0.6 }));
  await pressBoard(page, -8, -4);
  await page.getByText('Export: models, heights, picture, whole job').click();
  const get = async (name: string) => {
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name }).click();
    const d = await download;
    return { name: d.suggestedFilename(), bytes: readFileSync(await d.path()) };
  };
  const png = await get('Heights, PNG');
  expect(png.name).toMatch(/_0-to-9\.\d+mm\.png$/);
  expect(await sharp(png.bytes).metadata()).toMatchObject({ format: 'png', depth: 'ushort', channels: 1 });
  const tiff = await get('Heights, TIFF');
  expect(await sharp(tiff.bytes).metadata()).toMatchObject({ format: 'tiff', depth: 'ushort', channels: 1 });
  const stl = await get('Model, STL');
  expect(meshHealth(parseStl(new Uint8Array(stl.bytes), stl.name)).edges).toEqual({ open: 0, shared: 0 });
  const picture = await get('Picture, PNG');
  expect(await sharp(picture.bytes).metadata()).toMatchObject({ format: 'png', width: 1800 });
});

test('a photo: toned, its background brushed out; a wrong file is said in one sentence', async ({ page }) => {
  const id = await open(page);
  const photo = path.join(server.data, 'face.jpg');
  const gray = Buffer.from(
    Uint8Array.from({ length: 120 * 160 }, (_, k) => 60 + Math.round(80 * Math.sin((k % 120) / 19) ** 2)),
  );
  await sharp(gray, { raw: { width: 120, height: 160, channels: 1 } })
    .withMetadata({ orientation: 6 })
    .jpeg({ quality: 95 })
    .toFile(photo);
  await page.getByLabel('Add a file').setInputFiles(photo);
  await expect(page.getByText('turned as its EXIF orientation 6 says')).toBeVisible();
  await expect(page.getByRole('heading', { level: 2, name: 'face' })).toBeVisible();
  await page.getByText('Image: tones to heights').click();
  await enter(page, 'Gamma', '1.4');
  await field(page, 'Dark is high').check();
  await page.getByText('Image: background').click();
  const canvas = page.getByAltText('the image, to be brushed over');
  // The card grows while its section is drawn: the hand tries again when the picture moved away under it.
  await expect(async () => {
    await canvas.scrollIntoViewIfNeeded();
    const box = (await canvas.boundingBox())!;
    await drag(page, { x: box.x + 5, y: box.y + 5 }, { x: box.x + box.width - 5, y: box.y + 8 });
    await page.mouse.up();
    await expect(page.getByRole('button', { name: /^Forget \d strokes?$/ })).toBeVisible({ timeout: 2000 });
  }).toPass();
  await saved(page);
  const source = (await jobOf(id)).layers.at(-1)!.source;
  expect(source).toMatchObject({ kind: 'image', file: 'face.jpg', tone: { gamma: 1.4, invert: true } });
  if (source.kind === 'image') expect(source.tone.cutout.strokes[0].points.length).toBeGreaterThan(2);
  // It lies in the drawer now, and is found there.
  await page.getByLabel('Search the pattern drawer').fill('fac');
  await expect(page.getByText('1 of 8, in mm')).toBeVisible();
  const bad = path.join(server.data, 'letter.obj');
  writeFileSync(bad, 'v 0 0 0\nf 1 2 3\n');
  await page.getByLabel('Add a file').setInputFiles(bad);
  await expect(page.getByRole('alert').filter({ hasText: 'letter.obj: line 2 names vertex 2 of 1' })).toBeVisible();
  expect((await jobOf(id)).layers).toHaveLength(8);
});
