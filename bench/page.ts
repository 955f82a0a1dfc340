import { existsSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { chromium } from '@playwright/test';
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
    const id = await putJob(job);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${BASE}/jobs/${id}`);
    await page.getByRole('button', { name: /^Arrange / }).click();
    const sharp = page.locator('[data-sharp="true"]');
    await sharp.waitFor({ timeout: 60_000 });
    await page
      .getByRole('button', { name: 'Cancel' })
      .click({ timeout: 10_000 })
      .catch(() => {});
    await page.evaluate(() => {
      const board = document.querySelector('[data-coarse-ms]') as HTMLElement;
      const seen: number[] = [];
      Object.assign(window, { seen });
      new MutationObserver(() => seen.push(Number(board.dataset.coarseMs))).observe(board, {
        attributes: true,
        attributeFilter: ['data-coarse-ms'],
      });
    });
    const box = (await page.getByTestId('board-hands').boundingBox())!;
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2 - 20];
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (let i = 1; i <= 150; i++) {
      await page.mouse.move(x + 40 * Math.sin(i / 7), y + 20 * Math.cos(i / 5));
      await page.waitForTimeout(25);
    }
    const times = await page.evaluate(() => (window as unknown as { seen: number[] }).seen);
    const start = performance.now();
    await page.mouse.up();
    await page.locator('[data-sharp="false"]').waitFor({ timeout: 10_000 });
    await sharp.waitFor({ timeout: 30_000 });
    const settled = performance.now() - start;
    times.sort((a, b) => a - b);
    const at = (q: number) => times[Math.min(times.length - 1, Math.floor(q * times.length))];
    row(
      `  coarse in the worker while dragging, ${times.length} times, median, 95th percentile`,
      `${at(0.5).toFixed(1)} ms, ${at(0.95).toFixed(1)} ms`,
    );
    row('  full grid on the screen after letting go, with the wait of 0.12 s', `${(settled / 1000).toFixed(2)} s`);
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
