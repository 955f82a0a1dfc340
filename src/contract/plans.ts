import { z } from '../core/units/zod';
import { endpoint, events, FILE, json, packed } from './endpoint';
import { jobSummary, PARTS, planPart, planView, planWays, type Summary } from './wire';

/** How far the planning of a version of a job is. */
export const planState = z.object({
  id: z.string(),
  revision: z.string(),
  status: z.enum(['queued', 'running', 'done', 'failed', 'cancelled', 'interrupted']),
  message: z.string().nullable(),
  /** What is being done, the share behind it, the seconds left, and whether it takes longer than it usually does here, while it runs. */
  progress: z.object({ name: z.string(), share: z.number(), secondsLeft: z.number(), longer: z.boolean() }).nullable(),
  summary: jobSummary.nullable(),
  /** Proven by an older version of this program: to be proven again. */
  older: z.boolean(),
  /** Proven again: whether its programs came out the same. */
  again: z.enum(['same', 'changed']).nullable(),
});
export type PlanState = z.infer<typeof planState>;
export type PlanStatus = PlanState['status'];
export type PlanProgress = NonNullable<PlanState['progress']>;
/** A plan as one setup sees it. */
export type PlanInfo = Omit<PlanState, 'summary'> & { summary: Summary | null };

const number = z.coerce.number<number>();
/** Asked for knowing that an older version of this program proved them. */
const older = z.object({ older: z.literal('yes').optional() });

/** A setup, and two places of its board, mm: the corners of a part of it, or the ends of a line. */
const between = { setup: z.string().max(64), x0: number, y0: number, x1: number, y1: number };

export const PLANS = {
  read: endpoint({ method: 'GET', path: '/api/plans/[id]', answer: json(planState) }),
  cancel: endpoint({ method: 'DELETE', path: '/api/plans/[id]', answer: json(planState) }),
  /** The plan's state at every change until it ends. */
  events: endpoint({ method: 'GET', path: '/api/plans/[id]/events', answer: events(planState) }),
  /** Heights of a setup of a finished plan. */
  view: endpoint({
    method: 'GET',
    path: '/api/plans/[id]/view',
    query: z.object({ setup: z.string() }),
    needs: 'a view needs the id of a setup',
    answer: packed(planView),
  }),
  /** The cut board of a setup from above, clear where ground may remain, as WebP. */
  picture: endpoint({
    method: 'GET',
    path: '/api/plans/[id]/picture',
    query: z.object({ setup: z.string().max(64) }),
    needs: 'a picture needs the id of a setup',
    answer: FILE,
  }),
  /** A part of the surfaces of a setup, with the cells they were planned on or every n-th of them. */
  part: endpoint({
    method: 'GET',
    path: '/api/plans/[id]/part',
    query: z.object({
      ...between,
      most: number.int().min(16).max(2048),
      of: z.enum(PARTS),
    }),
    needs: `a part needs a setup, x0, y0, x1, y1 in mm, most from 16 to 2048, and of: ${PARTS.join(', ')}`,
    answer: packed(planPart),
  }),
  /** The ways of a setup's bits within a part of its board, of one pass or of all, thinned to within `fine` mm. */
  ways: endpoint({
    method: 'GET',
    path: '/api/plans/[id]/ways',
    query: z.object({
      ...between,
      pass: z.string().max(64).optional(),
      fine: number.min(0.001).max(1000),
    }),
    needs: 'ways need a setup, x0, y0, x1, y1 in mm and fine from 0.001 mm',
    answer: packed(planWays),
  }),
  /** Heights of the surfaces along a line, cell by cell. */
  section: endpoint({
    method: 'GET',
    path: '/api/plans/[id]/section',
    query: z.object({
      ...between,
      n: number.int().min(2).max(4000),
    }),
    needs: 'a section needs a setup, x0, y0, x1, y1 in mm and n from 2 to 4000',
    answer: json(z.record(z.string(), z.array(z.number()))),
  }),
  program: endpoint({ method: 'GET', path: '/api/plans/[id]/programs/[index]', query: older, answer: FILE }),
  /** All programs of a plan in one archive. */
  bundle: endpoint({ method: 'GET', path: '/api/plans/[id]/bundle', query: older, answer: FILE }),
};
