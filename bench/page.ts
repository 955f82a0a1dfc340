import { existsSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { putJob } from '../e2e/board';
import { BASE, TestServer } from '../e2e/server';
import config from '../playwright.config';
import { writeStl } from '../src/core/sources/stl';
import { bumps, twentyLayers } from './arrange';
import { row } from './row';

/** The real page in headless Chromium: a layer dragged among twenty, and a large model put on the board. */
export async function benchPage(): Promise<void> {
  console.log('\nThe page in headless Chromium');
  if (!existsSync('.next/BUILD_ID')) {
    row('  not measured', 'there is no build; run "npm run build" first');
    return;
  }
  const server = new TestServer();
  await server.start();
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const { job, files } = await twentyLayers();
    for (const f of files.values())
      await fetch(`${BASE}/api/assets?name=${f.name}`, { method: 'PUT', body: f.bytes as Uint8Array<ArrayBuffer> });
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const ten = structuredClone(job.document);
    for (const { setups } of ten.boards) for (const s of setups) s.layers = s.layers.slice(0, 10);
    await dragged(page, await putJob({ document: ten }), 'ten');
    await firstPicture(page);
    await dragged(page, await putJob(job), 'twenty');
    const sharp = page.locator('[data-sharp="true"]');
    const file = path.join(server.data, 'million.stl');
    writeFileSync(file, writeStl(bumps(708), 'bumps'));
    const put = performance.now();
    await page.getByLabel('Add a file').setInputFiles(file);
    await page.getByRole('heading', { level: 2, name: 'million' }).waitFor({ timeout: 60_000 });
    const there = performance.now();
    await sharp.waitFor({ timeout: 60_000 });
    row(
      '  a million triangles: on the board, and sharp among the other twenty',
      `${((there - put) / 1000).toFixed(2)} s, ${((performance.now() - put) / 1000).toFixed(2)} s`,
    );
  } finally {
    await browser.close();
    await server.close();
  }
}

/** Opens a job on Arrange, and waits until its layers are sharp and nothing is being planned. */
async function arranged(page: Page, id: string): Promise<void> {
  await page.goto(`${BASE}/jobs/${id}?station=arrange`);
  await page.locator('[data-sharp="true"]').waitFor({ timeout: 60_000 });
  await page
    .getByRole('button', { name: 'Cancel' })
    .click({ timeout: 10_000 })
    .catch(() => {});
}

/** A layer dragged to and fro: what a move costs the page's own thread and the worker, and how long it then takes until all is sharp. */
async function dragged(page: Page, id: string, layers: string): Promise<void> {
  await arranged(page, id);
  await page.evaluate(() => {
    const board = document.querySelector('[data-coarse-ms]') as HTMLElement;
    const seen: number[] = [];
    const long: number[] = [];
    Object.assign(window, { seen, long });
    new MutationObserver(() => seen.push(Number(board.dataset.coarseMs))).observe(board, {
      attributes: true,
      attributeFilter: ['data-coarse-ms'],
    });
    new PerformanceObserver((l) => long.push(...l.getEntries().map((e) => e.duration))).observe({ type: 'longtask' });
  });
  const box = (await page.getByTestId('board-hands').boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2 - 20];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 10; i++) await page.mouse.move(x + i, y);
  // What it costs to take a layer in hand, its card with it, is told apart from what it costs to move it.
  const taking = await page.evaluate(() => (window as unknown as { long: number[] }).long.splice(0));
  const spentSince = await taskClock(page);
  for (let i = 1; i <= MOVES; i++) {
    await page.mouse.move(x + 40 * Math.sin(i / 7), y + 20 * Math.cos(i / 5));
    await page.waitForTimeout(25);
  }
  const spent = await spentSince();
  const { seen, long } = await page.evaluate(() => {
    const { seen, long } = window as unknown as { seen: number[]; long: number[] };
    return { seen, long };
  });
  const start = performance.now();
  await page.mouse.up();
  await page.locator('[data-sharp="false"]').waitFor({ timeout: 10_000 });
  await page.locator('[data-sharp="true"]').waitFor({ timeout: 30_000 });
  const settled = performance.now() - start;
  seen.sort((a, b) => a - b);
  const at = (q: number) => seen[Math.min(seen.length - 1, Math.floor(q * seen.length))];
  console.log(`  a drag with ${layers} layers, ${MOVES} moves`);
  row('    of the page’s own thread, a move', `${((1000 * spent) / MOVES).toFixed(1)} ms`);
  const told = (tasks: number[]) => `${tasks.length}, ${Math.max(0, ...tasks).toFixed(0)} ms`;
  row('    tasks over 50 ms while it moves, the longest', told(long));
  row('    the same as it is taken in hand', told(taking));
  row(
    `    coarse in the worker, ${seen.length} times, median, 95th percentile`,
    `${at(0.5).toFixed(1)} ms, ${at(0.95).toFixed(1)} ms`,
  );
  row('    as fine as it is shown after letting go, with the wait of 0.12 s', `${(settled / 1000).toFixed(2)} s`);
}

/** Moves of a drag that is measured. */
const MOVES = 150;

/** Tells how many seconds tasks have taken on the page's own thread since now. */
async function taskClock(page: Page): Promise<() => Promise<number>> {
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Performance.enable', { timeDomain: 'threadTicks' });
  const now = async () => {
    const { metrics } = await cdp.send('Performance.getMetrics');
    return metrics.find((m) => m.name === 'TaskDuration')!.value;
  };
  const from = await now();
  return async () => (await now()) - from;
}

/** A job that has been proven, opened: until its picture is on the screen. */
async function firstPicture(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Prove the cut' }).click();
  await page.getByRole('button', { name: /^Programs, / }).waitFor({ timeout: 600_000 });
  const url = page.url().replace('arrange', 'proof');
  const [first, took, spent] = [[], [], []] as [number[], number[], number[]];
  for (let i = 0; i < 5; i++) {
    await page.goto('about:blank');
    const spentSince = await taskClock(page);
    await page.goto(url, { waitUntil: 'commit' });
    took.push(await whenShown(page, '[data-drawn="proven"]'));
    spent.push(await spentSince());
    first.push(await whenPainted(page, '/picture'));
  }
  const middle = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1];
  const said = (ms: number[]) => `${(middle(ms) / 1000).toFixed(2)} s`;
  row('  a proven job opened: a picture of it on the screen, median of 5', said(first));
  row('    its own board, to be worked with', said(took));
  row('    of the page’s own thread until then', `${middle(spent).toFixed(2)} s`);
}

/** When something is first on the page, ms after the page was asked for. */
async function whenShown(page: Page, selector: string): Promise<number> {
  const at = await page.waitForFunction((s) => (document.querySelector(s) ? performance.now() : 0), selector, {
    polling: 'raf',
  });
  return at.jsonValue();
}

/** When the browser painted an image, by its own record, ms after the page was asked for; not a number where it never did. */
async function whenPainted(page: Page, address: string): Promise<number> {
  return page.evaluate(
    (part) =>
      new Promise<number>((resolve) => {
        setTimeout(() => resolve(Number.NaN), 5000);
        new PerformanceObserver((l) => {
          const painted = l.getEntries().find((e) => (e as LargestContentfulPaint).url.includes(part));
          if (painted) resolve(painted.startTime);
        }).observe({ type: 'largest-contentful-paint', buffered: true });
      }),
    address,
  );
}
