import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer, type IncomingMessage, type RequestListener, type Server } from 'node:http';
import { request } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { generate } from 'selfsigned';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { isOwnRequest } from '../origin';
import { PairingCode } from './code';
import { ACCESS_FILE, DeviceBook } from './devices';
import { devicesFor } from './held';
import { otherDevices, placeOf, unmarked } from './listen';
import { GATE_HEADER } from './mark';

let folder: string;
const servers: Server[] = [];
const said: string[] = [];

beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'zg-gate-'));
  said.length = 0;
});
afterEach(async () => {
  for (const s of servers.splice(0)) {
    s.closeAllConnections();
    await new Promise((done) => s.close(done));
  }
  rmSync(folder, { recursive: true, force: true });
});

/** The shop behind the gate: it says what it was asked, and keeps a stream open. */
const seen: IncomingMessage[] = [];
const shop: RequestListener = (req, res) => {
  seen.push(req);
  if (req.url === '/stream') res.write('first\n');
  else res.end(`shop ${req.url}`);
};

async function serve(server: Server): Promise<string> {
  servers.push(server);
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return `127.0.0.1:${(server.address() as AddressInfo).port}`;
}

/** The second listener, on a port of its own. */
async function second(tls: { cert: string; key: string } | null = null) {
  seen.length = 0;
  const made = otherDevices({ place: '127.0.0.1:4174', tls, folder, say: (t) => said.push(t) }, shop);
  const at = await serve(made.server);
  return { ...made, at, url: `http://${at}` };
}

const html = { accept: 'text/html' };
const pair = (url: string, code: string, headers: Record<string, string> = {}, name = 'Bench tablet') =>
  fetch(`${url}/pair`, {
    method: 'POST',
    body: new URLSearchParams({ code, name }),
    headers: { ...html, ...headers },
    redirect: 'manual',
  });
const cookieOf = (res: Response) => (res.headers.get('set-cookie') ?? '').split(';')[0];

