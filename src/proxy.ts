import { type NextRequest, NextResponse } from 'next/server';
import { isOwnRequest } from './server/origin';

/** What a page may load and run: our own files, scripts with this answer's nonce, WebAssembly, and inline style attributes. */
const policyOf = (nonce: string) =>
  [
    "default-src 'none'",
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'`,
    "worker-src 'self'",
    "style-src 'self'",
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self'",
    "connect-src 'self'",
    "form-action 'self'",
    "base-uri 'none'",
    "frame-ancestors 'none'",
  ].join('; ');

/**
 * Pages are served to our own addresses only, each with a policy and a nonce of its own. API routes check for themselves: a proxy would
 * cut uploads short.
 */
export function proxy(req: NextRequest) {
  if (!isOwnRequest(req.headers))
    return new NextResponse('This address is not served; open the one that was printed at the start.', { status: 403 });
  const nonce = btoa(crypto.randomUUID());
  const policy = policyOf(nonce);
  // The framework reads its scripts' nonce from the request's policy.
  const headers = new Headers(req.headers);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', policy);
  const answer = NextResponse.next({ request: { headers } });
  answer.headers.set('content-security-policy', policy);
  return answer;
}

export const config = { matcher: ['/', '/jobs/:path*', '/shop/:path*', '/guide'] };
