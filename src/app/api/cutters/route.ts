import { cutterSchema } from '@/core/cutter/cutter';
import { body, route } from '@/server/http';
import { saveCutter } from '@/server/jobs';
import { shop } from '@/server/shop';

export const PUT = route(async (req) => {
  const cutter = await body(req, cutterSchema);
  await saveCutter((await shop()).db, cutter);
  return Response.json(cutter);
});
