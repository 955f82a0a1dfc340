import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import bunny from 'bunny';
import { unzipSync } from 'fflate';
import { loaf, shapeMesh } from '../demo/shapes';
import { readProgram } from '../src/core/program/reader';
import { writeStl } from '../src/core/sources/stl';
import { BASE, TestServer } from './server';
import { expect, type Page, test } from './test';

const server = new TestServer();
test.beforeAll(async () => {
  await server.start();
});
test.afterAll(async () => {
  await server.close();
});

function stlFile(name: string, triangles: Float32Array): string {
  const file = path.join(server.data, name);
  writeFileSync(file, writeStl(triangles, name));
  return file;
}

function bunnyFile(): string {
  const triangles = new Float32Array(bunny.cells.length * 9);
  bunny.cells.forEach((c, t) => {
    c.forEach((v, i) => {
      triangles.set(bunny.positions[v], t * 9 + i * 3);
    });
  });
  return stlFile('bunny.stl', triangles);
}

async function upload(page: Page, file: string): Promise<void> {
  await page.goto('/');
  await page.getByLabel(/Drop a relief here/).setInputFiles(file);
}

async function proven(page: Page): Promise<void> {
  await expect(page.getByRole('button', { name: /^Programs, / })).toBeVisible({ timeout: 300_000 });
}

