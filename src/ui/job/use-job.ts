'use client';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { describeIssues, type Job, jobSchema, setupsOf } from '@/core/doc/job';
import { problems } from '@/core/plan/problems';
import { ApiError, api, type JobPlan } from '../api';

/** Wait after the last change before it is saved, ms. */
const SETTLE = 400;
/** Wait after the last save before it is planned while layers are being arranged, ms. */
const ARRANGING = 5000;
const UNDO_STEPS = 200;

/** A version of the document; without an id until the server has it. */
interface Entry {
  id: string | null;
  document: Job;
}

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
  const [chain, setChain] = useState<Entry[]>([]);
  const [at, setAt] = useState(0);
  const [draft, setDraft] = useState<Job | null>(null);
  const [plan, setPlan] = useState<JobPlan | null>(null);
  const [planned, setPlanned] = useState<string | null>(null);
  const [revision, setRevision] = useState<string | null>(null);
  const [saving, setSaving] = useState<JobState['saving']>('saved');
  const [problem, setProblem] = useState<string | null>(null);
  const [conflict, setConflict] = useState<JobState['conflict']>(null);
  /** What the server has in force; the line of versions and the place on it, as the newest call sees them. */
  const head = useRef('');
  const line = useRef<Entry[]>([]);
  const place = useRef(0);
  const busy = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const planTimer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const slow = useRef(arranging);
  slow.current = arranging;

  const fail = useCallback((e: unknown) => setProblem(e instanceof Error ? e.message : String(e)), []);

  const startPlan = useCallback(async () => {
    clearTimeout(planTimer.current);
    try {
      const p = await api.plan(id);
      setPlan(p);
      setPlanned(p.revision);
    } catch (e) {
      fail(e);
    }
  }, [id, fail]);

  const planSoon = useCallback(() => {
    clearTimeout(planTimer.current);
    const now = line.current[place.current]?.document;
    // Nothing is planned of an empty board, or while something in the document stops it.
    if (!now || setupsOf(now).every((p) => p.setup.layers.length === 0) || problems(now).some((f) => f.stops)) return;
    planTimer.current = setTimeout(() => void startPlan(), slow.current ? ARRANGING : 0);
  }, [startPlan]);

  const put = useCallback((entries: Entry[], index: number) => {
    line.current = entries;
    place.current = index;
    setChain(entries);
    setAt(index);
  }, []);

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
      setPlan(p);
      setPlanned(p?.revision ?? null);
      // A newcomer's job is planned by itself; one that was stopped by hand waits for the word.
      if (!p || p.status === 'interrupted' || (p.revision !== j.revision && p.status !== 'cancelled')) planSoon();
    }, fail);
    return () => {
      gone = true;
      clearTimeout(timer.current);
      clearTimeout(planTimer.current);
    };
  }, [load, planSoon, fail]);

  // Arranging is over: what waited is planned now.
  const wasArranging = useRef(arranging);
  useEffect(() => {
    if (wasArranging.current && !arranging && saving === 'saved' && revision !== null && planned !== revision)
      planSoon();
    wasArranging.current = arranging;
  }, [arranging, saving, revision, planned, planSoon]);

  /** Brings the server to where the page is: versions that it does not have are saved in order, then the right one is put in force. */
  const sync = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    setSaving('saving');
    try {
      for (;;) {
        const entries = line.current;
        const now = place.current;
        let known = now;
        while (entries[known].id === null) known--;
        const base = entries[known].id as string;
        if (head.current !== base) {
          await api.moveHead(id, head.current, base);
          head.current = base;
          continue;
        }
        if (known === now) break;
        const next = entries[known + 1];
        const parsed = jobSchema.safeParse(next.document);
        if (!parsed.success) {
          if (known + 1 < now) {
            // A later change has put it right: the version that cannot be saved is passed over.
            const rest = line.current.filter((e) => e !== next);
            put(rest, place.current - 1);
            continue;
          }
          setProblem(describeIssues(parsed.error, next.document));
          setSaving('refused');
          busy.current = false;
          return;
        }
        const saved = await api.saveJob(id, head.current, parsed.data);
        next.id = saved.revision;
        head.current = saved.revision;
      }
      setRevision(head.current);
      setProblem(null);
      setSaving('saved');
      busy.current = false;
      void client.invalidateQueries({ queryKey: ['jobs'] });
      planSoon();
    } catch (e) {
      busy.current = false;
      setSaving('refused');
      if (e instanceof ApiError && e.status === 409)
        setConflict({ head: String(e.details.head), kept: String(e.details.kept) });
      else fail(e);
    }
  }, [id, client, put, planSoon, fail]);

  const later = useCallback(() => {
    setRevision(null);
    setSaving('waiting');
    clearTimeout(timer.current);
    clearTimeout(planTimer.current);
    timer.current = setTimeout(() => void sync(), SETTLE);
  }, [sync]);

  const change = useCallback(
    (edit: (job: Job) => void) => {
      const before = line.current[place.current]?.document;
      setDraft(null);
      if (!before) return;
      const next = structuredClone(before);
      edit(next);
      if (JSON.stringify(next) === JSON.stringify(before)) return;
      const kept = line.current.slice(Math.max(0, place.current + 1 - UNDO_STEPS), place.current + 1);
      put([...kept, { id: null, document: next }], kept.length);
      later();
    },
    [put, later],
  );

  const tryOut = useCallback((edit: ((job: Job) => void) | null) => {
    const before = line.current[place.current]?.document;
    if (!edit || !before) return setDraft(null);
    const next = structuredClone(before);
    edit(next);
    setDraft(next);
  }, []);

  const step = useCallback(
    (by: 1 | -1) => {
      const to = place.current + by;
      if (to < 0 || to >= line.current.length) return;
      put(line.current, to);
      later();
    },
    [put, later],
  );
  const undo = useCallback(() => step(-1), [step]);
  const redo = useCallback(() => step(1), [step]);

  const following = plan && (plan.status === 'queued' || plan.status === 'running') ? plan.id : null;
  useEffect(() => {
    if (!following) return;
    const events = new EventSource(`/api/plans/${following}/events`);
    events.onmessage = (e) => {
      const state = JSON.parse(e.data) as JobPlan;
      setPlan((p) => (p?.id === state.id ? state : p));
      if (state.status !== 'queued' && state.status !== 'running') {
        events.close();
        void client.invalidateQueries({ queryKey: ['jobs'] });
      }
    };
    return () => events.close();
  }, [following, client]);

  const settle = useCallback(
    async (mine: boolean) => {
      if (!conflict) return;
      try {
        const unsaved = line.current.slice(0, place.current + 1).some((e) => e.id === null);
        const doc = unsaved ? line.current[place.current].document : await api.revision(id, conflict.kept);
        await load();
        if (mine) {
          change((j) => Object.assign(j, doc));
          clearTimeout(timer.current);
          await sync();
          // The copy that was kept aside goes only when the same is in force.
          if (line.current[place.current].id === null) return;
        } else planSoon();
        await api.settleKept(id);
        setConflict(null);
      } catch (e) {
        fail(e);
      }
    },
    [conflict, id, load, change, sync, planSoon, fail],
  );

  return {
    document: draft ?? chain[at]?.document,
    plan,
    fresh: draft === null && revision !== null && planned === revision,
    saving,
    trying: draft !== null,
    revision,
    problem,
    conflict,
    change,
    tryOut,
    undo,
    redo,
    canUndo: at > 0,
    canRedo: at + 1 < chain.length,
    prove: () => void startPlan(),
    cancel: () => {
      clearTimeout(planTimer.current);
      if (plan) void api.cancelPlan(plan.id).then(setPlan, fail);
    },
    settle: (mine) => void settle(mine),
  };
}
