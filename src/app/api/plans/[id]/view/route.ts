import { BadRequest } from '@/server/errors';
import { route } from '@/server/http';
import { shop } from '@/server/shop';

/** Heights of a setup of a finished plan, packed as the page unpacks them. */
export const GET = route<{ id: string }>(async (req, { id }) => {
  const setup = new URL(req.url).searchParams.get('setup');
  if (setup === null) throw new BadRequest('a view needs the id of a setup');
  const bytes = await (await shop()).plans.view(id, setup, 'view');
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'application/octet-stream', 'cache-control': 'private, no-cache' },
  });
});
