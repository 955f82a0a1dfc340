import { ASSETS } from '@/contract/assets';
import { SourceError } from '@/core/sources/source-error';
import { SOURCE_LIMIT } from '@/server/assets';
import { checkLength, fileName, serve } from '@/server/http';
import { putAsset } from '@/server/jobs';
import { shop } from '@/server/shop';

/** The file is the raw body of the request; its name is only ever a name. */
export const PUT = serve(ASSETS.put, async ({ at, req }) => {
  const file = fileName(at.name, 'relief');
  checkLength(req, file, SOURCE_LIMIT);
  if (!req.body) throw new SourceError(`${file}: is empty (0 bytes); choose the file again`);
  const { db, assets } = await shop();
  const taken = await assets.take(req.body, file, req.signal);
  await putAsset(db, { ...taken, file });
  return { ...taken, file };
});
