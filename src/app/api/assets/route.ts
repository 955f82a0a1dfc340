import { SourceError } from '@/core/sources/source-error';
import { SOURCE_LIMIT } from '@/server/assets';
import { checkLength, fileName, route } from '@/server/http';
import { putAsset } from '@/server/jobs';
import { shop } from '@/server/shop';

/** Takes a relief file as the raw body of a PUT; its name is only ever a name. */
export const PUT = route(async (req) => {
  const file = fileName(req, 'relief');
  checkLength(req, file, SOURCE_LIMIT);
  if (!req.body) throw new SourceError(`${file}: is empty (0 bytes); choose the file again`);
  const { db, assets } = await shop();
  const taken = await assets.take(req.body, file, req.signal);
  await putAsset(db, { ...taken, file });
  return Response.json({ ...taken, file });
});
