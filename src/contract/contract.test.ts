import { readdirSync, readFileSync } from 'node:fs';
import { afterEach, expect, test, vi } from 'vitest';
import { DRAWER, HOBBY_MACHINE } from '../core/doc/defaults';
import { plainJob } from '../core/plan/propose';
import { AskError, ask } from './ask';
import { ASSETS } from './assets';
import { addressOf, type Endpoint } from './endpoint';
import { JOBS } from './jobs';
import { PATTERNS } from './patterns';
import { PLANS } from './plans';
import { SHOP } from './shop';

const ALL: Record<string, Record<string, Endpoint>> = { JOBS, PLANS, ASSETS, PATTERNS, SHOP };
const ROUTES = 'src/app';

test('every route serves what the contract says, by that very entry, and nothing of it is without a route', () => {
  const promised = Object.entries(ALL).flatMap(([group, of]) =>
    Object.entries(of).map(([name, e]) => `${e.method} ${e.path} ${group}.${name}`),
  );
  const served = (readdirSync(ROUTES, { recursive: true }) as string[])
    .filter((f) => f.endsWith('route.ts'))
    .flatMap((f) =>
      [...readFileSync(`${ROUTES}/${f}`, 'utf8').matchAll(/export const ([A-Z]+) = (?:serve\((\w+\.\w+))?/g)].map(
        ([, method, entry]) => `${method} /${f.replace(/\/route\.ts$/, '')} ${entry}`,
      ),
    );
  expect(served.length).toBeGreaterThan(30);
  expect(served.sort()).toEqual(promised.sort());
});

test('an address is made of its parts and fields, whatever they hold', () => {
  expect(addressOf(JOBS.rack, {})).toBe('/api/jobs');
  expect(addressOf(JOBS.removeVersion, { id: 'a/b', version: 'ü?' })).toBe('/api/jobs/a%2Fb/versions/%C3%BC%3F');
  expect(addressOf(PLANS.program, { id: 'p', index: '0' })).toBe('/api/plans/p/programs/0');
  const url = new URL(addressOf(JOBS.import, { name: 'a&b = c.zip' }), 'http://127.0.0.1');
  expect(url.searchParams.get('name')).toBe('a&b = c.zip');
});

test('fields of an address come back as the numbers that they were', () => {
  const at = { setup: 's 1', x0: -1.5, y0: 0, x1: 1e-7, y1: 200, n: 300 };
  const { search } = new URL(addressOf(PLANS.section, { id: 'p', ...at }), 'http://127.0.0.1');
  expect(PLANS.section.query.parse(Object.fromEntries(new URLSearchParams(search)))).toEqual(at);
});

afterEach(() => vi.unstubAllGlobals());

/** Lets every request be answered with this. */
function answering(body: unknown, status = 200): { method: string; url: string; body: unknown }[] {
  const seen: { method: string; url: string; body: unknown }[] = [];
  vi.stubGlobal('fetch', async (url: string, init: RequestInit) => {
    seen.push({ method: String(init.method), url, body: init.body });
    return new Response(typeof body === 'string' ? body : JSON.stringify(body), { status });
  });
  return seen;
}

const thrown = (p: Promise<unknown>) =>
  p.then(
    () => null,
    (e) => e as AskError,
  );

test('a document goes out and comes back whole', async () => {
  const document = plainJob({
    name: 'Board',
    order: '',
    machine: HOBBY_MACHINE,
    rough: DRAWER[0],
    finish: DRAWER[1],
    board: { x: 300, y: 200, thickness: 19 },
  });
  const answer = { id: 'j', revision: 'r2', document, updated: 'now', kept: [] };
  const seen = answering(answer);
  expect(await ask(JOBS.save, { id: 'j' }, { base: 'r1', document })).toEqual(answer);
  expect(seen).toEqual([{ method: 'PUT', url: '/api/jobs/j', body: JSON.stringify({ base: 'r1', document }) }]);
});

test('a refusal is told in its own words, with what it says of a late save', async () => {
  answering({ error: 'another page has saved', head: 'h', kept: 'k' }, 409);
  const e = await thrown(ask(JOBS.moveHead, { id: 'j' }, { from: 'a', to: 'b' }));
  expect(e).toBeInstanceOf(AskError);
  expect(e?.message).toBe('another page has saved');
  expect(e?.status).toBe(409);
  expect(e?.says).toEqual({ head: 'h', kept: 'k' });
});

test('what does not fit the contract is refused, not shown', async () => {
  for (const body of ['<html>', { jobs: [] }, [{ id: 'j', name: 3 }]]) {
    answering(body);
    expect((await thrown(ask(JOBS.rack, {})))?.message).toMatch('could not be read');
  }
  answering('<html>Bad gateway</html>', 502);
  expect((await thrown(ask(JOBS.rack, {})))?.message).toMatch('answers with 502');
});

test('a server that is not there is said', async () => {
  vi.stubGlobal('fetch', async () => {
    throw new TypeError('fetch failed');
  });
  const e = await thrown(ask(JOBS.rack, {}));
  expect(e?.message).toMatch('does not answer');
  expect(e?.status).toBe(0);
});
