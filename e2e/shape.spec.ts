import { readFileSync } from 'node:fs';
import path from 'node:path';
import { clean, drag, emptyBoard, enter, field, jobOf, join, layerRow, saved } from './board';
import { BASE, TestServer } from './server';
import { expect, type Page, test } from './test';

const server = new TestServer();
test.beforeAll(() => server.start());
test.afterAll(() => server.close());

const handle = (page: Page, name: string) => page.getByRole('slider', { name, exact: true });

/** Drags a handle by pixels to the right and down. */
async function pull(page: Page, name: string, right: number, down: number): Promise<void> {
  await handle(page, name).scrollIntoViewIfNeeded();
  const box = (await handle(page, name).boundingBox())!;
  const from = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  await drag(page, from, { x: from.x + right, y: from.y + down });
  await page.mouse.up();
}

async function add(page: Page, name: string): Promise<void> {
  await page.getByText('Add', { exact: true }).click();
  await page.getByRole('button', { name, exact: true }).click();
  await expect(page.getByRole('heading', { level: 2, name })).toBeVisible();
}

test('a layer and a group are shaped by the handles of their section, by hand and by keys; joins are pictures of what they would make', async ({
  page,
}) => {
  const id = await emptyBoard(page);
  await page.getByRole('button', { name: /^Arrange / }).click();
  await add(page, 'Panel');
  await add(page, 'Circle');
  const layer = async (name: string) => (await jobOf(id)).layers.find((l) => l.name === name)!;

  // By keys: a tenth of a millimetre, with Shift a whole one; each can be undone.
  await handle(page, 'Rise of Circle').focus();
  await page.keyboard.press('ArrowUp');
  await expect(field(page, 'Rise')).toHaveValue('5.1 mm');
  await page.keyboard.press('Shift+ArrowUp');
  await expect(field(page, 'Rise')).toHaveValue('6.1 mm');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(field(page, 'Rise')).toHaveValue('5.1 mm');
  await handle(page, 'Slope of Circle').focus();
  await page.keyboard.press('ArrowUp');
  await expect(field(page, 'Slope')).toHaveValue('0.5');

  // By hand: up raises, to the right thins.
  await pull(page, 'Rise of Circle', 0, -20);
  await expect.poll(async () => (await layer('Circle')).rise).toBeGreaterThan(5.5);
  await pull(page, 'Thinning of Circle', 30, 0);
  await expect.poll(async () => (await layer('Circle')).thin).toBeGreaterThan(1);
  await pull(page, 'Lift of Circle', 0, -15);
  await expect.poll(async () => (await layer('Circle')).lift).toBeGreaterThan(0.3);
  // Across it, the slope is the other one.
  await page.getByRole('button', { name: 'across it' }).click();
  await expect(field(page, 'Slope')).toHaveValue('0');
  await enter(page, 'Slope', '2');
  await expect.poll(async () => (await layer('Circle')).slope).toEqual({ x: 0.5, y: 2 });

  await join(page, 'carve into');
  await expect(page.getByText(/^It digs \d/)).toBeVisible();
  // What digs is deeper where the hand goes down.
  const before = (await layer('Circle')).rise;
  await pull(page, 'Rise of Circle', 0, 18);
  await expect.poll(async () => (await layer('Circle')).rise).toBeGreaterThan(before);
  await saved(page);

  // Both together: rises keep their proportions.
  const rises = [(await layer('Panel')).rise, (await layer('Circle')).rise];
  await layerRow(page, 'Panel').click({ modifiers: ['Shift'] });
  await page.locator('body').press('Control+g');
  await expect(handle(page, 'Rise of Group 1')).toBeVisible();
  await handle(page, 'Rise of Group 1').focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect.poll(async () => (await layer('Panel')).rise).toBeGreaterThan(rises[0]);
  const after = [(await layer('Panel')).rise, (await layer('Circle')).rise];
  expect(after[1] / after[0]).toBeCloseTo(rises[1] / rises[0], 2);
  await handle(page, 'Lift of Group 1').focus();
  await page.keyboard.press('ArrowUp');
  await expect.poll(async () => (await layer('Panel')).lift).toBeCloseTo(0.1, 6);
});