test('a device that is not paired gets the pairing page and nothing else, whatever it says of itself', async () => {
  const { url, at } = await second();
  const page = await fetch(url, { headers: html });
  expect(page.status).toBe(401);
  const text = await page.text();
  expect(text).toContain('Pair this device');
  expect(text).toContain('This connection is plain http.');
  expect(page.headers.get('content-security-policy')).toMatch(/^default-src 'none'; style-src 'nonce-/);
  expect(text).not.toContain('<script');
  const tries: [string, RequestInit][] = [
    ['/api/jobs', {}],
    ['/api/jobs', { method: 'POST', body: '{}' }],
    ['/_next/static/chunks/main.js', {}],
    ['//api/jobs', {}],
    ['/pair', {}],
    ['/pair', { method: 'PUT', body: 'x' }],
    ['/jobs/1', { headers: html }],
    ['/api/jobs', { headers: { host: 'localhost', 'x-forwarded-for': '127.0.0.1', 'x-forwarded-host': 'localhost' } }],
    ['/api/jobs', { headers: { [GATE_HEADER]: process.env.ZG_GATE_TOKEN ?? 'none' } }],
    ['/api/jobs', { headers: { cookie: 'zealous-grain=Fe26.2*1*forged' } }],
  ];
  for (const [where, init] of tries) expect((await fetch(`http://${at}${where}`, init)).status, where).toBe(401);
  expect(seen).toEqual([]);
});

test('the code that is shown lets a device in, once; its cookie is signed, out of reach of scripts and of other sites', async () => {
  const { url, gate, at } = await second();
  const { code } = gate.state;
  const done = await pair(url, ` ${code.toLowerCase().replace('-', ' ')} `);
  expect(done.status).toBe(303);
  expect(done.headers.get('location')).toBe('/');
  const set = done.headers.get('set-cookie') ?? '';
  expect(set).toMatch(/; HttpOnly/);
  expect(set).toMatch(/; SameSite=Strict/i);
  expect(set).toMatch(/; Path=\//);
  expect(set).not.toMatch(/; Secure/);
  const cookie = cookieOf(done);
  const page = await fetch(`${url}/api/jobs`, { headers: { cookie } });
  expect(await page.text()).toBe('shop /api/jobs');
  // What came through is known by the shop as such, whatever its host; an origin of another site is still refused.
  const through = new Headers({ host: at, [GATE_HEADER]: String(seen[0].headers[GATE_HEADER]) });
  expect(isOwnRequest(through)).toBe(true);
  through.set('host', 'bench.local:4174');
  expect(isOwnRequest(through)).toBe(true);
  through.set('origin', 'http://elsewhere.example');
  expect(isOwnRequest(through)).toBe(false);
  expect(gate.state.code).not.toBe(code);
  expect((await pair(url, code)).status).toBe(401);
  const bent = `${cookie.slice(0, -3)}${cookie.endsWith('AAA') ? 'BBB' : 'AAA'}`;
  expect((await fetch(url, { headers: { cookie: bent } })).status).toBe(401);
  expect((await fetch(`${url}/pair`, { headers: { ...html, cookie }, redirect: 'manual' })).status).toBe(303);
});

test('wrong codes are counted, and a form of another site counts for nothing', async () => {
  const { url, gate } = await second();
  const { code } = gate.state;
  const foreign = await pair(url, 'WRONGONE', { origin: 'http://elsewhere.example' });
  expect(foreign.status).toBe(403);
  for (let left = 4; left > 0; left--) {
    const res = await pair(url, 'WRONGONE');
    expect(res.status).toBe(401);
    expect(await res.text()).toContain(`${left} ${left === 1 ? 'try is' : 'tries are'} left`);
  }
  const fifth = await pair(url, 'WRONGONE');
  expect(fifth.status).toBe(429);
  expect(gate.state.code).not.toBe(code);
  expect(gate.state.closed).toBeGreaterThan(50);
  expect(said.at(-1)).toContain(gate.state.code);
  // Not even the right one is taken now.
  expect((await pair(url, gate.state.code)).status).toBe(429);
  expect(seen).toEqual([]);
});

test('a code is open again after its minute, and chance does not find it', () => {
  let now = 0;
  const code = new PairingCode(
    () => {},
    () => now,
  );
  for (let i = 0; i < 5; i++) code.try('');
  expect(code.try(code.shown)).toEqual({ is: 'closed', seconds: 60 });
  now = 59_000;
  expect(code.try(code.shown)).toEqual({ is: 'closed', seconds: 1 });
  now = 60_000;
  expect(code.try(code.shown)).toEqual({ is: 'right' });
  const many = new Set(Array.from({ length: 200 }, () => new PairingCode().shown));
  expect(many.size).toBe(200);
  for (const c of many) expect(c).toMatch(/^[A-HJKMNP-Z2-9]{4}-[A-HJKMNP-Z2-9]{4}$/);
});

test('a device that is removed is out at once, and what is on its way to it ends', async () => {
  const { url, gate } = await second();
  const cookie = cookieOf(await pair(url, gate.state.code));
  const stream = await fetch(`${url}/stream`, { headers: { cookie } });
  const reader = stream.body!.getReader();
  expect(new TextDecoder().decode((await reader.read()).value)).toBe('first\n');
  const [device] = gate.state.devices;
  expect(device.name).toBe('Bench tablet');
  expect(gate.remove(device.id)).toBe(true);
  await expect(reader.read()).rejects.toThrow();
  expect((await fetch(url, { headers: { cookie } })).status).toBe(401);
  expect(gate.state.devices).toEqual([]);
  expect(gate.remove(device.id)).toBe(false);
});

test('devices stay paired over a restart, in a file that only we can read; a damaged one lets nobody in', async () => {
  const first = await second();
  const cookie = cookieOf(await pair(first.url, first.gate.state.code));
  const file = path.join(folder, ACCESS_FILE);
  expect(statSync(file).mode & 0o777).toBe(0o600);
  const again = await second();
  expect((await fetch(again.url, { headers: { cookie } })).status).toBe(200);
  writeFileSync(file, readFileSync(file, 'utf8').slice(0, 40));
  const damaged = await second();
  expect((await fetch(damaged.url, { headers: { cookie } })).status).toBe(401);
  expect(damaged.gate.state.devices).toEqual([]);
});

test('names and visits are kept as people read them', () => {
  let now = new Date('2026-11-26T08:00:00Z');
  const book = new DeviceBook(folder, () => now);
  const a = book.add(`  Bench\u0007 tablet ${'x'.repeat(80)}`);
  expect(a.name).toMatch(/^Bench tablet x+$|^Bench {2}tablet x+$/);
  expect(a.name.length).toBeLessThanOrEqual(60);
  expect(book.add(' \n ').name).toBe('a device without a name');
  now = new Date('2026-11-26T10:00:00Z');
  expect(book.lets(a.id)).toBe(true);
  expect(book.lets(undefined)).toBe(false);
  expect(new DeviceBook(folder).list()[0]).toMatchObject({ id: a.id, seen: now.toISOString() });
});

test('a body that is no form is cut off', async () => {
  const { url } = await second();
  const res = await fetch(`${url}/pair`, { method: 'POST', body: 'x'.repeat(100_000), headers: html });
  expect(res.status).toBe(413);
});

test('the machine itself needs no pairing, and cannot be made to take a request for one of a paired device', async () => {
  await second();
  const at = await serve(createServer(unmarked(shop)));
  const res = await fetch(`http://${at}/api/jobs`, { headers: { [GATE_HEADER]: process.env.ZG_GATE_TOKEN ?? '' } });
  expect(await res.text()).toBe('shop /api/jobs');
  expect(seen[0].headers[GATE_HEADER]).toBeUndefined();
});

test('devices are told of and removed at the machine itself only', async () => {
  const { gate } = await second();
  expect(devicesFor(new Headers())).toBe(gate);
  expect(() => devicesFor(new Headers({ [GATE_HEADER]: process.env.ZG_GATE_TOKEN ?? '' }))).toThrow(
    'at the machine that runs the shop',
  );
});

test('over https the cookie goes over no other connection, and the page says that it is encrypted', async () => {
  const { cert, private: key } = await generate([{ name: 'commonName', value: '127.0.0.1' }]);
  const tls = { cert: path.join(folder, 'cert.pem'), key: path.join(folder, 'key.pem') };
  writeFileSync(tls.cert, cert);
  writeFileSync(tls.key, key);
  const { at, gate } = await second(tls);
  const [host, port] = at.split(':');
  const ask = (method: string, where: string, body?: string) =>
    new Promise<{ status?: number; headers: IncomingMessage['headers']; text: string }>((resolve, reject) => {
      const headers = { accept: 'text/html', 'content-type': 'application/x-www-form-urlencoded' };
      const req = request({ host, port, method, path: where, headers, ca: cert, checkServerIdentity: () => undefined });
      req.on('error', reject);
      req.on('response', (res) => {
        let text = '';
        res.setEncoding('utf8');
        res.on('data', (part) => {
          text += part;
        });
        res.on('end', () => resolve({ status: res.statusCode, headers: res.headers, text }));
      });
      req.end(body);
    });
  const page = await ask('GET', '/');
  expect(page.text).toContain('This connection is encrypted.');
  expect(page.text).not.toContain('plain http');
  const done = await ask('POST', '/pair', new URLSearchParams({ code: gate.state.code, name: 'T' }).toString());
  expect(done.status).toBe(303);
  expect(String(done.headers['set-cookie'])).toMatch(/; Secure/);
});

test('a place to listen at that is none is refused with what would do', () => {
  expect(placeOf('0.0.0.0:4174')).toEqual({ host: '0.0.0.0', port: 4174 });
  expect(placeOf('[::]:80')).toEqual({ host: '::', port: 80 });
  for (const text of ['', '4174', '0.0.0.0', '0.0.0.0:0', '0.0.0.0:99999', '::1:80', 'a b:1'])
    expect(() => placeOf(text)).toThrow('write an address and a port');
});

test('an error within the shop ends its answer and not the gate', async () => {
  const errors = vi.spyOn(console, 'error').mockImplementation(() => {});
  const made = otherDevices({ place: '127.0.0.1:4174', tls: null, folder, say: () => {} }, () => {
    throw new Error('broken');
  });
  const url = `http://${await serve(made.server)}`;
  const cookie = cookieOf(await pair(url, made.gate.state.code));
  expect((await fetch(url, { headers: { cookie } })).status).toBe(500);
  expect((await fetch(url, { headers: html })).status).toBe(401);
  errors.mockRestore();
});
