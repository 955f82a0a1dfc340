import { JOBS } from '@/contract/jobs';
import { SourceError } from '@/core/sources/source-error';
import { BUNDLE_LIMIT } from '@/server/bundle';
import { checkLength, fileName, serve } from '@/server/http';
import { importJob } from '@/server/import';
import { createJob } from '@/server/jobs';
import { shop } from '@/server/shop';

export const PUT = serve(JOBS.import, async ({ at, req }) => {
  const file = fileName(at.name, 'job.zip');
  checkLength(req, file, BUNDLE_LIMIT);
  if (!req.body) throw new SourceError(`${file}: is empty (0 bytes); choose the file again`);
  const { db, assets } = await shop();
  return createJob(db, await importJob(db, assets, req.body, file, req.signal));
});
