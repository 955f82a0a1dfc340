import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { moveHead } from '@/server/jobs';
import { shop } from '@/server/shop';

export const PUT = serve(JOBS.moveHead, async ({ at, body }) => moveHead((await shop()).db, at.id, body.from, body.to));
