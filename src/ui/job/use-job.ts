'use client';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Job } from '@/core/doc/job';
import { ApiError, api, type JobPlan } from '../api';
import { bring, useLine } from './use-line';
import { usePlan } from './use-plan';

/** Wait after the last change before it is saved, ms. */
const SETTLE = 400;

export interface JobState {
  /** The document as it is shown: a change that is still being made counts. */
  document: Job | undefined;
  plan: JobPlan | null;
  /** Whether the plan is of the document as it is shown. */
  fresh: boolean;
  saving: 'saved' | 'waiting' | 'saving' | 'refused';
  /** A change is being tried out, as while something is dragged. */
  trying: boolean;
  /** The version in force on the server, when it is the one that is shown. */
  revision: string | null;
  /** Why the document as it is cannot be saved or planned. */
  problem: string | null;
  conflict: { head: string; kept: string } | null;
  change(edit: (job: Job) => void): void;
  /** Shows a change without making it, as while something is dragged; null drops it. */
  tryOut(edit: ((job: Job) => void) | null): void;
  undo(): void;
  redo(): void;
  canUndo: boolean;
  canRedo: boolean;
  prove(): void;
  cancel(): void;
  /** Settles a conflict: take the other version, or save this one on top of it. */
  settle(mine: boolean): void;
}

/**
 * A job as it is edited: changes are shown at once, saved one by one when they settle, and planned; the server's plan is followed. Undo
 * and redo go through the server's own versions, so that they reach back over a reload.
 * @param arranging plans wait longer, so that the machine is free for the layers
 */
export function useJob(id: string, arranging: boolean): JobState {
  const client = useQueryClient();
  const { seen, line, put, now, alter, step } = useLine();
  const [revision, setRevision] = useState<string | null>(null);
  const [saving, setSaving] = useState<JobState['saving']>('saved');
  const [problem, setProblem] = useState<string | null>(null);
  const [conflict, setConflict] = useState<JobState['conflict']>(null);
  /** What the server has in force. */
  const head = useRef('');
  const busy = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const fail = useCallback((e: unknown) => setProblem(e instanceof Error ? e.message : String(e)), []);
  const { plan, planned, found, start, soon, hold, cancel } = usePlan({ id, now, arranging, revision, fail });

  const load = useCallback(async () => {
    const [j, h] = await Promise.all([api.job(id), api.history(id)]);
    head.current = j.revision;
    put(h.chain, h.at);
    setRevision(j.revision);
    setSaving('saved');
    return j;
  }, [id, put]);

  useEffect(() => {
    let gone = false;
    load().then((j) => {
      if (gone) return;
      if (j.kept.length > 0) setConflict({ head: j.revision, kept: j.kept[0].id });
      const p = j.plan ?? null;
      found(p);
      // A newcomer's job is planned by itself; one that was stopped by hand waits for the word.
      if (!p || p.status === 'interrupted' || (p.revision !== j.revision && p.status !== 'cancelled')) soon();
    }, fail);
    return () => {
      gone = true;
      clearTimeout(timer.current);
      hold();
    };
  }, [load, found, soon, hold, fail]);

  const sync = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    setSaving('saving');
    try {
      const refused = await bring(id, { line, put }, head);
      setProblem(refused);
      setSaving(refused === null ? 'saved' : 'refused');
      if (refused !== null) return;
      setRevision(head.current);
      void client.invalidateQueries({ queryKey: ['jobs'] });
      soon();
    } catch (e) {
      setSaving('refused');
      if (e instanceof ApiError && e.status === 409)
        setConflict({ head: String(e.details.head), kept: String(e.details.kept) });
      else fail(e);
    } finally {
      busy.current = false;
    }
  }, [id, client, line, put, soon, fail]);

  /** Saves what has changed when it settles. */
  const later = useCallback(
    (changed: boolean) => {
      if (!changed) return;
      setRevision(null);
      setSaving('waiting');
      clearTimeout(timer.current);
      hold();
      timer.current = setTimeout(() => void sync(), SETTLE);
    },
    [hold, sync],
  );
  const change = useCallback((edit: (job: Job) => void) => later(alter(edit)), [alter, later]);
  const undo = useCallback(() => later(step(-1)), [step, later]);
  const redo = useCallback(() => later(step(1)), [step, later]);

  const settle = useCallback(
    async (mine: boolean) => {
      if (!conflict) return;
      try {
        const { entries, at } = line.current;
        const unsaved = entries.slice(0, at + 1).some((e) => e.id === null);
        const doc = unsaved ? entries[at].document : await api.revision(id, conflict.kept);
        await load();
        if (mine) {
          change((j) => Object.assign(j, doc));
          clearTimeout(timer.current);
          await sync();
          // The copy that was kept aside goes only when the same is in force.
          if (line.current.entries[line.current.at].id === null) return;
        } else soon();
        await api.settleKept(id);
        setConflict(null);
      } catch (e) {
        fail(e);
      }
    },
    [conflict, id, line, load, change, sync, soon, fail],
  );

  return {
    ...seen,
    plan,
    fresh: !seen.trying && revision !== null && planned === revision,
    saving,
    revision,
    problem,
    conflict,
    change,
    undo,
    redo,
    prove: () => void start(),
    cancel,
    settle: (mine) => void settle(mine),
  };
}
