import type { Job } from '../doc/job';
import { DOCUMENT_CHECKS } from '../doc/problems/registry';
import { type Finding, identify } from '../findings/finding';
import { passProblems } from '../passes/problems';

/** All that is wrong in a document as it stands. Nothing is planned while any of it is an error. */
export function problems(job: Job): Finding[] {
  const found = [...DOCUMENT_CHECKS.flatMap((check) => check(job)), ...passProblems(job)];
  return identify(found, true);
}