test('the bunny: dropped in, planned, proven, its programs downloaded', async ({ page }) => {
  await upload(page, bunnyFile());
  await expect(page.getByRole('heading', { level: 1, name: 'bunny' })).toBeVisible();
  // Sized to 100 mm on a board with room for it.
  await page.getByRole('button', { name: /^Board / }).click();
  await page.getByLabel('Length, x', { exact: true }).fill('5 7/8 in');
  await page.getByLabel('Length, x', { exact: true }).press('Enter');
  await expect(page.getByLabel('Length, x', { exact: true })).toHaveValue('149.225 mm');
  await page.getByLabel('Width, y', { exact: true }).fill('80 + 2*20');
  await page.getByLabel('Width, y', { exact: true }).press('Enter');
  await page.getByRole('button', { name: /^Arrange / }).click();
  await page.getByLabel('Length, x', { exact: true }).fill('100');
  await page.getByLabel('Length, x', { exact: true }).press('Enter');
  await page.getByRole('button', { name: 'Centre on board' }).click();
  await proven(page);
  await page.getByRole('button', { name: /^Proof / }).click();
  // A model, a board and two bits: nothing of what is proposed is told to be wrong.
  await expect(page.getByRole('row', { name: /^ball 3.175/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^(error|warning): / })).toHaveCount(0);
  await expect(page.getByRole('row', { name: /^end mill 6.35/ })).toContainText('all of it holds');
  await page.getByRole('button', { name: /^Programs, / }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download all programs' }).click();
  const zip = unzipSync(new Uint8Array(readFileSync(await (await download).path())));
  const names = Object.keys(zip).sort();
  expect(names).toEqual(['bunny_1-end-mill-6.35.nc', 'bunny_2-ball-3.175.nc']);
  for (const name of names) {
    const text = new TextDecoder().decode(zip[name]);
    expect(readProgram(text, name).motions.length).toBeGreaterThan(1000);
  }
});

test('a refused file is said in one sentence, and nothing is saved', async ({ page }) => {
  const bad = path.join(server.data, 'bad.stl');
  writeFileSync(bad, Buffer.alloc(84));
  const before = await (await fetch(`${BASE}/api/jobs`)).json();
  await upload(page, bad);
  await expect(page.getByRole('alert').filter({ hasText: 'bad.stl: holds 0 triangles' })).toBeVisible();
  expect(await (await fetch(`${BASE}/api/jobs`)).json()).toEqual(before);
});

test('fields refuse nonsense in place, undo goes back, and the strip reads depths', async ({ page }) => {
  await upload(page, stlFile('loaf.stl', shapeMesh(loaf, 1)));
  await expect(page.getByRole('heading', { level: 1, name: 'loaf' })).toBeVisible();
  await page.getByRole('button', { name: /^Board / }).click();
  const thickness = page.getByLabel('Thickness', { exact: true });
  await thickness.fill('-3');
  await thickness.press('Enter');
  await expect(page.getByText('-3 mm must be more than 0 mm')).toBeVisible();
  await thickness.fill('three');
  await thickness.press('Enter');
  await expect(page.getByText(/"three" is not a length/)).toBeVisible();
  await thickness.fill('3/4 in');
  await thickness.press('Enter');
  await expect(thickness).toHaveValue('19.05 mm');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(thickness).toHaveValue('19 mm');
  await proven(page);
  const board = page.getByRole('group', { name: /The board from above/ });
  const box = (await board.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await expect(page.getByTestId('readout')).toContainText(/-?\d+\.\d\d target\s+-?\d+\.\d\d proof/);
  // The section line moves with the keyboard.
  const line = page.getByRole('slider', { name: /Section line/ });
  await line.focus();
  const was = await line.getAttribute('aria-valuenow');
  await page.keyboard.press('Shift+ArrowUp');
  expect(Number(await line.getAttribute('aria-valuenow'))).toBeCloseTo(Number(was) + 10, 1);
  // Finishing before roughing is refused with the reason.
  await page.getByRole('button', { name: /^Finishing with / }).focus();
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(page.getByText('roughing after finishing would cut into wood that is finished')).toBeVisible();
  await page.getByRole('button', { name: 'turn', exact: true }).click();
  await expect(page.locator('canvas').first()).toBeVisible();
});

test('two tabs: the second follows the first; a save that met another is refused, both versions are shown and kept, and one is chosen', async ({
  page,
  context,
}) => {
  await upload(page, stlFile('two tabs.stl', shapeMesh(loaf, 2)));
  await proven(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await other.getByRole('button', { name: /^Board / }).click();
  const thickness = (p: Page) => p.getByLabel('Thickness', { exact: true });
  const put = async (p: Page, value: string) => {
    await thickness(p).fill(value);
    await thickness(p).press('Enter');
  };
  await expect(thickness(other)).toHaveValue('19 mm');
  await put(page, '20');
  await expect(thickness(other)).toHaveValue('20 mm');
  // A tab that does not hear of it saves on top of what is no longer in force.
  const away = '**/api/jobs/*/history';
  await other.route(away, (route) => route.abort());
  await put(page, '22');
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
  await put(other, '21');
  const conflict = other.getByRole('alert').filter({ hasText: 'Both versions are kept' });
  await expect(conflict).toContainText(/board .*: thickness/);
  await expect(conflict.getByRole('img')).toHaveCount(2);
  await other.unroute(away);
  await other.getByRole('button', { name: 'Mine', exact: true }).click();
  await expect(conflict).toBeHidden();
  await page.reload();
  await expect(thickness(page)).toHaveValue('21 mm');
});

test('cancel stops the work; a killed server loses nothing that was saved', async ({ page }) => {
  await upload(page, stlFile('slow.stl', shapeMesh(loaf, 1)));
  await expect(page.getByRole('heading', { level: 1, name: 'slow' })).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText(/cancelled; this is the target/)).toBeVisible();
  await page.getByRole('button', { name: /^Board / }).click();
  await page.getByLabel('Thickness', { exact: true }).fill('23');
  await page.getByLabel('Thickness', { exact: true }).press('Enter');
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
  // In the middle of the plan that follows.
  await expect(page.getByRole('button', { name: 'Cancel' })).toBeVisible();
  await server.kill();
  await server.start();
  await page.reload();
  await page.getByRole('button', { name: /^Board / }).click();
  await expect(page.getByLabel('Thickness', { exact: true })).toHaveValue('23 mm');
  await proven(page);
});

test('the server answers its own address only, and stays up after bad requests', async ({ page }) => {
  const get = (headers: Record<string, string>) => page.request.get(`${BASE}/api/jobs`, { headers });
  expect((await get({ origin: 'http://elsewhere.example' })).status()).toBe(403);
  expect((await get({ host: 'elsewhere.example' })).status()).toBe(403);
  for (const place of ['/', '/shop/bits', '/shop/recipes', '/guide', '/guide/pictures/shop.png'])
    expect((await page.request.get(BASE + place, { headers: { host: 'elsewhere.example' } })).status(), place).toBe(
      403,
    );
  for (const place of ['/', '/shop/bits', '/guide'])
    expect((await page.request.get(BASE + place)).headers()['content-security-policy'], place).toContain("'nonce-");
  expect((await page.request.get(`${BASE}/guide/pictures/..%2f..%2fpackage.json`)).status()).toBe(404);
  expect((await page.request.put(`${BASE}/api/jobs/none`, { data: { base: 'x', document: {} } })).status()).toBe(400);
  expect((await page.request.get(`${BASE}/api/assets/..%2f..%2fetc`)).status()).toBeGreaterThanOrEqual(400);
  for (const [method, url, status] of [
    ['GET', '/api/jobs/%E0%A4%A', 400],
    ['GET', '/jobs/%E0%A4%A', 400],
    ['GET', '/api/plans/none/events', 404],
    ['DELETE', '/api/jobs/none', 404],
    ['DELETE', '/api/jobs/none/kept', 404],
    ['DELETE', '/api/plans/none', 404],
    ['DELETE', '/api/patterns/none', 404],
    ['PUT', '/api/assets?name=a%07b.stl', 400],
    ['POST', '/api/jobs', 403],
  ] as const) {
    const res = await fetch(BASE + url, { method, body: method === 'PUT' || method === 'POST' ? '{}' : undefined });
    expect(res.status, `${method} ${url}`).toBe(status);
    expect(res.headers.get('x-content-type-options')).toBe('nosniff');
  }
  const bad = await page.request.put(`${BASE}/api/assets?name=..%2F..%2Fx.stl`, { data: Buffer.from('short') });
  expect(bad.status()).toBe(400);
  expect((await get({})).status()).toBe(200);
});

test('the shop: jobs on the rack, the ways to bits and machines, dark as well as light', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.goto('/');
  for (const name of ['Bits', 'Machines', 'Materials'])
    await expect(page.getByRole('link', { name, exact: true })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Jobs' }).getByRole('listitem').first()).toBeVisible();
  await page.getByRole('button', { name: 'Light' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'birch');
});

test('the shop: a removed job comes back, and the whole shop goes into a backup and comes out of it', async ({
  page,
}) => {
  await page.goto('/');
  const rack = page.getByRole('region', { name: 'Jobs' });
  const first = rack.getByRole('listitem').first();
  const name = (await first.getByRole('heading').textContent()) ?? '';
  await first.getByRole('button', { name: `Remove ${name}` }).click();
  const removed = page.getByRole('region', { name: 'Removed jobs' });
  await expect(removed.getByText(name)).toBeVisible();
  await expect(removed.getByText(/kept until/)).toBeVisible();
  await removed.getByRole('button', { name: 'Bring back' }).click();
  await expect(removed).toBeHidden();
  await expect(rack.getByRole('heading', { name }).first()).toBeVisible();
  const count = await rack.getByRole('listitem').count();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download a backup' }).click();
  const file = path.join(server.data, 'kept.tar.gz');
  await (await download).saveAs(file);
  // A shop with jobs gives way only when that is said.
  await page.getByLabel('Restore a backup').setInputFiles(file);
  await page.getByRole('button', { name: 'Replace this shop' }).click();
  await expect(page.getByText(/^Restored: /)).toBeVisible();
  await expect(rack.getByRole('listitem')).toHaveCount(count);
});
