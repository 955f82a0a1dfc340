import { PATTERNS } from '@/contract/patterns';
import { serve } from '@/server/http';
import { getAsset } from '@/server/jobs';
import { listPatterns, putPattern } from '@/server/patterns';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = serve(PATTERNS.list, async () => listPatterns((await shop()).db));

export const POST = serve(PATTERNS.keep, async ({ body }) => {
  const { db } = await shop();
  const { file } = await getAsset(db, body.hash);
  await putPattern(db, { ...body, file });
  return listPatterns(db);
});
