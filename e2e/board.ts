import AxeBuilder from '@axe-core/playwright';
import { demoPatterns } from '../demo/patterns';
import type { Job } from '../src/core/doc/job';
import { type SetupView, setupView } from '../src/core/setup/view';
import { BASE } from './server';
import { expect, type Page } from './test';

/** The shop's pattern drawer, filled as uploads fill it. */
export async function fillDrawer(): Promise<void> {
  for (const p of demoPatterns()) {
    const { hash } = await putFile(p.file, p.bytes);
    const kept = await fetch(`${BASE}/api/patterns`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-zealous-grain': '1' },
      body: JSON.stringify({ hash, name: p.name, tags: p.tags, from: p.from, size: p.size, rise: p.rise }),
    });
    expect(kept.ok).toBe(true);
  }
}

export async function putFile(name: string, bytes: Uint8Array): Promise<{ hash: string }> {
  const put = await fetch(`${BASE}/api/assets?name=${encodeURIComponent(name)}`, {
    method: 'PUT',
    body: bytes as Uint8Array<ArrayBuffer>,
  });
  expect(put.ok).toBe(true);
  return put.json() as Promise<{ hash: string }>;
}

async function send(method: string, url: string, body: unknown): Promise<{ id: string; revision: string }> {
  const res = await fetch(BASE + url, {
    method,
    headers: { 'content-type': 'application/json', 'x-zealous-grain': '1' },
    body: JSON.stringify(body),
  });
  expect(res.ok, await res.clone().text()).toBe(true);
  return (await res.json()) as { id: string; revision: string };
}

/** A job with this document, as its id. */
export async function putJob({ document }: Pick<SetupView, 'document'>): Promise<string> {
  const { id, revision } = await send('POST', '/api/jobs', {});
  await send('PUT', `/api/jobs/${id}`, { base: revision, document });
  return id;
}

/** A stored job as the setup sees it that cuts its layers. */
export async function jobOf(id: string): Promise<SetupView> {
  const res = await fetch(`${BASE}/api/jobs/${id}`);
  return setupView(((await res.json()) as { document: Job }).document);
}

export const field = (page: Page, label: string) => page.getByLabel(label, { exact: true });

export async function enter(page: Page, label: string, value: string): Promise<void> {
  await field(page, label).fill(value);
  await field(page, label).press('Enter');
}

/** A layer in the list, by its name. */
export const layerRow = (page: Page, name: string) =>
  page.getByRole('list', { name: /^Layers/ }).getByRole('button', { name: new RegExp(`^${name} `) });

/** Lets the selected layer join in another way, by its picture. */
export async function join(page: Page, way: string): Promise<void> {
  await page.getByRole('group', { name: 'Joins' }).getByText(way, { exact: true }).click();
}

/** Nothing that stands in the way of people who see, hear or move otherwise is found on a page, or in a part of it. */
export async function clean(page: Page, what: string, part?: string): Promise<void> {
  const axe = new AxeBuilder({ page });
  const { violations } = await (part ? axe.include(part) : axe).analyze();
  const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
  expect(serious.map((v) => `${what} ${v.id}: ${v.nodes[0].html}`)).toEqual([]);
}

export async function saved(page: Page): Promise<void> {
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
}

/** Where a place of the board is on the screen. */
export async function onScreen(page: Page, x: number, y: number, board = { x: 300, y: 200 }) {
  const box = (await page.getByTestId('board-hands').boundingBox())!;
  const scale = Math.min((box.width - 52) / board.x, (box.height - 52) / board.y);
  return {
    x: box.x + (box.width - board.x * scale) / 2 + x * scale,
    y: box.y + (box.height + board.y * scale) / 2 - y * scale,
    scale,
  };
}

export async function pressBoard(page: Page, x: number, y: number): Promise<void> {
  const at = await onScreen(page, x, y);
  await page.mouse.click(at.x, at.y);
}

/** Drags from one place of the screen to another, in steps as a hand does. */
export async function drag(page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
}

/** Drags a pattern from the drawer onto a place of the board. */
export async function fromDrawer(page: Page, name: string, x: number, y: number): Promise<void> {
  const piece = page.getByRole('button', { name: new RegExp(`^${name}`) }).first();
  await piece.scrollIntoViewIfNeeded();
  const box = (await piece.boundingBox())!;
  await drag(page, { x: box.x + box.width / 2, y: box.y + 30 }, await onScreen(page, x, y));
  await page.mouse.up();
  await expect(page.getByRole('heading', { level: 2, name })).toBeVisible();
}

/**
 * A job begun on an empty board, as its id.
 * @param cell mm: planned by itself after every change, on coarse cells that is soon done; null for the one that its bits ask for
 */
export async function emptyBoard(page: Page, cell: number | null = 0.6): Promise<string> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Start from an empty board' }).click();
  await page.waitForURL(/\/jobs\//);
  const id = page.url().split('/').pop()!;
  const { document, revision } = (await (await fetch(`${BASE}/api/jobs/${id}`)).json()) as {
    document: Job;
    revision: string;
  };
  await send('PUT', `/api/jobs/${id}`, { base: revision, document: { ...document, cell } });
  await page.reload();
  return id;
}
