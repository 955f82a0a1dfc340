import { demoJobOf } from '../demo/shop';
import { resizeLayer } from '../src/core/arrange/new-layer';
import type { Layer } from '../src/core/doc/layer';
import { changed } from '../src/core/plan/plan-test-kit';
import { type SetupView, setupView } from '../src/core/setup/view';
import { enter, jobOf, layerRow, putJob, saved } from './board';
import { TestServer } from './server';
import { expect, test } from './test';

const server = new TestServer();
let plaque: SetupView;
test.beforeAll(async () => {
  await server.start();
  const demo = await demoJobOf('OE-100');
  // What is made here alone, at half its size, is planned and proven sooner.
  const made = ['panel', 'field', 'name'];
  const job = setupView(demo.job);
  plaque = changed(job, {
    layers: job.layers.filter((l) => made.includes(l.id)).map(halved),
    passes: job.passes.filter((p) => p.kind === 'rough' || p.kind === 'finish'),
    cutters: job.cutters.filter((c) => c.shape !== 'v'),
  });
  plaque.cell = 0.2;
  plaque.board.x /= 2;
  plaque.board.y /= 2;
});
test.afterAll(async () => {
  await server.close();
});

function halved(l: Layer): Layer {
  const own = structuredClone(l);
  resizeLayer(own, 0.5, 0.5);
  own.centre = { x: l.centre.x / 2, y: l.centre.y / 2 };
  return own;
}

test('words by a V bit, flats by the end mill, cut out with tabs: taken with the mouse, proven, and the minutes said', async ({
  page,
}) => {
  const id = await putJob(plaque);
  await page.goto(`/jobs/${id}`);
  await page.getByRole('button', { name: /^Arrange / }).click();
  await layerRow(page, 'Ottersedge Mill').click();
  await page.getByRole('button', { name: 'Cut with V 60' }).click();
  await enter(page, 'Rise', '2.5');
  await expect(page.getByText(/^It digs [\d.]+ mm into what lies beneath/)).toBeVisible();
  await saved(page);
  const job = await jobOf(id);
  expect(job.layers.at(-1)).toMatchObject({ join: 'carve', rise: 2.5, source: { relief: { kind: 'vee', angle: 60 } } });
  expect(job.passes.map((p) => p.kind)).toEqual(['rough', 'finish', 'letter']);
  await page.getByRole('button', { name: /^Passes / }).click();
  await expect(page.getByText('There are level fields')).toBeVisible({ timeout: 300_000 });
  await page.getByRole('button', { name: 'Clear the flats' }).click();
  await expect(page.getByText(/^Clears level fields at exactly their height/)).toBeVisible();
  await expect(page.getByText(/against the ball alone/)).toBeVisible({ timeout: 300_000 });
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
  // Cut out: the tabs show on the board, and one is dragged along the line to another place.
  await page.getByText('More of this pass').click();
  await page.getByRole('button', { name: 'Cut-out', exact: true }).click();
  await expect(page.getByText(/The piece then hangs by its 4 tabs alone/)).toBeVisible({ timeout: 300_000 });
  await expect(page.getByText(/are open already/)).toContainText("together the board's 19 mm");
  const tab = page.getByRole('button', { name: /^Tab 1 at / });
  const box = (await tab.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 20, box.y + box.height / 2 + 4, { steps: 4 });
  await page.mouse.move(box.x + box.width / 2 + 40, box.y + box.height / 2 + 8, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByText('let them place themselves')).toBeVisible();
  await saved(page);
  const cut = (await jobOf(id)).passes.at(-1)!;
  expect(cut).toMatchObject({ kind: 'cutout', tabs: { count: 4 } });
  expect(cut.kind === 'cutout' && cut.tabs.at).toHaveLength(4);
  await expect(page.getByText(/The piece then hangs by its 4 tabs alone/)).toBeVisible({ timeout: 300_000 });
  const moved = (await tab.boundingBox())!;
  expect(Math.hypot(moved.x - box.x, moved.y - box.y)).toBeGreaterThan(20);
  await page.getByRole('button', { name: /^Proof / }).click();
  // On cells as coarse as these a letter's edge is met some hundredths deeper than a cut may be; nothing else is wrong.
  await expect(page.getByText('Do not cut this yet: 1 thing is wrong.')).toBeVisible({ timeout: 300_000 });
  await expect(page.getByRole('button', { name: /^error: .*cut 0\.0\d+ mm too deep/ }).last()).toBeVisible();
  await expect(page.getByText(/hangs by 4 tabs and by nothing else/)).toBeVisible();
  await page.getByRole('button', { name: /^Run / }).click();
  await expect(page.getByText(/v-60/).first()).toBeVisible();
  // The bit comes back for the cut-out, in a program of its own.
  await expect(page.getByText(/end-mill-6\.35\.nc/)).toHaveCount(2);
  // The roughing is kept in reserve: a program apart from those that are cut, and its time is not counted.
  await page.getByRole('button', { name: /^Passes / }).click();
  await page.getByRole('button', { name: /^Roughing with / }).click();
  await page.getByText('More of this pass').click();
  await page.getByLabel('Keep in reserve').check();
  await saved(page);
  await expect(page.getByText('which no time of the job counts')).toBeVisible({ timeout: 300_000 });
  await expect(page.getByRole('button', { name: /^Roughing with .*in reserve/ })).toBeVisible();
  await page.getByRole('button', { name: /^Run / }).click();
  await expect(page.getByRole('list', { name: 'Programs in reserve' }).getByRole('listitem')).toHaveCount(1);
  await expect(page.getByRole('link', { name: 'Download all programs' })).toBeVisible();
});