for (const scheme of ['light', 'dark'] as const)
  test(`nothing serious is found on the cards of a layer and of its passes, ${scheme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: scheme });
    await emptyBoard(page);
    await page.getByRole('button', { name: /^Arrange / }).click();
    await add(page, 'Panel');
    await expect(handle(page, 'Rise of Panel')).toBeVisible();
    await clean(page, 'arrange');
    await page.getByRole('button', { name: /^Passes / }).click();
    await page.getByText('Recipes', { exact: true }).click();
    await clean(page, 'passes');
  });

test('a recipe is made from a job, goes out and in, and is taken to another job on a weaker machine with what did not fit said', async ({
  page,
}) => {
  const first = await emptyBoard(page);
  await page.getByRole('button', { name: /^Arrange / }).click();
  await add(page, 'Panel');
  await page.getByRole('button', { name: /^Passes / }).click();
  await enter(page, 'Stepdown', '1.7');
  await saved(page);
  await page.getByText('Recipes', { exact: true }).click();
  await enter(page, 'New recipe', 'Panels in maple');
  await page.getByRole('button', { name: 'Make my recipe from this job' }).click();
  await expect(page.getByText("Panels in maple is kept among the shop's recipes.")).toBeVisible();

  // Out of the shop, taken away, and in again.
  await page.goto('/shop/recipes');
  await expect(page.getByRole('heading', { level: 2, name: 'Panels in maple' })).toBeVisible();
  await expect(page.getByText(/stepdown 1\.7 mm/)).toBeVisible();
  const coming = page.waitForEvent('download');
  await page.getByRole('button', { name: 'JSON' }).click();
  const file = path.join(server.data, 'recipes.json');
  await (await coming).saveAs(file);
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByText(/^No recipes yet/)).toBeVisible();
  await page.getByLabel('File to import').setInputFiles({
    name: 'recipes.json',
    mimeType: 'application/json',
    buffer: readFileSync(file),
  });
  await expect(page.getByRole('heading', { level: 2, name: 'Panels in maple' })).toBeVisible();
  await clean(page, 'recipes');

  // Another job, on the weak desktop machine: its collet takes no 6.35 mm shank.
  const { machines } = await (await fetch(`${BASE}/api/library`)).json();
  const weak = machines.find((m: { name: string }) => m.name === 'Desktop router 300');
  const send = (order: string[]) =>
    fetch(`${BASE}/api/library`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'x-zealous-grain': '1' },
      body: JSON.stringify({
        put: { machines: [], cutters: [], materials: [], recipes: [] },
        remove: { machines: [], cutters: [], materials: [], recipes: [] },
        order: { machines: order, cutters: [], materials: [], recipes: [] },
      }),
    });
  expect((await send([weak.id])).ok).toBe(true);
  const second = await emptyBoard(page);
  expect((await jobOf(second)).machine.id).toBe(weak.id);
  await page.getByRole('button', { name: /^Passes / }).click();
  await page.getByText('Recipes', { exact: true }).click();
  await page.getByRole('button', { name: 'Apply this recipe' }).click();
  const said = page.getByRole('status').filter({ hasText: 'Panels in maple is applied' });
  await expect(said).toContainText('takes its place');
  await saved(page);
  const { passes, cutters } = await jobOf(second);
  expect(passes.map((p) => p.kind)).toEqual((await jobOf(first)).passes.map((p) => p.kind));
  for (const c of cutters) expect(weak.collets).toContain(c.shankDiameter);
});

test('a new shop asks for its machine and its bits, says what follows, and can skip both; a term opens what it means here', async ({
  page,
}) => {
  const own = new TestServer();
  await server.kill();
  await own.start();
  try {
    await page.goto('/');
    const asked = page.getByRole('region', { name: 'A new shop' });
    await asked.getByRole('radio', { name: /^Desktop router 300/ }).check();
    await expect(asked.getByText('its 6.35 mm shank fits no collet').first()).toBeVisible();
    await expect(asked).toContainText(
      'New boards begin with end mill 3.175 for roughing and ball 3.175 for finishing.',
    );
    await expect(asked).toContainText('boards longer than 300 mm or wider than 180 mm');
    await clean(page, 'new shop');
    await asked.getByRole('checkbox', { name: /^drill 6/ }).uncheck();
    await asked.getByRole('button', { name: 'Begin with this shop' }).click();
    await expect(asked).toBeHidden();
    const { machines, cutters } = await (await fetch(`${BASE}/api/library`)).json();
    expect(machines[0].name).toBe('Desktop router 300');
    expect(cutters.map((c: { name: string }) => c.name)).not.toContain('drill 6');
    const job = await jobOf(await emptyBoard(page));
    for (const c of job.cutters) expect(machines[0].collets).toContain(c.shankDiameter);

    await expect(page.getByRole('region', { name: 'First steps' })).toBeVisible();
    await page.getByRole('button', { name: 'Leave the first steps' }).click();
    await page.getByRole('button', { name: /^Passes / }).click();
    await page.getByRole('button', { name: 'What is meant by stepdown' }).click();
    await expect(page.getByText(/^The most that a pass goes down at once: \d/)).toBeVisible();
    await page.reload();
    await expect(page.getByRole('button', { name: 'What is meant by stepdown' })).toBeVisible();
    await expect(page.getByRole('region', { name: 'First steps' })).toBeHidden();
    // Fields of the whole shop show inches first when that is wanted; what is stored stays the same.
    const { stepdown } = (await jobOf(page.url().split('/').pop()!.split('?')[0])).passes[0] as { stepdown: number };
    await page.getByRole('button', { name: 'Lengths in mm; change to in' }).click();
    await expect(field(page, 'Stepdown')).toHaveValue(`${Number((stepdown / 25.4).toFixed(4))} in`);
    await expect(field(page, 'Feed')).toHaveValue(/^\d+(\.\d+)?$/);
    await enter(page, 'Stepdown', '0.05');
    await expect(field(page, 'Stepdown')).toHaveValue('0.05 in');
    // Sentences, terms and the header are told in inches too.
    await expect(page.getByText(/Clears in levels of at most/)).toContainText('0.05 in');
    await page.getByRole('button', { name: 'What is meant by stepdown' }).click();
    await expect(page.getByText(/^The most that a pass goes down at once: 0\.05 in/)).toBeVisible();
    await page.keyboard.press('Escape');
    await page.goto('/shop/bits');
    await expect(field(page, 'Diameter')).toHaveValue(/ in$/);
    await page.getByRole('button', { name: 'Lengths in in; change to mm' }).click();
    await expect(field(page, 'Diameter')).toHaveValue(/ mm$/);
  } finally {
    await own.close();
    await server.start();
  }
});
