import { SourceError } from '@/core/sources/source-error';
import { BUNDLE_LIMIT } from '@/server/bundle';
import { checkLength, fileName, route } from '@/server/http';
import { importJob } from '@/server/import';
import { createJob } from '@/server/jobs';
import { shop } from '@/server/shop';

/** Takes an archive of a job as the raw body of a PUT. */
export const PUT = route(async (req) => {
  const file = fileName(req, 'job.zip');
  checkLength(req, file, BUNDLE_LIMIT);
  if (!req.body) throw new SourceError(`${file}: is empty (0 bytes); choose the file again`);
  const { db, assets } = await shop();
  return Response.json(await createJob(db, await importJob(db, assets, req.body, file, req.signal)));
});
