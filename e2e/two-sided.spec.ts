import { writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Locator, Page } from '@playwright/test';
import { HOBBY_MACHINE, materialNamed } from '../src/core/doc/defaults';
import type { Job } from '../src/core/doc/job';
import { dishes, drawerBit, plainSetup, proposed } from '../src/core/plan/plan-test-kit';
import { writeStl } from '../src/core/sources/stl';
import { clean, drag, enter, field, layerRow, onScreen, putJob, saved } from './board';
import { BASE, TestServer } from './server';
import { expect, test } from './test';

const server = new TestServer();
test.beforeAll(() => server.start());
test.afterAll(() => server.close());

/** The document as it is stored. */
const documentOf = async (id: string): Promise<Job> =>
  ((await (await fetch(`${BASE}/api/jobs/${id}`)).json()) as { document: Job }).document;

/** A low pyramid as an STL file, its sides and height in mm. */
function pyramid(name: string, x: number, y: number, high: number): string {
  const corners = [0, 0, x, 0, x, y, 0, y];
  const sides = [0, 1, 2, 3].flatMap((i) => {
    const [a, b] = [i, (i + 1) % 4];
    return [corners[2 * a], corners[2 * a + 1], 0, corners[2 * b], corners[2 * b + 1], 0, x / 2, y / 2, high];
  });
  const file = path.join(server.data, name);
  writeFileSync(file, writeStl(Float32Array.from(sides), name));
  return file;
}

/** A press of a button, by the mouse or by the keys alone. */
type Press = (what: Locator) => Promise<void>;
const PRESSES: [string, Press][] = [
  ['by mouse', (what) => what.click()],
  [
    'by keyboard',
    async (what) => {
      await what.focus();
      await what.page().keyboard.press('Enter');
    },
  ],
];

