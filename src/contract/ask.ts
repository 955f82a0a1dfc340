import { unpackStage } from '../core/plan/pack';
import type { z } from '../core/units/zod';
import { type AnswerOf, type At, addressOf, type BodyOf, type Endpoint, type Refusal, refusal } from './endpoint';

/** An answer that refuses something, or none at all; the message is for the person. */
export class AskError extends Error {
  constructor(
    message: string,
    /** The status that was answered, 0 when nothing was. */
    readonly status: number,
    /** What more the server says of it. */
    readonly says: Omit<Refusal, 'error'> = {},
  ) {
    super(message);
  }
}

const UNREADABLE = 'the answer of the server could not be read; load the page again, nothing that was saved is lost';

/** JSON that fits a schema, else an error that says so. */
function fitting<T>(schema: z.ZodType<T>, value: unknown, status: number): T {
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw new AskError(UNREADABLE, status);
  return parsed.data;
}

/** The error that a refusal stands for. */
function refused(value: unknown, status: number): AskError {
  const parsed = refusal.safeParse(value);
  if (!parsed.success) return new AskError(`the server answers with ${status}; load the page again`, status);
  const { error, ...says } = parsed.data;
  return new AskError(error, status, says);
}

const jsonOf = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
};

type AnsweredBy<E extends Endpoint> = E['answer'] extends { as: 'events' } ? never : AnswerOf<E>;

async function read<E extends Endpoint>(e: E, res: Response): Promise<AnsweredBy<E>>;
async function read(e: Endpoint, res: Response): Promise<unknown> {
  if (e.answer.as === 'file') return res;
  if (e.answer.as === 'json') return fitting(e.answer.schema, jsonOf(await res.text()), res.status);
  return fitting(e.answer.schema, unpackStage(new Uint8Array(await res.arrayBuffer())), res.status);
}

/**
 * Asks the server for something. What comes back fits the contract.
 * @param more `cache` as fetch takes it: a browser's own store refuses very large answers
 * @throws AskError with a sentence for the person
 */
export async function ask<E extends Endpoint>(
  e: E,
  at: At<E>,
  body?: BodyOf<E>,
  more: Pick<RequestInit, 'cache'> = {},
): Promise<AnsweredBy<E>> {
  let res: Response;
  try {
    res = await fetch(addressOf(e, at), {
      ...more,
      method: e.method,
      ...(body instanceof Blob
        ? { body }
        : e.body && { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
  } catch {
    throw new AskError('the server does not answer; start it again, nothing that was saved is lost', 0);
  }
  if (!res.ok) throw refused(jsonOf(await res.text().catch(() => '')), res.status);
  return read(e, res);
}

/** A file on its way. */
export interface Sending<T> {
  done: Promise<T>;
  cancel(): void;
}

/** Sends a person's file. @param onProgress gets the share that has gone */
export function send<E extends Endpoint & { body: 'file'; answer: { as: 'json' } }>(
  e: E,
  at: At<E>,
  file: File,
  onProgress: (share: number) => void,
): Sending<AnswerOf<E>>;
export function send(
  e: Endpoint & { answer: { as: 'json' } },
  at: At<Endpoint>,
  file: File,
  onProgress: (share: number) => void,
): Sending<unknown> {
  const xhr = new XMLHttpRequest();
  const done = new Promise<unknown>((resolve, reject) => {
    xhr.open(e.method, addressOf(e, at));
    xhr.upload.onprogress = (p) => p.lengthComputable && onProgress(p.loaded / p.total);
    xhr.onerror = () => reject(new AskError(`${file.name}: the upload broke off; try again`, 0));
    xhr.onabort = () => reject(new AskError(`${file.name}: the upload was cancelled`, 0));
    xhr.onload = () => {
      const answer = jsonOf(xhr.responseText);
      if (xhr.status !== 200) return reject(refused(answer, xhr.status));
      try {
        resolve(fitting(e.answer.schema, answer, xhr.status));
      } catch (error) {
        reject(error);
      }
    };
    xhr.send(file);
  });
  return { done, cancel: () => xhr.abort() };
}

/** Follows what happens, one state after the other, until the returned function is called. A state that does not fit is passed over. */
export function follow<E extends Endpoint & { answer: { as: 'events' } }>(
  e: E,
  at: At<E>,
  onState: (state: AnswerOf<E>) => void,
): () => void {
  const source = new EventSource(addressOf(e, at));
  source.onmessage = (m) => {
    const state = (e.answer.schema as z.ZodType<AnswerOf<E>>).safeParse(jsonOf(m.data));
    if (state.success) onState(state.data);
  };
  return () => source.close();
}
