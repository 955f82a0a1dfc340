import { z } from '../core/units/zod';

/** What an endpoint answers with, besides refusals. */
export type Answer =
  /** JSON that fits a schema. */
  | { as: 'json'; schema: z.ZodType }
  /** Arrays and their head as core/plan/pack packs them, whose both fit a schema. */
  | { as: 'packed'; schema: z.ZodType }
  /** Server-sent events, each of them JSON that fits a schema. */
  | { as: 'events'; schema: z.ZodType }
  /** A file or a picture as it is. */
  | { as: 'file' };

/** What is sent along: JSON that fits a schema, or a file as it is. */
export type Sent = z.ZodType | 'file' | null;

/** One thing that can be asked of the server: the only place where its address, what it takes and what it answers are said. */
export interface Endpoint {
  method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  /** Address as its folder under src/app is named: `[id]` stands for a part that is given. */
  path: string;
  /** Fields after the question mark. */
  query: z.ZodType;
  /** What those must be, in words, for a request whose fields do not fit. */
  needs: string;
  body: Sent;
  answer: Answer;
}

const NO_FIELDS: z.ZodType<object> = z.object({});

/** An endpoint as it is written down; without a query or a body it takes none. */
export function endpoint<
  P extends string,
  A extends Answer,
  B extends Sent = null,
  Q extends z.ZodType = typeof NO_FIELDS,
>(e: { method: Endpoint['method']; path: P; query?: Q; needs?: string; body?: B; answer: A }) {
  return {
    method: e.method,
    path: e.path,
    query: (e.query ?? NO_FIELDS) as Q,
    needs: e.needs ?? '',
    body: (e.body ?? null) as B,
    answer: e.answer,
  };
}

export const json = <S extends z.ZodType>(schema: S) => ({ as: 'json' as const, schema });
export const packed = <S extends z.ZodType>(schema: S) => ({ as: 'packed' as const, schema });
export const events = <S extends z.ZodType>(schema: S) => ({ as: 'events' as const, schema });
export const FILE = { as: 'file' as const };

/** Names of the given parts of an address. */
type Parts<P extends string> = P extends `${string}[${infer N}]${infer Rest}` ? N | Parts<Rest> : never;
/** The given parts of an address. */
export type PathOf<E extends Endpoint> = { [N in Parts<E['path']>]: string };
/** All that an endpoint's address is made of. */
export type At<E extends Endpoint> = PathOf<E> & z.output<E['query']>;
export type BodyOf<E extends Endpoint> = E['body'] extends z.ZodType
  ? z.output<E['body']>
  : E['body'] extends 'file'
    ? Blob
    : undefined;
export type AnswerOf<E extends Endpoint> = E['answer'] extends { schema: infer S extends z.ZodType }
  ? z.output<S>
  : Response;

/** An endpoint's address with its parts and fields filled in. */
export function addressOf<E extends Endpoint>(e: E, at: At<E>): string {
  const left = new Map(Object.entries(at).filter(([, v]) => v !== undefined));
  const path = e.path.replace(/\[(\w+)\]/g, (_, name: string) => {
    const part = String(left.get(name));
    left.delete(name);
    return encodeURIComponent(part);
  });
  return left.size === 0 ? path : `${path}?${new URLSearchParams([...left].map(([k, v]) => [k, String(v)]))}`;
}

/** What is said of a request that is refused. */
export const refusal = z.object({
  error: z.string(),
  /** Of a save that came too late: the version in force, and the one that was kept aside. */
  head: z.string().optional(),
  kept: z.string().optional(),
});
export type Refusal = z.infer<typeof refusal>;

/** A schema for every field of a type, and no other: `z.object({ … } satisfies Fields<T>)` fails to compile when the type moves on. */
export type Fields<T> = { [K in keyof T]-?: z.ZodType<T[K]> };
