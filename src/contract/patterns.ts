import { name } from '../core/doc/parts';
import { z } from '../core/units/zod';
import { endpoint, json } from './endpoint';
import { sourceInfo } from './wire';

const positive = z.number().positive();
const hash = z.string().regex(/^[0-9a-f]{64}$/);
/** What a person says of a pattern. */
const said = z.object({
  name,
  tags: z.array(z.string().trim().min(1).max(40)).max(20),
  /** Where it is from, in the person's words. */
  from: z.string().trim().max(200),
  /** What it cost, in the shop's own money; null when it is not known. */
  price: z.number().min(0).max(1e6).nullable().default(null),
  /** What its maker allows to be done with it, in the person's words. */
  licence: z.string().trim().max(300).default(''),
});
/** A stored file. */
const filed = z.object({
  hash,
  /** True plan size and relief range, mm; null where the file itself says it. */
  size: z.object({ x: positive, y: positive }).nullable(),
  rise: positive.nullable(),
});
const kept = said.extend(filed.shape);
const pattern = kept.extend({ id: z.string(), file: z.string(), info: sourceInfo });
/** A relief at hand in the pattern drawer. */
export type Pattern = z.infer<typeof pattern>;
const drawer = json(z.array(pattern));

export const PATTERNS = {
  list: endpoint({ method: 'GET', path: '/api/patterns', answer: drawer }),
  /** Keeps a stored file in the drawer. */
  keep: endpoint({ method: 'POST', path: '/api/patterns', body: kept, answer: drawer }),
  describe: endpoint({ method: 'PUT', path: '/api/patterns/[id]', body: said, answer: drawer }),
  /** Puts another version of its file in its place; jobs keep the file that they were made with. */
  replace: endpoint({ method: 'PUT', path: '/api/patterns/[id]/file', body: filed, answer: drawer }),
  remove: endpoint({ method: 'DELETE', path: '/api/patterns/[id]', answer: drawer }),
};
