import { loaf, shapeMesh } from '../demo/shapes';
import { writeStl } from '../src/core/sources/stl';
import { clean, drag, emptyBoard, enter, field, fillDrawer, fromDrawer, jobOf, layerRow, saved } from './board';
import { BASE, TestServer } from './server';
import { expect, type Page, test } from './test';

const server = new TestServer();
test.beforeAll(async () => {
  await server.start();
  await fillDrawer();
});
test.afterAll(async () => {
  await server.close();
});

const station = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name} `) });
const view = (page: Page) => page.getByTestId('board-view');
const proven = (page: Page) =>
  expect(page.getByRole('button', { name: /^Programs, / })).toBeVisible({ timeout: 300_000 });
const relief = (name: string) => ({
  name,
  mimeType: 'model/stl',
  buffer: Buffer.from(writeStl(shapeMesh(loaf, 4), name)),
});

async function add(page: Page, name: string): Promise<void> {
  await page.getByText('Add', { exact: true }).click();
  await page.getByRole('button', { name, exact: true }).click();
}

/** A small oval, planned at once. */
async function oval(page: Page): Promise<string> {
  const id = await emptyBoard(page);
  await station(page, 'Arrange').click();
  await add(page, 'Oval');
  await enter(page, 'Rise', '3');
  await station(page, 'Proof').click();
  await proven(page);
  return id;
}

/** Lets files go over a place of the page. */
async function letGo(
  page: Page,
  files: { name: string; buffer: Buffer }[],
  at: { x: number; y: number },
): Promise<void> {
  const given = files.map((f) => ({ name: f.name, bytes: [...f.buffer] }));
  const data = await page.evaluateHandle((all) => {
    const d = new DataTransfer();
    for (const f of all) d.items.add(new File([new Uint8Array(f.bytes)], f.name));
    return d;
  }, given);
  await page.evaluate(
    ({ d, p }) => {
      const target = document.elementFromPoint(p.x, p.y)!;
      for (const type of ['dragenter', 'dragover', 'drop'])
        target.dispatchEvent(
          new DragEvent(type, { bubbles: true, cancelable: true, dataTransfer: d, clientX: p.x, clientY: p.y }),
        );
    },
    { d: data, p: at },
  );
}

test('a proven job has a picture of its board before any script runs, and the rack shows the same one', async ({
  page,
}) => {
  const id = await oval(page);
  await expect(page.locator('canvas[data-drawn="proven"]')).toBeVisible();
  const html = await (await page.request.get(`${BASE}/jobs/${id}?station=proof`)).text();
  const src = /<img[^>]+src="(\/api\/plans\/[^"]+\/picture\?setup=[^"]+)"/.exec(html)?.[1].replaceAll('&amp;', '&');
  expect(src).toBeDefined();
  const answer = await page.request.get(`${BASE}${src}`);
  expect(answer.headers()['content-type']).toBe('image/webp');
  expect((await answer.body()).length).toBeGreaterThan(500);
  // Where layers are looked at, it shows those.
  const arranging = await (await page.request.get(`${BASE}/jobs/${id}?station=arrange`)).text();
  expect(arranging).toMatch(new RegExp(`src="/api/jobs/${id}/revisions/[^"]+/picture"`));
  await page.goto(BASE);
  const card = page.getByRole('img', { name: /, the proven cut from above$/ }).first();
  await expect(card).toHaveAttribute('src', src!);
  await expect.poll(() => card.evaluate((e: HTMLImageElement) => e.naturalWidth)).toBeGreaterThan(0);
});

