import { SourceError } from '@/core/sources/source-error';
import { MAX_BUNDLE, unpackJob } from '@/server/bundle';
import { checkLength, route } from '@/server/http';
import { createJob } from '@/server/jobs';
import { shop } from '@/server/shop';

/** Takes an archive of a job as the raw body of a PUT. */
export const PUT = route(async (req) => {
  const file = (new URL(req.url).searchParams.get('name') ?? 'job.zip').slice(-255) || 'job.zip';
  checkLength(req, file, MAX_BUNDLE);
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of (req.body ?? []) as AsyncIterable<Uint8Array>) {
    size += part.length;
    if (size > MAX_BUNDLE) throw new SourceError(`${file}: is larger than 1 GB; it is refused`);
    parts.push(part);
  }
  const { db, assets } = await shop();
  const job = await unpackJob(db, assets, Buffer.concat(parts), file);
  return Response.json(await createJob(db, job));
});
