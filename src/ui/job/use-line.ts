'use client';
import { useCallback, useRef, useState } from 'react';
import { type Job, jobSchema } from '@/core/doc/job';
import { describeIssues } from '@/core/doc/refusal';
import { api } from '../api';

const UNDO_STEPS = 200;

/** A version of the document; without an id until the server has it. */
interface Entry {
  id: string | null;
  document: Job;
}

/** What the line of versions is, and the place on it. */
interface Line {
  entries: Entry[];
  at: number;
}

/** The versions of a document as the page has them: changes go on from the place where it is. */
export function useLine() {
  const [shown, setShown] = useState<Line>({ entries: [], at: 0 });
  const [draft, setDraft] = useState<Job | null>(null);
  /** As the newest call sees it. */
  const line = useRef<Line>(shown);
  const put = useCallback((entries: Entry[], at: number) => {
    line.current = { entries, at };
    setShown(line.current);
  }, []);
  const now = useCallback(() => line.current.entries[line.current.at]?.document, []);
  /** Makes a change; whether it is one. */
  const alter = useCallback(
    (edit: (job: Job) => void): boolean => {
      const before = now();
      setDraft(null);
      if (!before) return false;
      const next = structuredClone(before);
      edit(next);
      if (JSON.stringify(next) === JSON.stringify(before)) return false;
      const { entries, at } = line.current;
      const kept = entries.slice(Math.max(0, at + 1 - UNDO_STEPS), at + 1);
      put([...kept, { id: null, document: next }], kept.length);
      return true;
    },
    [put, now],
  );
  const tryOut = useCallback(
    (edit: ((job: Job) => void) | null) => {
      const before = now();
      if (!edit || !before) return setDraft(null);
      const next = structuredClone(before);
      edit(next);
      setDraft(next);
    },
    [now],
  );
  /** Goes along the line; whether there was a version to go to. */
  const step = useCallback(
    (by: 1 | -1): boolean => {
      const { entries, at } = line.current;
      if (at + by < 0 || at + by >= entries.length) return false;
      put(entries, at + by);
      return true;
    },
    [put],
  );
  const { entries, at } = shown;
  /** What is shown of it. */
  const seen = {
    /** A change that is still being made counts. */
    document: draft ?? entries[at]?.document,
    trying: draft !== null,
    canUndo: at > 0,
    canRedo: at + 1 < entries.length,
    tryOut,
  };
  return { seen, line, put, now, alter, step };
}

/**
 * Brings the server to where the page is: versions that it does not have are saved in order, then the right one is put in force.
 * @returns what keeps the newest version from being saved, or null
 */
export async function bring(
  id: string,
  { line, put }: Pick<ReturnType<typeof useLine>, 'line' | 'put'>,
  head: { current: string },
) {
  for (;;) {
    const { entries, at } = line.current;
    let known = at;
    while (entries[known].id === null) known--;
    const base = entries[known].id as string;
    if (head.current !== base) {
      await api.moveHead(id, head.current, base);
      head.current = base;
      continue;
    }
    if (known === at) return null;
    const next = entries[known + 1];
    const parsed = jobSchema.safeParse(next.document);
    if (!parsed.success) {
      if (known + 1 === at) return describeIssues(parsed.error, next.document);
      // A later change has put it right: the version that cannot be saved is passed over.
      put(
        line.current.entries.filter((e) => e !== next),
        line.current.at - 1,
      );
      continue;
    }
    const saved = await api.saveJob(id, head.current, parsed.data);
    next.id = saved.revision;
    head.current = saved.revision;
  }
}
