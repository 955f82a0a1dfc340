import { PATTERNS } from '@/contract/patterns';
import { serve } from '@/server/http';
import { listPatterns, replacePattern } from '@/server/patterns';
import { shop } from '@/server/shop';

export const PUT = serve(PATTERNS.replace, async ({ at, body }) => {
  const { db } = await shop();
  await replacePattern(db, at.id, body);
  return listPatterns(db);
});