test('the board is looked at from close by: with the wheel, keys, buttons and by hand; depths are read on the plan’s own cells', async ({
  page,
}) => {
  await oval(page);
  const box = (await view(page).boundingBox())!;
  // Beside the section line, which would be taken hold of.
  const middle = { x: Math.round(box.x + box.width / 2), y: Math.round(box.y + box.height / 2 + 70) };
  const strip = page.getByRole('img', { name: /^Section through the board/ });
  const length = async () => Number(/([\d.]+) mm long/.exec((await strip.getAttribute('aria-label'))!)![1]);
  const whole = await length();
  const part = page.waitForResponse((r) => r.url().includes('/part?') && r.ok());
  await page.mouse.move(middle.x, middle.y);
  for (let i = 0; i < 5; i++) await page.mouse.wheel(0, -300);
  await part;
  const near = await length();
  expect(near).toBeLessThan(whole / 4);
  await expect(page.getByTestId('readout')).toContainText(/\d target\s+-?[\d.]+ proof/);
  // By hand it is drawn along; the place under the pointer stays under it.
  const before = await page.getByTestId('readout').textContent();
  await drag(page, middle, { x: middle.x + 90, y: middle.y });
  await page.mouse.up();
  await page.mouse.move(middle.x + 92, middle.y);
  await page.mouse.move(middle.x + 90, middle.y);
  await expect(page.getByTestId('readout')).toContainText(/x [\d.]+, y/);
  expect(await page.getByTestId('readout').textContent()).toBe(before);
  await page.keyboard.press('+');
  await expect.poll(length).toBeLessThan(near / 1.3);
  await page.keyboard.press('-');
  await page.keyboard.press('0');
  await expect.poll(length).toBe(whole);
  await page.getByRole('button', { name: /^As large as it is/ }).click();
  await expect.poll(length).toBeLessThan(whole);
  await page.getByRole('button', { name: 'The whole board' }).click();
  await expect.poll(length).toBe(whole);
  // The second button of the mouse offers the same where it is.
  await page.mouse.click(middle.x, middle.y, { button: 'right' });
  await page.getByRole('menuitem', { name: /^Closer to this place/ }).click();
  await expect.poll(length).toBeLessThan(whole / 1.5);
  await page.mouse.click(middle.x, middle.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Section across the board through here' }).click();
  await expect(page.getByRole('slider', { name: /^Section line/ })).toHaveAttribute(
    'aria-valuetext',
    /^from ([\d.]+), .* to \1, /,
  );
});

test('the board is turned by keys while its view has the focus', async ({ page }) => {
  await oval(page);
  await page.getByRole('button', { name: 'turn', exact: true }).click();
  const board = page.getByRole('application', { name: /^The board; the arrow keys turn it/ });
  await expect(board).toBeVisible();
  await clean(page, 'the turned view');
  const before = await board.screenshot();
  await board.focus();
  for (let k = 0; k < 3; k++) await page.keyboard.press('ArrowLeft');
  await expect.poll(async () => (await board.screenshot()).equals(before)).toBe(false);
  // The keys are its own: nothing else of the page has moved.
  await expect(station(page, 'Proof')).toHaveAttribute('aria-current', 'step');
});

test('two places of the strip are measured', async ({ page }) => {
  await oval(page);
  const strip = (await page.getByRole('img', { name: /^Section through the board/ }).boundingBox())!;
  const y = strip.y + strip.height / 2;
  await drag(page, { x: strip.x + 300, y }, { x: strip.x + 400, y });
  await page.mouse.up();
  await expect(page.getByTestId('measure')).toContainText(/mm along, .* straight/);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('measure')).toHaveCount(0);
});

test('undo goes back after a choice and after a number, with the focus where it is; Ctrl Y goes on again', async ({
  page,
}) => {
  await emptyBoard(page);
  await station(page, 'Board').click();
  const grain = field(page, 'Grain');
  await grain.selectOption('across, along y');
  await page.keyboard.press('Control+z');
  await expect(grain).toHaveValue('along-x');
  await page.keyboard.press('Control+y');
  await expect(grain).toHaveValue('along-y');
  await enter(page, 'Thickness', '25');
  await page.keyboard.press('Control+z');
  await expect(field(page, 'Thickness')).toHaveValue('19 mm');
  // In a field a digit is a digit; beside it, it leads to a station, until single characters are switched off.
  await field(page, 'Thickness').press('2');
  await expect(station(page, 'Board')).toHaveAttribute('aria-current', 'step');
  await field(page, 'Thickness').press('Escape');
  await page.getByRole('heading', { level: 1 }).click();
  await page.locator('body').press('2');
  await expect(station(page, 'Arrange')).toHaveAttribute('aria-current', 'step');
  await page.locator('body').press('?');
  await page.getByRole('checkbox', { name: /^Single characters/ }).uncheck();
  await page.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('heading', { level: 1 }).click();
  await page.locator('body').press('1');
  await expect(station(page, 'Arrange')).toHaveAttribute('aria-current', 'step');
});

test('files let go beside the zone are taken: in the shop a job each, in a job a layer each; one that is refused keeps none of the others', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('heading', { name: 'On the rack' }).waitFor();
  const bad = { name: 'bad.stl', buffer: Buffer.alloc(84) };
  await letGo(page, [relief('left loaf.stl'), bad, relief('right loaf.stl')], { x: 40, y: 760 });
  await expect(page.getByRole('link', { name: 'left loaf.stl: open its job' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'right loaf.stl: open its job' })).toBeVisible();
  await expect(page.getByRole('alert').filter({ hasText: 'bad.stl: holds 0 triangles' })).toBeVisible();
  expect(page.url()).toBe(`${BASE}/`);
  await page.getByRole('link', { name: 'left loaf.stl: open its job' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'left loaf' })).toBeVisible();

  const id = await emptyBoard(page);
  await station(page, 'Board').click();
  await letGo(page, [relief('first.stl'), relief('second.stl')], { x: 60, y: 700 });
  await expect(station(page, 'Arrange')).toHaveAttribute('aria-current', 'step');
  await expect(layerRow(page, 'first')).toBeVisible();
  await expect(layerRow(page, 'second')).toBeVisible();
  await saved(page);
  expect((await jobOf(id)).layers.map((l) => l.name)).toEqual(['first', 'second']);
});

