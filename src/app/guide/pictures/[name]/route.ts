import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { isOwnRequest } from '@/server/origin';

/** A picture of the guide, by its file name alone. */
export async function GET(req: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  if (!isOwnRequest(req.headers)) return new Response('This address is not served.', { status: 403 });
  const { name } = await params;
  const none = () => new Response('The guide has no such picture.', { status: 404 });
  if (!/^[a-z0-9-]+\.png$/.test(name)) return none();
  const file = path.resolve(/* turbopackIgnore: true */ process.cwd(), 'docs/screenshots', name);
  const bytes = await readFile(file).catch(() => null);
  return bytes ? new Response(new Uint8Array(bytes), { headers: { 'content-type': 'image/png' } }) : none();
}
