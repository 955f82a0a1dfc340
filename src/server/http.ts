import type { z } from 'zod';
import type { AnswerOf, At, Endpoint } from '../contract/endpoint';
import { describeIssues } from '../core/doc/refusal';
import { SourceError } from '../core/sources/source-error';
import { type Limit, tooLarge } from './assets';
import { dataFolder } from './database';
import { diskFull, isDiskFull } from './disk';
import { BadRequest, Elsewhere, NewerShop, NotFound, StaleSave, Unreadable } from './errors';
import { JSON_LIMIT, readJson } from './json';
import { OlderProof } from './older';
import { isOwnRequest, mayChange, OWN_HEADER } from './origin';

const answer = (status: number, error: string, more: object = {}) => Response.json({ error, ...more }, { status });

/** What a request asks, checked by its endpoint. */
export interface Asked<E extends Endpoint> {
  at: At<E>;
  /** The JSON that was sent along; a file is read from the request itself. */
  body: E['body'] extends z.ZodType ? z.output<E['body']> : null;
  req: Request;
}

/** A handler answers with what its endpoint promises: a value that is sent as JSON, or a response of its own. */
type Handled<E extends Endpoint> = E['answer'] extends { as: 'json' } ? AnswerOf<E> : Response;

async function read<E extends Endpoint>(e: E, req: Request, parts: object): Promise<Asked<E>>;
async function read(e: Endpoint, req: Request, parts: object) {
  const query = e.query.safeParse(Object.fromEntries(new URL(req.url).searchParams));
  if (!query.success) throw new BadRequest(e.needs || describeIssues(query.error, {}));
  const at = { ...(query.data as object), ...parts };
  return { at, body: e.body === null || e.body === 'file' ? null : await bodyOf(req, e.body), req };
}

/** The error answer that an error of ours stands for. */
function refusalOf(e: unknown): Response {
  if (e instanceof StaleSave) return answer(409, e.message, { head: e.head, kept: e.kept });
  if (e instanceof OlderProof) return answer(409, e.message);
  if (e instanceof NotFound) return answer(404, e.message);
  if (e instanceof Elsewhere) return answer(403, e.message);
  if (e instanceof NewerShop) return answer(503, e.message);
  if (e instanceof Unreadable) return answer(422, e.message);
  if (e instanceof SourceError || e instanceof BadRequest) return answer(400, e.message);
  if (isDiskFull(e)) return answer(507, diskFull(dataFolder()));
  console.error(e);
  return answer(500, 'something went wrong here; nothing was changed, try again');
}

/** The route of an endpoint, with the checks and the error answers that all share. */
export function serve<E extends Endpoint>(e: E, handle: (asked: Asked<E>) => Promise<Handled<E>>) {
  return async (req: Request, context: { params: Promise<object> }): Promise<Response> => {
    if (!isOwnRequest(req.headers))
      return answer(403, 'this address is not served; open the one that was printed at the start');
    if (!mayChange(req.method, req.headers))
      return answer(403, `a POST that does not come from a page needs the header ${OWN_HEADER}: 1`);
    try {
      const done = await handle(await read(e, req, await context.params));
      return done instanceof Response ? done : Response.json(done);
    } catch (error) {
      return refusalOf(error);
    }
  };
}

/** A request's body as text, refused as soon as it is too long. */
async function bodyText(req: Request): Promise<string> {
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of (req.body ?? []) as AsyncIterable<Uint8Array>) {
    size += part.length;
    if (size > JSON_LIMIT) throw new BadRequest(`the request is larger than ${JSON_LIMIT / 1e6} MB`);
    parts.push(part);
  }
  return Buffer.concat(parts).toString('utf8');
}

/** The request's JSON body, checked. @throws BadRequest naming the field, its value and what would do */
async function bodyOf(req: Request, schema: z.ZodType): Promise<unknown> {
  const raw = readJson(await bodyText(req), (why) => new BadRequest(`the request ${why}`));
  const parsed = schema.safeParse(raw);
  if (!parsed.success) throw new BadRequest(describeIssues(parsed.error, raw));
  return parsed.data;
}

/** The name that a person's file is sent under: only ever a name, never a path. @throws BadRequest for one that cannot be shown */
export function fileName(given: string | undefined, other: string): string {
  const name = (given ?? '').split(/[\\/]/).at(-1) ?? '';
  if (/\p{Cc}/u.test(name))
    throw new BadRequest("the file's name holds control characters; rename it and choose it again");
  return name.slice(-255) || other;
}

/** Refuses a body whose declared length is over a limit, before any of it is read. @throws SourceError */
export function checkLength(req: Request, file: string, limit: Limit): void {
  if (Number(req.headers.get('content-length') ?? 0) > limit.bytes) throw tooLarge(file, limit);
}