test('layers and passes are copied into other jobs; menus do what the keys do; what goes says so, with the way back', async ({
  page,
}) => {
  await emptyBoard(page);
  await station(page, 'Arrange').click();
  await fromDrawer(page, 'Loaf', 100, 100);
  await page.keyboard.press('Control+c');
  await expect(page.getByText('Loaf copied')).toBeVisible();
  await station(page, 'Passes').click();
  await page.getByRole('button', { name: /^Roughing with / }).click();
  await page.keyboard.press('Control+d');
  await expect(page.getByRole('button', { name: /^Roughing with / })).toHaveCount(2);
  await page.keyboard.press('Delete');
  await expect(page.getByRole('button', { name: /^Roughing with / })).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo', exact: true }).last().click();
  await expect(page.getByRole('button', { name: /^Roughing with / })).toHaveCount(2);

  await emptyBoard(page);
  await station(page, 'Arrange').click();
  await page.keyboard.press('Control+v');
  await expect(layerRow(page, 'Loaf')).toBeVisible();
  await layerRow(page, 'Loaf').click({ button: 'right' });
  const menu = page.getByRole('menu');
  await expect(menu.getByRole('menuitem', { name: /^Duplicate/ })).toBeVisible();
  await clean(page, 'a menu of a layer', '[role="menu"]');
  await menu.getByRole('menuitem', { name: /^Rename/ }).click();
  const name = page.getByRole('textbox', { name: 'New name of Loaf' });
  await name.fill('Round loaf');
  await name.press('Enter');
  await expect(layerRow(page, 'Round loaf')).toBeVisible();
  await layerRow(page, 'Round loaf').press('Backspace');
  await expect(page.getByText('Round loaf removed')).toBeVisible();
  await expect(layerRow(page, 'Round loaf')).toHaveCount(0);
  await page.getByRole('status').getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(layerRow(page, 'Round loaf')).toBeVisible();
});

test('hours stay on the screen while a change is planned, as about so many', async ({ page }) => {
  await oval(page);
  await station(page, 'Passes').click();
  await page.getByRole('button', { name: /^Finishing with / }).click();
  // Held up, so that what is shown meanwhile can be read.
  await page.route('**/api/jobs/*/plan', async (route) => {
    await new Promise((r) => setTimeout(r, 3000));
    await route.continue();
  });
  await enter(page, 'Stepover', '0.5');
  await expect(page.getByRole('button', { name: /^Finishing with .*, about / })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Roughing with .*, \d/ })).toBeVisible();
  await expect(page.getByText(/^about \d/).first()).toBeVisible();
  await proven(page);
  await expect(page.getByRole('button', { name: /, about / })).toHaveCount(0);
});

test('nothing stands in the way of people who see, hear or move otherwise: every station and place, wide and narrow, light and dark', async ({
  page,
}) => {
  const id = await oval(page);
  for (const [width, height] of [
    [1280, 800],
    [820, 1180],
  ]) {
    await page.setViewportSize({ width, height });
    for (const theme of ['birch', 'graphite']) {
      await page.evaluate((t) => localStorage.setItem('theme', t), theme);
      await page.goto(`/jobs/${id}?station=board`);
      await proven(page);
      for (const name of ['Board', 'Arrange', 'Passes', 'Proof', 'Run']) {
        await station(page, name).click();
        if (width < 1024)
          await page.getByRole('complementary', { name }).getByRole('button', { name, exact: true }).click();
        await clean(page, `${name}, ${width}, ${theme}`);
        if (width < 1024)
          await page.getByRole('complementary', { name }).getByRole('button', { name, exact: true }).click();
      }
    }
  }
  for (const place of ['/', '/shop/bits', '/shop/machines', '/shop/materials', '/shop/recipes', '/guide']) {
    await page.goto(place);
    await page.getByRole('heading').first().waitFor();
    await clean(page, `${place}, dark, narrow`);
  }
});

test.describe('by touch on a tablet held upright', () => {
  test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true, isMobile: true });

  test('a relief becomes programs: the card is drawn up, and everything is large enough for a finger', async ({
    page,
  }) => {
    await page.goto('/');
    await page.getByLabel(/Drop a relief here/).setInputFiles(relief('loaf.stl'));
    await expect(page.getByRole('heading', { level: 1, name: 'loaf' })).toBeVisible();
    await station(page, 'Board').tap();
    const sheet = page.getByRole('complementary', { name: 'Board' });
    const handle = sheet.getByRole('button', { name: 'Board', exact: true });
    await expect(field(page, 'Thickness')).toBeHidden();
    await handle.tap();
    await expect(field(page, 'Thickness')).toBeVisible();
    for (const b of await page.getByRole('complementary').getByRole('button').all()) {
      const box = await b.boundingBox();
      if (box && box.height > 0 && box.y < 1180)
        expect(box.height, (await b.textContent()) ?? undefined).toBeGreaterThanOrEqual(24);
    }
    await handle.tap();
    await expect(field(page, 'Thickness')).toBeHidden();
    await proven(page);
    await page.getByRole('button', { name: /^Programs, / }).tap();
    await page.getByRole('button', { name: 'Run', exact: true }).last().tap();
    await expect(page.getByRole('link', { name: 'Download all programs' })).toBeVisible();
    await clean(page, 'the job on a tablet');
  });
});
