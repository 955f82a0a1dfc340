import { replaceEqualDeep } from '@tanstack/react-query';
import { followShared } from '@/core/arrange/shared';
import type { Job } from '@/core/doc/job';

/** A version of the document; without an id until the server has it. */
export interface Entry {
  id: string | null;
  document: Job;
}

/** The versions that undo and redo go along, and the place on them. Never changed in place: every step is a new line. */
export interface Line {
  entries: readonly Entry[];
  at: number;
}

export const EMPTY: Line = { entries: [], at: 0 };

/** Most versions that are kept before a new one. */
const UNDO_STEPS = 200;

export const shownOn = (line: Line): Job | undefined => line.entries[line.at]?.document;

/**
 * A document with a change made to a copy of it; what is one on several setups follows. What the change leaves as it was is the very same
 * object, so that whoever has looked at it need not do so again; a change that changes nothing leaves the very same document.
 */
export function changed(document: Job, edit: (job: Job) => void): Job {
  const next = structuredClone(document);
  edit(next);
  followShared(document, next);
  return replaceEqualDeep(document, next);
}

/** The line with a change as its newest version, and nothing to be done again; the same line where the change changes nothing. */
export function altered(line: Line, edit: (job: Job) => void): Line {
  const before = shownOn(line);
  if (!before) return line;
  const next = changed(before, edit);
  if (next === before) return line;
  const kept = line.entries.slice(Math.max(0, line.at + 1 - UNDO_STEPS), line.at + 1);
  return { entries: [...kept, { id: null, document: next }], at: kept.length };
}

/** The line one version on or back; the same line at its ends. */
export function stepped(line: Line, by: 1 | -1): Line {
  const at = line.at + by;
  return at < 0 || at >= line.entries.length ? line : { ...line, at };
}

/** The last version up to the place that the server has, as its place; -1 when it has none. */
export function lastSaved(line: Line): number {
  let at = line.at;
  while (at >= 0 && line.entries[at].id === null) at--;
  return at;
}

/** The line once the server has a version, under this id. */
export const saved = (line: Line, entry: Entry, id: string): Line => ({
  ...line,
  entries: line.entries.map((e) => (e === entry ? { ...e, id } : e)),
});

/** The line without a version before its place. */
export const without = (line: Line, entry: Entry): Line => ({
  entries: line.entries.filter((e) => e !== entry),
  at: line.at - 1,
});
