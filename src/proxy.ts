import { type NextRequest, NextResponse } from 'next/server';
import { isOwnRequest } from './server/origin';

/** Pages are served to our own addresses only. API routes check for themselves: a proxy would cut uploads short. */
export function proxy(req: NextRequest) {
  if (isOwnRequest(req.headers)) return NextResponse.next();
  return new NextResponse('This address is not served; open the one that was printed at the start.', { status: 403 });
}

export const config = { matcher: ['/', '/jobs/:path*'] };
