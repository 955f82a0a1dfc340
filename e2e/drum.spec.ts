import { readFileSync } from 'node:fs';
import { strFromU8, unzipSync } from 'fflate';
import type { Job } from '../src/core/doc/job';
import { emptyBoard, enter, field, jobOf, join, layerRow, saved } from './board';
import { BASE, TestServer } from './server';
import { expect, test } from './test';

const server = new TestServer();
test.beforeAll(() => server.start());
test.afterAll(() => server.close());

test('a drum from patterns to programs: entered by its diameter, carved over its seam, turned about, proven, written in degrees', async ({
  page,
}) => {
  const id = await emptyBoard(page, 0.4);
  const document = async () => ((await (await fetch(`${BASE}/api/jobs/${id}`)).json()) as { document: Job }).document;
  await page.getByRole('button', { name: /^Board / }).click();
  await enter(page, 'Length, x', '60');
  await field(page, 'It is').selectOption({ label: 'a drum that turns' });
  await enter(page, 'Diameter', '24');
  await expect(page.getByText(/^its sheet is 75\.4 mm wide, pi times that; half way round is 37\.7 mm/)).toBeVisible();
  await enter(page, 'Held by the chuck', '8');
  await enter(page, 'Held by the tail stock', '6');
  await field(page, 'Relief stands').selectOption({ label: 'sunk into the board' });
  await saved(page);
  expect((await document()).boards[0]).toMatchObject({ thickness: 12, drum: { chuck: 8, tailStock: 6 } });
  expect((await document()).boards[0].y).toBeCloseTo(Math.PI * 24, 3);
  // A circle on the seam: half of it lies at either edge of the sheet.
  await page.getByRole('button', { name: /^Arrange / }).click();
  await page.getByText('Add', { exact: true }).click();
  await page.getByRole('button', { name: 'Circle', exact: true }).click();
  await expect(layerRow(page, 'Circle')).toBeVisible();
  await enter(page, 'Rise', '1.5');
  await join(page, 'carve into');
  await enter(page, 'Centre, y', '0');
  await saved(page);
  const view = await jobOf(id);
  expect(view.layers[0]).toMatchObject({ centre: { y: 0 }, join: 'carve' });
  // Nothing turns it yet: said at Proof. A machine that does has room over what turns.
  await page.getByRole('button', { name: /^Proof / }).click();
  await expect(page.getByText(/has no axis that turns it/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'It has a rotary axis' }).first()).toBeVisible();
  await page.getByRole('button', { name: /^Board / }).click();
  await page.getByText(/^Machine: /).click();
  await field(page, 'Machine').selectOption({ label: 'Bench router 600 with rotary axis' });
  await saved(page);
  expect((await document()).machine.rotary).toMatchObject({ along: 'x', letter: 'A' });
  await expect(page.getByText('proven', { exact: true })).toBeVisible({ timeout: 300_000 });
  await page.getByRole('button', { name: 'turn', exact: true }).click();
  await expect(page.getByRole('application', { name: /^The drum; the arrow keys turn it/ })).toBeVisible();
  // The programs turn it, and say their feeds in inverse time.
  await page.getByRole('button', { name: /^Run / }).click();
  await expect(page.getByText(/No loose sleeves/)).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download all programs' }).click(),
  ]);
  const files = unzipSync(readFileSync((await download.path())!));
  const programs = Object.keys(files).filter((f) => f.endsWith('.nc'));
  expect(programs).toHaveLength(2);
  const text = strFromU8(files[programs[1]]);
  expect(text).toMatch(/G17 G90 G93/);
  expect(text).toMatch(/\bA\d+\.\d+/);
  expect(text).toMatch(/no loose sleeves/);
});
