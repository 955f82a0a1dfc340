import { drumJob } from '../src/core/plan/drum-test-kit';
import { clean, enter, field, jobOf, layerRow, putJob, saved } from './board';
import { BASE, TestServer } from './server';
import { expect, test } from './test';

const server = new TestServer();
test.beforeAll(() => server.start());
test.afterAll(() => server.close());

test('a handle by hand: a contour with flutes from the menu, square stock turned round, sawn off at its ends, proven', async ({
  page,
}) => {
  const view = drumJob([], (v) => {
    v.setup.heights.everything = 12;
    // A contour of 2 mm a ball takes by itself.
    v.passes = v.passes.filter((p) => p.kind === 'finish');
  });
  const id = await putJob(view);
  await page.goto(`${BASE}/jobs/${id}`);
  const add = async (name: string) => {
    await page.getByText('Add', { exact: true }).click();
    await page.getByRole('group', { name: 'Turned forms' }).getByRole('button', { name, exact: true }).click();
    await expect(layerRow(page, name)).toBeVisible();
  };
  await page.getByRole('button', { name: /^Arrange / }).click();
  await add('Contour');
  // It goes all round and is not turned: there is no field for either.
  await expect(field(page, 'Width, y')).toHaveCount(0);
  await expect(field(page, 'Turn')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Turn Contour' })).toHaveCount(0);
  await enter(page, 'Length, x', '26');
  await enter(page, 'Deepest', '2');
  await expect(page.getByText('leaves 16 mm across where nothing lies beneath it')).toBeVisible();
  await enter(page, 'Point 2, across', '17');
  await page.getByRole('button', { name: 'Add a point' }).click();
  await expect(field(page, 'Point 4, along')).toBeVisible();
  await saved(page);
  const [contour] = (await jobOf(id)).layers;
  expect(contour).toMatchObject({ rise: 2, lift: -2, invert: true, join: 'lowest', size: { x: 26 } });
  expect(contour.source.kind === 'turned' && contour.source.form).toMatchObject({ kind: 'contour', curved: true });
  await clean(page, 'contour', 'aside');
  await add('Flutes');
  await enter(page, 'Length, x', '14');
  await enter(page, 'Deepest', '0.6');
  await enter(page, 'How many', '6');
  await enter(page, 'Radius of the ball', '2');
  await enter(page, 'Twist', '30');
  await saved(page);
  const [, flutes] = (await jobOf(id)).layers;
  expect(flutes).toMatchObject({ join: 'carve', rise: 0.6, source: { form: { count: 6, twist: 30 } } });
  // What goes round a drum only is offered for it, and what does not is not.
  await page.getByRole('button', { name: /^Passes / }).click();
  await page.getByText('More of this pass').click();
  await page.getByRole('button', { name: 'Turn round', exact: true }).click();
  await expect(page.getByText(/its corners/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Pocket', exact: true })).toHaveCount(0);
  await enter(page, 'Its side', '21');
  const more = page.getByRole('button', { name: 'Cut off', exact: true });
  if (!(await more.isVisible())) await page.getByText('More of this pass').click();
  await more.click();
  await enter(page, 'Left in the middle', '9');
  await enter(page, 'Groove 1, x', '9.2');
  await enter(page, 'Groove 2, x', '36.8');
  await saved(page);
  expect((await jobOf(id)).passes.map((p) => p.kind)).toEqual(['turn', 'finish', 'part']);
  await page.getByRole('button', { name: /^Proof / }).click();
  await expect(page.getByText('proven', { exact: true })).toBeVisible({ timeout: 300_000 });
  await expect(page.getByText(/Inside it lies a core/)).toBeVisible();
  await page.getByRole('button', { name: /^Run / }).click();
  await expect(page.getByText(/A square one is turned round first/)).toBeVisible();
});
