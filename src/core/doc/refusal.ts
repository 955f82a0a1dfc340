import type { z } from 'zod';
import { fieldName } from './problems/field-name';

/** What a field is to hold, in words. */
const TYPES: Record<string, string> = {
  number: 'a number',
  int: 'a whole number',
  string: 'a text',
  boolean: 'true or false',
  array: 'a list',
  tuple: 'a list',
  object: 'a group of fields',
  record: 'a group of fields',
};

const shown = (value: unknown) => JSON.stringify(value)?.slice(0, 60) ?? String(value);

/** What a list or a text has too many or too few of. */
const counted = (value: unknown, n: number) =>
  typeof value === 'string' ? `${n} ${n === 1 ? 'letter' : 'letters'}` : `${n} ${n === 1 ? 'entry' : 'entries'}`;

function bounded(issue: z.core.$ZodIssueTooSmall | z.core.$ZodIssueTooBig, value: unknown): string {
  const small = issue.code === 'too_small';
  const bound = Number(small ? issue.minimum : issue.maximum);
  if (typeof value !== 'number')
    return `is too ${small ? 'short' : 'long'}: it has to have ${small ? 'at least' : 'at most'} ${counted(value, bound)}`;
  const how = small ? (issue.inclusive ? 'at least' : 'more than') : issue.inclusive ? 'at most' : 'less than';
  return `of ${value} is too ${small ? 'small' : 'large'}: it has to be ${how} ${bound}`;
}

/** What is the matter with a value, after the name of its field. */
export function matter(issue: z.core.$ZodIssue, value: unknown): string {
  if (value === undefined) return 'is missing';
  switch (issue.code) {
    case 'invalid_type':
      return `is ${shown(value)}; it has to be ${TYPES[issue.expected] ?? issue.expected}`;
    case 'too_small':
    case 'too_big':
      return bounded(issue, value);
    case 'invalid_value':
      return `is ${shown(value)}; choose one of ${issue.values.map(String).join(', ')}`;
    case 'invalid_union':
      return `is ${shown(value)}, which is of no kind that is known`;
    case 'custom':
      return `does not go: ${issue.message}`;
    case 'invalid_format':
      return issue.message;
    default:
      return `is ${shown(value)}, which cannot be read: ${issue.message}`;
  }
}

/**
 * What is wrong with a value that a schema refused, in one line: the field in a person's words and by its place, its value, and what
 * would do.
 */
export function describeIssues(error: z.ZodError, input: unknown): string {
  const issue = error.issues[0] as z.core.$ZodIssue;
  let value: unknown = input;
  for (const key of issue.path) value = (value as Record<PropertyKey, unknown> | null | undefined)?.[key];
  if (issue.path.length === 0) return `the document ${matter(issue, value)}`;
  const place = issue.path.length > 1 ? ` (${issue.path.join('.')})` : '';
  return `${fieldName(input, issue.path)}${place} ${matter(issue, value)}`;
}
