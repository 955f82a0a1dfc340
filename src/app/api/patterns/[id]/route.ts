import { PATTERNS } from '@/contract/patterns';
import { serve } from '@/server/http';
import { describePattern, listPatterns, removePattern } from '@/server/patterns';
import { shop } from '@/server/shop';

export const PUT = serve(PATTERNS.describe, async ({ at, body }) => {
  const { db } = await shop();
  await describePattern(db, at.id, body);
  return listPatterns(db);
});

export const DELETE = serve(PATTERNS.remove, async ({ at }) => {
  const { db } = await shop();
  await removePattern(db, at.id);
  return listPatterns(db);
});
