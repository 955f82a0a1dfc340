import { randomUUID } from 'node:crypto';
import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import { getIronSession } from 'iron-session';
import type { Devices } from '../../contract/shop';
import { PairingCode } from './code';
import { DeviceBook } from './devices';
import { GATE_HEADER } from './mark';
import { pairPage } from './pair-page';

/** What a device's cookie holds, sealed. */
interface Pass {
  device: string;
}

export interface GateOptions {
  /** Where the devices are kept. */
  folder: string;
  /** Whether the connection is encrypted: the cookie is then sent over no other. */
  secure: boolean;
  /** Where the shop is reached, for people. */
  addresses: string[];
  /** Shows that the inner server may trust a request to have come through here. */
  token: string;
  /** Tells the person at the terminal. */
  say(text: string): void;
}

/** Longest that a pass is good for, s: as long as browsers keep a cookie. */
const YEAR = 400 * 86_400;
/** Longest form that is read, bytes. */
const FORM = 4096;

const pathOf = (url: string | undefined) => (url ?? '/').split('?')[0];

/** The fields of a short form. @throws RangeError when it is longer */
async function formOf(req: IncomingMessage): Promise<URLSearchParams> {
  let text = '';
  for await (const part of req) {
    text += part;
    if (text.length > FORM) throw new RangeError('the form is too long');
  }
  return new URLSearchParams(text);
}

/** Whether a form comes from our own page: browsers say where it comes from. */
function isOwnForm(req: IncomingMessage): boolean {
  const { origin, host } = req.headers;
  if (origin === undefined) return true;
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}

/** A name for a device from what its browser says of itself. */
function proposedName(agent: string | undefined): string {
  const kinds = [
    [/ipad|tablet/i, 'Tablet'],
    [/android(?!.*mobile)/i, 'Tablet'],
    [/iphone|mobile/i, 'Phone'],
    [/windows|macintosh|linux|cros/i, 'Computer'],
  ] as const;
  return kinds.find(([k]) => k.test(agent ?? ''))?.[1] ?? '';
}

/**
 * Stands before the shop on the listener that other devices reach: who has not been paired gets the pairing page and nothing else. Which
 * listener took the connection decides; nothing that a request says of itself does.
 */
export class Gate {
  private readonly book: DeviceBook;
  private readonly code: PairingCode;
  /** Answers that are on their way to a device: removing it ends them. */
  private readonly open = new Map<string, Set<ServerResponse>>();

  constructor(private readonly options: GateOptions) {
    this.book = new DeviceBook(options.folder);
    this.code = new PairingCode(() => this.announce());
  }

  /** Tells the person at the terminal what other devices need. */
  announce(): void {
    const { addresses, secure, say } = this.options;
    const closed = this.code.closed > 0 ? `, taken again in ${this.code.closed} s after wrong tries` : '';
    say(
      `Other devices: ${addresses.join(', ')}, pairing code ${this.code.shown}${closed}${
        secure ? '' : ' (plain http: only on a network of your own)'
      }`,
    );
  }

  /** What the shop's own page shows at the machine. */
  get state(): NonNullable<Devices> {
    const { addresses, secure } = this.options;
    return { addresses, secure, code: this.code.shown, closed: this.code.closed, devices: this.book.list() };
  }

  /** Lets a device in no more, and ends what is on its way to it; whether there was one. */
  remove(id: string): boolean {
    for (const res of this.open.get(id) ?? []) res.destroy();
    this.open.delete(id);
    return this.book.remove(id);
  }

  /** The listener for other devices: what is let through goes on to the inner one. */
  guard(inner: RequestListener): RequestListener {
    return (req, res) => {
      this.answer(req, res, inner).catch((e) => {
        console.error(e);
        if (!res.headersSent) this.page(req, res, 500, 'Something went wrong here; try again.');
        else res.destroy();
      });
    };
  }

  private session(req: IncomingMessage, res: ServerResponse) {
    return getIronSession<Partial<Pass>>(req, res, {
      cookieName: 'zealous-grain',
      password: this.book.secret,
      ttl: YEAR,
      cookieOptions: { httpOnly: true, sameSite: 'strict', secure: this.options.secure, path: '/' },
    });
  }

  private async answer(req: IncomingMessage, res: ServerResponse, inner: RequestListener): Promise<void> {
    const path = pathOf(req.url);
    if (path === '/pair' && req.method === 'POST') return this.pair(req, res);
    const { device } = await this.session(req, res);
    if (device === undefined || !this.book.lets(device)) {
      const wantsPage = (req.headers.accept ?? '').includes('text/html');
      if (wantsPage) return this.page(req, res, 401, null);
      res.writeHead(401, { 'content-type': 'application/json', 'x-content-type-options': 'nosniff' });
      res.end(JSON.stringify({ error: 'this device is not paired with the shop; load the page again and pair it' }));
      return;
    }
    if (path === '/pair') {
      res.writeHead(303, { location: '/' }).end();
      return;
    }
    this.follow(device, res);
    req.headers[GATE_HEADER] = this.options.token;
    inner(req, res);
  }

  private follow(device: string, res: ServerResponse): void {
    const all = this.open.get(device) ?? new Set();
    this.open.set(device, all.add(res));
    res.once('close', () => all.delete(res));
  }

  private async pair(req: IncomingMessage, res: ServerResponse): Promise<void> {
    if (!isOwnForm(req)) return this.page(req, res, 403, 'This form did not come from the pairing page; use that.');
    let form: URLSearchParams;
    try {
      form = await formOf(req);
    } catch {
      res.shouldKeepAlive = false;
      return this.page(req, res, 413, 'That is no pairing code.');
    }
    const tried = this.code.try(form.get('code') ?? '');
    if (tried.is === 'wrong')
      return this.page(
        req,
        res,
        401,
        `That is not the code; look at it again at the machine. ${tried.left} ${tried.left === 1 ? 'try is' : 'tries are'} left with it.`,
      );
    if (tried.is === 'closed')
      return this.page(
        req,
        res,
        429,
        `Too many wrong codes. Wait ${tried.seconds} seconds; a new code is shown at the machine.`,
      );
    const device = this.book.add(form.get('name') ?? '');
    const session = await this.session(req, res);
    session.device = device.id;
    await session.save();
    this.options.say(`paired: ${device.name}`);
    res.writeHead(303, { location: '/' }).end();
  }

  private page(req: IncomingMessage, res: ServerResponse, status: number, wrong: string | null): void {
    const nonce = randomUUID();
    const html = pairPage({
      nonce,
      secure: this.options.secure,
      name: proposedName(req.headers['user-agent']),
      wrong,
    });
    res.writeHead(status, {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-store',
      'content-security-policy': `default-src 'none'; style-src 'nonce-${nonce}'; font-src data:; img-src data:; form-action 'self'; base-uri 'none'; frame-ancestors 'none'`,
      'x-content-type-options': 'nosniff',
      // Under no-referrer a browser would not say where the form comes from.
      'referrer-policy': 'same-origin',
      'cross-origin-opener-policy': 'same-origin',
    });
    res.end(req.method === 'HEAD' ? undefined : html);
  }
}
