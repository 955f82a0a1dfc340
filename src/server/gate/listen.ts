import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createServer, type RequestListener, type Server } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { networkInterfaces } from 'node:os';
import { Gate } from './gate';
import { holdGate } from './held';
import { GATE_HEADER, GATE_TOKEN } from './mark';

/** A place to listen at, as a person writes it: "0.0.0.0:4174", "[::]:4174". @throws RangeError */
export function placeOf(text: string): { host: string; port: number } {
  const m = /^(?:\[([0-9a-fA-F:]+)\]|([^:[\]\s]+)):(\d{1,5})$/.exec(text.trim());
  const port = Number(m?.[3]);
  if (!m || port < 1 || port > 65_535)
    throw new RangeError(`ZG_LISTEN is "${text}"; write an address and a port, as 0.0.0.0:4174`);
  return { host: m[1] ?? m[2], port };
}

/** Where a listener on all addresses is reached from elsewhere. */
function reachedAt(host: string): string[] {
  if (host !== '0.0.0.0' && host !== '::') return [host.includes(':') ? `[${host}]` : host];
  return Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter((a) => !a.internal && a.family === 'IPv4')
    .map((a) => a.address);
}

/** What a person wants of the second listener. */
export interface Wanted {
  /** ZG_LISTEN. */
  place: string;
  /** Files of a certificate and its key, for https. */
  tls: { cert: string; key: string } | null;
  folder: string;
  say(text: string): void;
}

/** Takes the gate's mark off a request that did not come through it. */
export const unmarked =
  (inner: RequestListener): RequestListener =>
  (req, res) => {
    delete req.headers[GATE_HEADER];
    inner(req, res);
  };

/** The listener for other devices, not listening yet. @throws RangeError for a place that is none */
export function otherDevices({ place, tls, folder, say }: Wanted, inner: RequestListener) {
  const { host, port } = placeOf(place);
  const token = randomUUID();
  process.env[GATE_TOKEN] = token;
  const secure = tls !== null;
  const addresses = reachedAt(host).map((a) => `http${secure ? 's' : ''}://${a}:${port}`);
  const gate = new Gate({ folder, secure, addresses, token, say });
  holdGate(gate);
  const guarded = gate.guard(inner);
  const server: Server = tls
    ? createSecureServer({ cert: readFileSync(tls.cert), key: readFileSync(tls.key) }, guarded)
    : createServer(guarded);
  return { server, host, port, gate };
}
