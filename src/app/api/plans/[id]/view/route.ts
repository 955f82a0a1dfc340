import { route } from '@/server/http';
import { shop } from '@/server/shop';

/** Heights of a finished plan, packed as the page unpacks them. A plan's result never changes. */
export const GET = route<{ id: string }>(async (_, { id }) => {
  const bytes = await (await shop()).plans.file(id, 'view.bin');
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'application/octet-stream', 'cache-control': 'private, max-age=86400, immutable' },
  });
});
