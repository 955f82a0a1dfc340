import type { Job } from '../core/doc/job';
import { textOf } from '../core/findings/texts/text-of';
import { problems } from '../core/plan/problems';
import { BadRequest } from './errors';

/** @throws BadRequest naming what in a document stops planning */
export function refuseStopped(document: Job): void {
  const [first] = problems(document).filter((f) => f.stops);
  if (!first) return;
  const { message, remedy } = textOf(first);
  throw new BadRequest(`${message}; ${remedy}`);
}
