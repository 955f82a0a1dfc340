import { demoJobOf } from '../demo/shop';
import { changed } from '../src/core/plan/plan-test-kit';
import { setupView } from '../src/core/setup/view';
import { emptyBoard, enter, field, jobOf, layerRow, putJob, saved } from './board';
import { BASE, TestServer } from './server';
import { expect, test } from './test';

const server = new TestServer();
test.beforeAll(async () => {
  await server.start();
});
test.afterAll(async () => {
  await server.close();
});

const PLATE = `<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="60mm" viewBox="0 0 90 60">
  <g transform="translate(45 30)"><rect x="-40" y="-25" width="80" height="50" rx="8"/></g></svg>`;

test('a drawing is added, its outline made larger, an arm taken from it, traced, and all goes out as SVG and DXF', async ({
  page,
}) => {
  const id = await emptyBoard(page);
  await page.getByRole('button', { name: /^Arrange / }).click();
  await page
    .getByLabel('Add a file')
    .setInputFiles({ name: 'plate.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(PLATE) });
  await expect(layerRow(page, 'plate')).toBeVisible();
  await saved(page);
  expect((await jobOf(id)).layers[0]).toMatchObject({ name: 'plate', size: { x: 80, y: 50 } });
  // Larger by 5 mm all around, with its round corners.
  await page.getByText('Outline as a shape of its own').click();
  await enter(page, 'Larger by', '5');
  await page.getByRole('button', { name: 'Make the outline' }).click();
  await expect(layerRow(page, 'Outline of plate')).toBeVisible();
  await saved(page);
  const made = (await jobOf(id)).layers[1];
  expect(made.size.x).toBeCloseTo(90, 2);
  expect(made.size.y).toBeCloseTo(60, 2);
  expect(made.source.kind === 'shape' && made.source.outline.kind === 'path' && made.source.outline.d).toContain(' A ');
  // What the larger one has and the smaller has not.
  await layerRow(page, 'plate').click({ modifiers: ['Shift'] });
  await page.getByText('Outline as a shape of its own').click();
  await field(page, 'Takes').selectOption({ label: 'what they share' });
  await page.getByRole('button', { name: 'Make the outline' }).click();
  await expect(layerRow(page, 'Outline of 2 layers')).toBeVisible();
  await saved(page);
  expect((await jobOf(id)).layers[2].size.x).toBeCloseTo(80, 2);
  // Traced, and as lines along its middle.
  await page.getByText('Outline as a shape of its own').click();
  await page.getByRole('button', { name: 'Middle lines' }).click();
  await expect(layerRow(page, 'Lines of Outline of 2 layers')).toBeVisible();
  await saved(page);
  const lines = (await jobOf(id)).layers[3];
  expect(lines.source.kind === 'shape' && lines.source.outline.kind).toBe('strokes');
  // Out, in both formats.
  const svg = await (await page.request.get(`${BASE}/api/jobs/${id}/export/outline-svg`)).text();
  expect(svg).toContain('<g id="plate">');
  expect(svg.match(/ A /g)!.length).toBeGreaterThan(8);
  const dxf = await (await page.request.get(`${BASE}/api/jobs/${id}/export/outline-dxf`)).text();
  expect(dxf.match(/LWPOLYLINE/g)!.length).toBeGreaterThan(3);
  // A drawing that does not say its unit is asked about first: a circle of half an inch.
  const circle = '0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n8\n0\n10\n0\n20\n0\n40\n0.25\n0\nENDSEC\n0\nEOF\n';
  await page
    .getByLabel('Add a file')
    .setInputFiles({ name: 'hole.dxf', mimeType: 'image/vnd.dxf', buffer: Buffer.from(circle) });
  await expect(page.getByText('hole.dxf does not say its unit.')).toBeVisible();
  expect((await jobOf(id)).layers).toHaveLength(4);
  await page.getByRole('button', { name: 'inches, 12.7 mm × 12.7 mm' }).click();
  await expect(layerRow(page, 'hole')).toBeVisible();
  await saved(page);
  expect((await jobOf(id)).layers[4].size.x).toBeCloseTo(12.7, 1);
  // A wrong drawing is said in one sentence, and nothing is added.
  await page
    .getByLabel('Add a file')
    .setInputFiles({ name: 'bad.svg', mimeType: 'image/svg+xml', buffer: Buffer.from('<svg><path') });
  await expect(
    page.getByRole('alert').filter({ hasText: 'bad.svg: begins like an SVG drawing but is damaged' }),
  ).toBeVisible();
  expect((await jobOf(id)).layers).toHaveLength(5);
});

test('holes are dragged on the board, a skim adds up its thickness, and a painted face is not skimmed', async ({
  page,
}) => {
  const demo = setupView((await demoJobOf('OE-100')).job);
  const id = await putJob(
    changed(demo, {
      cell: 0.3,
      layers: demo.layers.filter((l) => l.id === 'panel'),
      passes: demo.passes.filter((p) => p.kind === 'rough' || p.kind === 'finish'),
    }),
  );
  await page.goto(`/jobs/${id}`);
  await page.getByRole('button', { name: /^Passes / }).click();
  await page.getByText('More of this pass').click();
  await page.getByRole('button', { name: 'Holes', exact: true }).click();
  await expect(page.getByText(/^2 holes of 6 mm/)).toBeVisible();
  const hole = page.getByRole('button', { name: /^Hole 1 at / });
  const box = (await hole.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 4, box.y + box.height / 2 - 60, { steps: 5 });
  await page.mouse.up();
  await saved(page);
  const holes = (await jobOf(id)).passes.at(-1)!;
  expect(holes.kind === 'hole' && holes.places[0].y).toBeGreaterThan(120);
  await hole.focus();
  await page.keyboard.press('ArrowRight');
  await saved(page);
  const nudged = (await jobOf(id)).passes.at(-1)!;
  if (nudged.kind !== 'hole' || holes.kind !== 'hole') throw new Error('the pass is gone');
  expect(nudged.places[0].x - holes.places[0].x).toBeCloseTo(1, 3);
  // A skim: measured at two places, in as many goes as the stepdown says.
  await page.getByRole('button', { name: 'Skim', exact: true }).click();
  await enter(page, 'Measured 1, thickness', '20.6');
  await page.getByRole('button', { name: 'Add one' }).click();
  await enter(page, 'Measured 2, thickness', '19.2');
  await expect(
    page.getByText(/19\.2 to 20\.6 mm thick as measured; 2 skims take 1\.6 mm off and leave 19 mm/),
  ).toBeVisible();
  await page.getByRole('button', { name: /^Board / }).click();
  await field(page, 'Surface').selectOption({ label: 'painted' });
  await page.getByRole('button', { name: 'One thing to mend first' }).click();
  await expect(page.getByText("the board's face is painted and must not be skimmed off")).toBeVisible();
  await page.getByRole('button', { name: /^Passes / }).click();
  // It becomes a setup of its own, before the face's.
  await field(page, 'Skims').selectOption({ label: 'the back, turned over first' });
  await saved(page);
  const { board } = await jobOf(id);
  expect(board.setups.map((s) => [s.up, s.passes.map((p) => p.kind)])).toEqual([
    ['back', ['skim']],
    ['face', ['rough', 'finish', 'hole']],
  ]);
  await expect(page.getByRole('button', { name: '1 Back' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: /^Proof / }).click();
  await expect(page.getByText('Cut from the programs as written: nothing too deep')).toBeVisible({ timeout: 300_000 });
});

test('a drawn line is bent on the board: the point goes where it is let go, the rest stays, and a V bit engraves it', async ({
  page,
}) => {
  const id = await emptyBoard(page);
  await page.getByRole('button', { name: /^Arrange / }).click();
  await page.getByText('Add', { exact: true }).click();
  await page.getByRole('button', { name: 'Drawn lines', exact: true }).click();
  const last = page.getByRole('button', { name: /^Point of the curve, 7/ });
  const first = page.getByRole('button', { name: /^Point of the curve, 1/ }).first();
  await expect(last).toBeVisible();
  await saved(page);
  const before = (await jobOf(id)).layers[0];
  const [from, still] = [(await last.boundingBox())!, (await first.boundingBox())!];
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + from.width / 2 + 15, from.y + from.height / 2 - 20, { steps: 4 });
  await page.mouse.move(from.x + from.width / 2 + 30, from.y + from.height / 2 - 40, { steps: 4 });
  await page.mouse.up();
  await saved(page);
  const after = (await jobOf(id)).layers[0];
  expect(after.size.x).toBeGreaterThan(before.size.x + 3);
  const [to, stays] = [(await last.boundingBox())!, (await first.boundingBox())!];
  expect(Math.hypot(to.x - from.x - 30, to.y - from.y + 40)).toBeLessThan(3);
  expect(Math.hypot(stays.x - still.x, stays.y - still.y)).toBeLessThan(2);
  await page.getByRole('button', { name: 'Cut with V 60' }).click();
  await saved(page);
  const job = await jobOf(id);
  expect(job.layers[0]).toMatchObject({ join: 'carve', source: { relief: { kind: 'vee', angle: 60 } } });
  expect(job.passes.map((p) => p.kind)).toContain('letter');
});

test('a pocket is cleared inside a layer’s outline, a tenth wider for an inlay, and says what its bit leaves in the corners', async ({
  page,
}) => {
  const demo = setupView((await demoJobOf('OE-100')).job);
  const id = await putJob(
    changed(demo, {
      cell: 0.6,
      layers: demo.layers.filter((l) => l.id === 'panel'),
      passes: demo.passes.filter((p) => p.kind === 'rough'),
    }),
  );
  await page.goto(`/jobs/${id}`);
  await page.getByRole('button', { name: /^Passes / }).click();
  await page.getByText('More of this pass').click();
  await page.getByRole('button', { name: 'Pocket', exact: true }).click();
  await expect(page.getByText(/^A level floor .* deep, its wall exactly on the outline/)).toBeVisible();
  await enter(page, 'Depth', '8');
  await enter(page, 'Larger by', '0.1');
  await expect(page.getByText(/^A level floor 8 mm deep, its wall 0\.1 mm outside of the outline/)).toBeVisible();
  await saved(page);
  const pass = (await jobOf(id)).passes.at(-1)!;
  expect(pass).toMatchObject({ kind: 'pocket', depth: 8, allowance: 0.1, outline: { of: ['panel'], grow: 0 } });
  await page.getByText('Finishing lap, ramp and milling').click();
  await field(page, 'Milling').selectOption({ label: 'conventional' });
  await saved(page);
  expect((await jobOf(id)).passes.at(-1)).toMatchObject({ milling: 'conventional' });
  await page.getByRole('button', { name: /^Proof / }).click();
  await expect(page.getByText('Cut from the programs as written: nothing too deep')).toBeVisible({ timeout: 300_000 });
});
