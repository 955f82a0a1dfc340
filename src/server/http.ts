import type { z } from 'zod';
import { describeIssues } from '../core/doc/job';
import { SourceError } from '../core/sources/source-error';
import { dataFolder } from './database';
import { diskFull, isDiskFull } from './disk';
import { BadRequest, NewerShop, NotFound, StaleSave, Unreadable } from './errors';
import { OlderProof } from './older';
import { isOwnRequest } from './origin';

const answer = (status: number, error: string, more: object = {}) => Response.json({ error, ...more }, { status });

/** A route handler with the checks and the error answers that all share. */
export function route<P>(handle: (req: Request, params: P) => Promise<Response>) {
  return async (req: Request, context: { params: Promise<P> }): Promise<Response> => {
    if (!isOwnRequest(req.headers))
      return answer(403, 'this address is not served; open the one that was printed at the start');
    try {
      return await handle(req, await context.params);
    } catch (e) {
      if (e instanceof StaleSave) return answer(409, e.message, { head: e.head, kept: e.kept });
      if (e instanceof OlderProof) return answer(409, e.message, { older: true });
      if (e instanceof NotFound) return answer(404, e.message);
      if (e instanceof NewerShop) return answer(503, e.message);
      if (e instanceof Unreadable) return answer(422, e.message, { unreadable: true });
      if (e instanceof SourceError || e instanceof BadRequest) return answer(400, e.message);
      if (isDiskFull(e)) return answer(507, diskFull(dataFolder()));
      console.error(e);
      return answer(500, 'something went wrong here; nothing was changed, try again');
    }
  };
}

/** The request's JSON body, checked. @throws BadRequest naming the field, its value and what would do */
export async function body<T extends z.ZodType>(req: Request, schema: T): Promise<z.output<T>> {
  let raw: unknown;
  try {
    raw = await req.json();
  } catch {
    throw new BadRequest('the request is not JSON');
  }
  const parsed = schema.safeParse(raw);
  if (!parsed.success) throw new BadRequest(describeIssues(parsed.error as z.ZodError, raw));
  return parsed.data;
}

/** A whole, positive content length that is not over the limit, when one is declared. */
export function checkLength(req: Request, file: string, limit: number): void {
  const declared = Number(req.headers.get('content-length') ?? 0);
  if (declared > limit) throw new SourceError(`${file}: is ${declared} bytes, more than 2 GB; reduce the model`);
}
