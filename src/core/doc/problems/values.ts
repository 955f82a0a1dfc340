import type { z } from 'zod';
import type { Fix, Found } from '../../findings/finding';
import { type Job, soundJobSchema } from '../job';
import { fieldName } from './field-name';
import { type DocPath, problem } from './problem';

const at = (job: Job, path: PropertyKey[]): unknown =>
  path.reduce((v: unknown, key) => (v as Record<PropertyKey, unknown> | null | undefined)?.[key], job);

/** What is the matter with a value, for its text. */
function figuresOf(job: Job, issue: z.core.$ZodIssue, value: unknown) {
  const shown =
    typeof value === 'number' || typeof value === 'string' ? value : JSON.stringify(value ?? null).slice(0, 60);
  const bound =
    issue.code === 'too_small' ? Number(issue.minimum) : issue.code === 'too_big' ? Number(issue.maximum) : 0;
  const how = issue.code === 'too_small' ? 'small' : issue.code === 'too_big' ? 'big' : 'other';
  const open = 'inclusive' in issue && issue.inclusive === false;
  return { field: fieldName(job, issue.path), value: shown, how, bound, open, said: issue.message };
}

/** The nearest number that is within the bounds; none where there is no nearest one. */
function within(issue: z.core.$ZodIssue, value: unknown): Fix[] {
  if (typeof value !== 'number' || (issue.code !== 'too_small' && issue.code !== 'too_big') || !issue.inclusive)
    return [];
  const to = Number(issue.code === 'too_small' ? issue.minimum : issue.maximum);
  return [
    {
      id: 'use-value',
      figures: { value: to, field: issue.path.join('.') },
      edits: [{ set: issue.path as DocPath, to }],
    },
  ];
}

/** Figures outside their bounds, empty names, and fields that do not go with each other. */
export function values(job: Job): Found[] {
  const parsed = soundJobSchema.safeParse(job);
  if (parsed.success) return [];
  return parsed.error.issues.map((issue) => {
    const value = at(job, issue.path);
    return problem('value', issue.path as DocPath, figuresOf(job, issue, value), { fixes: within(issue, value) });
  });
}
