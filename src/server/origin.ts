import { cameThroughGate } from './gate/mark';

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

/** Whether a host is this machine itself. */
const isLoopback = (host: string) => LOOPBACK.has(host.replace(/:\d+$/, '').toLowerCase());

/** What a program sends with a POST that has no Origin: a form of another page cannot. */
export const OWN_HEADER = 'x-zealous-grain';

/** Whether a request that changes something may: pages send their Origin, which has been looked at, programs our header. */
export function mayChange(method: string, headers: Headers): boolean {
  return method !== 'POST' || headers.get('origin') !== null || headers.get(OWN_HEADER) !== null;
}

/**
 * Whether a request comes from our own pages: its Host is this machine, or it came through the gate from a paired device, whose cookie no
 * other host gets; and its Origin, if it has one, is that host.
 */
export function isOwnRequest(headers: Headers): boolean {
  const host = headers.get('host');
  if (!host || !(isLoopback(host) || cameThroughGate(headers))) return false;
  const origin = headers.get('origin');
  if (origin === null) return true;
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}