const station = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name} `) });
/** Opens the fold of both faces, where it is not open already. */
async function faces(page: Page, press: Press): Promise<void> {
  const inside = page.getByRole('button', { name: /^Empty (face|back)$/ });
  if (!(await inside.isVisible())) await press(page.locator('summary', { hasText: /^Both faces/ }));
  await expect(inside).toBeVisible();
}

for (const [how, press] of PRESSES)
  test(`a stamp from a model on each face to programs, ${how}`, async ({ page }) => {
    await page.goto('/');
    await page.getByLabel(/Drop a relief here/).setInputFiles(pyramid('sheaf.stl', 30, 24, 3));
    await expect(page.getByRole('heading', { level: 1, name: 'sheaf' })).toBeVisible();
    await press(station(page, 'Board'));
    await enter(page, 'Length, x', '90');
    await enter(page, 'Width, y', '130');
    await enter(page, 'Thickness', '20');
    await press(station(page, 'Arrange'));
    await press(layerRow(page, 'sheaf'));
    await enter(page, 'Length, x', '40');
    await enter(page, 'Rise', '4');
    await press(page.getByRole('button', { name: 'Centre on board' }));
    await saved(page);
    // Its back: the same outline at first, then a model of its own.
    await press(station(page, 'Board'));
    await faces(page, press);
    await press(page.getByRole('button', { name: 'Mirror behind it' }));
    await expect(page.getByRole('button', { name: '2 Back' })).toHaveAttribute('aria-pressed', 'true');
    await faces(page, press);
    await press(page.getByRole('button', { name: 'Drill for dowels in Face' }));
    await expect(page.getByText(/^leaves up to 0\.1 mm/)).toBeVisible();
    await press(station(page, 'Arrange'));
    await page.getByLabel('Add a file').setInputFiles(pyramid('wheel.stl', 26, 26, 2));
    await expect(layerRow(page, 'wheel')).toBeVisible();
    await press(layerRow(page, 'wheel'));
    await enter(page, 'Length, x', '26');
    await enter(page, 'Rise', '4');
    await press(page.getByRole('button', { name: 'Centre on board' }));
    await press(layerRow(page, 'sheaf'));
    await press(page.getByRole('button', { name: 'Remove from the board' }));
    await expect(layerRow(page, 'sheaf')).toHaveCount(0);
    // Cut out half from each side.
    await press(page.getByRole('button', { name: '1 Face' }));
    await press(station(page, 'Passes'));
    await press(page.locator('summary', { hasText: 'More of this pass' }));
    await press(page.getByRole('button', { name: 'Cut-out', exact: true }));
    await press(page.getByRole('button', { name: 'Cut half of it from each side' }));
    await expect(page.getByRole('checkbox', { name: 'Through the board' })).not.toBeChecked();
    await saved(page);
    const id = new URL(page.url()).pathname.split('/').at(-1)!;
    const [board] = (await documentOf(id)).boards;
    expect(board.setups.map((s) => s.passes.filter((p) => p.kind === 'cutout').map((p) => p.depth))).toEqual([
      [board.thickness / 2],
      [null],
    ]);
    await press(station(page, 'Proof'));
    await expect(page.getByText(/^Cut from the programs as written/)).toBeVisible({ timeout: 300_000 });
    await press(page.getByRole('button', { name: /^Programs, / }));
    await expect(page.getByRole('link', { name: 'Download all programs' })).toBeVisible();
    await press(page.getByRole('button', { name: '2 Back' }));
    await expect(page.getByText(/^Turn the board over, left to right, onto its dowels/)).toBeVisible();
  });

test('a hanging slot: added, proven, and hollow in the section; its head in the wood stops planning', async ({
  page,
}) => {
  const board = { x: 60, y: 90, thickness: 18, material: materialNamed('maple') };
  const slot = drawerBit('slot9');
  const view = plainSetup({ name: 'Hook', order: '', machine: HOBBY_MACHINE, rough: slot, finish: slot, board });
  view.passes = [];
  view.cell = 0.2;
  const id = await putJob(view);
  await page.goto(`/jobs/${id}?station=passes`);
  await page.getByRole('button', { name: 'Hanging slots', exact: true }).click();
  await expect(page.getByText(/^1 hanging slot of/)).toBeVisible();
  await field(page, 'Slot runs').selectOption({ label: 'towards you' });
  await enter(page, 'Slot 1, y', '67.5');
  await saved(page);
  expect((await documentOf(id)).boards[0].setups[0].passes).toEqual([
    expect.objectContaining({ kind: 'hang', cutter: 'slot9', towards: 270, places: [{ x: 30, y: 67.5 }] }),
  ]);
  // Across the middle of the board the head has been along beneath the wood.
  await expect(page.getByTestId('hollow').first()).toBeVisible({ timeout: 300_000 });
  await expect(page.getByRole('button', { name: /^Slot 1/ }).first()).toBeVisible();
  await enter(page, 'Depth', '4');
  await station(page, 'Proof').click();
  await expect(page.getByText(/only 0\.5 mm of wood stand over the head/).first()).toBeVisible();
  for (const scheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme: scheme });
    await clean(page, `hanging slot, ${scheme}`);
  }
});

test('what both faces share follows, until it is made independent; the board is cut beside its place', async ({
  page,
}) => {
  const { face } = dishes({ x: 60, y: 100, thickness: 12, material: materialNamed('maple') });
  face.cell = 0.4;
  face.board.setups.splice(1);
  const id = await putJob(face);
  await page.goto(`/jobs/${id}?station=board`);
  await faces(page, (what) => what.click());
  await page.getByRole('button', { name: 'Mirror behind it' }).click();
  await expect(page.getByRole('button', { name: '2 Back' })).toHaveAttribute('aria-pressed', 'true');
  await station(page, 'Arrange').click();
  const [name] = (await documentOf(id)).boards[0].setups[0].layers.map((l) => l.name);
  await layerRow(page, name).click();
  await expect(page.getByText(new RegExp(`^one with ${name} of Face`))).toBeVisible();
  await enter(page, 'Length, x', '24');
  await saved(page);
  const sizes = async () => (await documentOf(id)).boards[0].setups.map((s) => s.layers[0].size.x);
  expect(await sizes()).toEqual([24, 24]);
  await page.getByRole('button', { name: 'Make independent' }).click();
  await enter(page, 'Length, x', '20');
  await saved(page);
  expect(await sizes()).toEqual([24, 20]);

  await station(page, 'Proof').click();
  await expect(page.getByText(/^Cut from the programs as written/)).toBeVisible({ timeout: 300_000 });
  await page.locator('summary', { hasText: 'Beside its place' }).click();
  await enter(page, 'Moved by', '0.4');
  await page.getByRole('button', { name: 'Cut it beside its place' }).click();
  const cases = page.getByRole('list', { name: 'The board beside its place' }).getByRole('listitem');
  await expect(cases).toHaveCount(9, { timeout: 300_000 });
  await expect(cases.nth(0)).toContainText('in its place');
  await expect(cases.nth(1)).toContainText('moved 0.4, 0 mm');
  await expect(cases.nth(1)).toContainText('steps up to 0.4 mm');
  await clean(page, 'beside its place');
});

test('a back that lies upside down on the machine is shown as seen: hands, keys and new layers follow the picture', async ({
  page,
}) => {
  const { face, back } = dishes({ x: 60, y: 100, thickness: 12, material: materialNamed('maple') });
  face.cell = 0.4;
  face.board.flip = 'about-x';
  const id = await putJob(face);
  await page.goto(`/jobs/${id}?station=arrange&setup=${back.setup.id}`);
  const layersOf = async () => (await documentOf(id)).boards[0].setups[1].layers;
  const [{ name, centre }] = await layersOf();
  const way = page.getByRole('group', { name: 'Which way up the board is shown' });
  await expect(way.getByRole('button', { name: 'on the machine' })).toHaveAttribute('aria-pressed', 'true');
  await way.getByRole('button', { name: 'as seen' }).click();
  // Half a turn round the dish lies where its opposite place was.
  const board = { x: 60, y: 100 };
  const at = await onScreen(page, board.x - centre.x, board.y - centre.y, board);
  await page.mouse.click(at.x, at.y);
  await expect(page.getByRole('button', { name: `Turn ${name}` })).toBeVisible();
  await drag(page, at, { x: at.x + 5 * at.scale, y: at.y });
  await page.mouse.up();
  await saved(page);
  const dragged = (await layersOf())[0].centre;
  expect(Math.abs(dragged.x - centre.x + 5)).toBeLessThan(1);
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await layersOf())[0].centre.x).toBeCloseTo(dragged.x - 1, 3);
  await page.keyboard.press('ArrowUp');
  await expect.poll(async () => (await layersOf())[0].centre.y).toBeCloseTo(dragged.y - 1, 3);
  await page.getByText('Add', { exact: true }).click();
  await page.getByRole('button', { name: 'Oval', exact: true }).click();
  await expect.poll(async () => (await layersOf()).at(-1)!.turn).toBe(180);
  await clean(page, 'as seen');
  // The other side can be cut first, by one press, and it is one step to undo.
  await station(page, 'Board').click();
  await faces(page, (what) => what.click());
  await page.getByRole('button', { name: 'Cut Back first' }).click();
  const order = async () => (await documentOf(id)).boards[0].setups.map((s) => s.up);
  await expect.poll(order).toEqual(['back', 'face']);
  await page.keyboard.press('Control+z');
  await expect.poll(order).toEqual(['face', 'back']);
  // Of the face both ways are one.
  await page.getByRole('button', { name: '1 Face' }).click();
  await expect(way).toHaveCount(0);
});

test('a jig for loose pieces is made from its setup, and what it leaves is said', async ({ page }) => {
  const { face, back } = dishes({ x: 60, y: 100, thickness: 12, material: materialNamed('maple') });
  face.cell = 0.4;
  face.passes.push(proposed('cutout', face, drawerBit('em6')));
  face.cutters.push(drawerBit('em6'));
  face.cutters = face.cutters.filter((c, i, all) => all.findIndex((d) => d.id === c.id) === i);
  const id = await putJob(face);
  await page.goto(`/jobs/${id}?station=board&setup=${back.setup.id}`);
  await faces(page, (what) => what.click());
  await page.getByRole('button', { name: 'Make a jig for its pieces' }).click();
  await expect(page.getByText(/^leaves up to 0\.1 mm and .*, its mark met by eye: 0\.6 mm/)).toBeVisible();
  await saved(page);
  const { boards } = await documentOf(id);
  expect(boards.map((b) => b.jigFor)).toEqual([back.setup.id, null]);
  await page.getByRole('button', { name: /^1 Jig for Board/ }).click();
  await station(page, 'Passes').click();
  await expect(page.getByRole('heading', { name: 'Holes' })).toBeVisible();
});
