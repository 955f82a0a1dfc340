const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

/** Host names that are answered: loopback, and those in ZG_HOSTS (names with commas between) for a tablet in the shop. */
export function isKnownHost(host: string | null): boolean {
  if (!host) return false;
  const name = host.replace(/:\d+$/, '').toLowerCase();
  return (
    LOOPBACK.has(name) ||
    (process.env.ZG_HOSTS ?? '').split(',').some((h) => h.trim().toLowerCase() === name && name !== '')
  );
}

/** What a program sends with a POST that has no Origin: a form of another page cannot. */
export const OWN_HEADER = 'x-zealous-grain';

/** Whether a request that changes something may: pages send their Origin, which has been looked at, programs our header. */
export function mayChange(method: string, headers: Headers): boolean {
  return method !== 'POST' || headers.get('origin') !== null || headers.get(OWN_HEADER) !== null;
}

/** Whether a request comes from our own pages: its Host is one of ours, and its Origin, if it has one, is that host. */
export function isOwnRequest(headers: Headers): boolean {
  const host = headers.get('host');
  if (!isKnownHost(host)) return false;
  const origin = headers.get('origin');
  if (origin === null) return true;
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}
