import { name } from '../core/doc/parts';
import { z } from '../core/units/zod';
import { endpoint, json } from './endpoint';
import { sourceInfo } from './wire';

const positive = z.number().positive();
/** What a person says of a pattern. */
const said = z.object({
  name,
  tags: z.array(z.string().trim().min(1).max(40)).max(20),
  /** Where it is from, in the person's words. */
  from: z.string().trim().max(200),
});
const kept = said.extend({
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  /** True plan size and relief range, mm; null where the file itself says it. */
  size: z.object({ x: positive, y: positive }).nullable(),
  rise: positive.nullable(),
});
const pattern = kept.extend({ id: z.string(), file: z.string(), info: sourceInfo });
/** A relief at hand in the pattern drawer. */
export type Pattern = z.infer<typeof pattern>;
const drawer = json(z.array(pattern));

export const PATTERNS = {
  list: endpoint({ method: 'GET', path: '/api/patterns', answer: drawer }),
  /** Keeps a stored file in the drawer. */
  keep: endpoint({ method: 'POST', path: '/api/patterns', body: kept, answer: drawer }),
  describe: endpoint({ method: 'PUT', path: '/api/patterns/[id]', body: said, answer: drawer }),
  remove: endpoint({ method: 'DELETE', path: '/api/patterns/[id]', answer: drawer }),
};
