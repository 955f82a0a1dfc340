'use client';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { describeIssues, type Job, jobSchema } from '@/core/plan/job';
import { ApiError, api, type PlanInfo } from '../api';

/** Wait after the last change before it is saved and planned, ms. */
const SETTLE = 500;
const UNDO_STEPS = 200;

export interface JobState {
  document: Job | undefined;
  plan: PlanInfo | null;
  /** Whether the plan is of the document as it is shown. */
  fresh: boolean;
  saving: 'saved' | 'waiting' | 'saving' | 'refused';
  /** Why the document as it is cannot be saved or planned. */
  problem: string | null;
  conflict: { head: string; kept: string } | null;
  change(edit: (job: Job) => void): void;
  undo(): void;
  redo(): void;
  canUndo: boolean;
  canRedo: boolean;
  prove(): void;
  cancel(): void;
  /** Settles a conflict: take the other version, or save this one on top of it. */
  settle(mine: boolean): void;
}

/** A job as it is edited: changes are shown at once, saved when they settle, and planned; the server's plan is followed. */
export function useJob(id: string): JobState {
  const client = useQueryClient();
  const [document, setDocument] = useState<Job>();
  const [plan, setPlan] = useState<PlanInfo | null>(null);
  const [planned, setPlanned] = useState<string | null>(null);
  const [revision, setRevision] = useState<string | null>(null);
  const [saving, setSaving] = useState<JobState['saving']>('saved');
  const [problem, setProblem] = useState<string | null>(null);
  const [conflict, setConflict] = useState<JobState['conflict']>(null);
  const [past, setPast] = useState<Job[]>([]);
  const [future, setFuture] = useState<Job[]>([]);
  const latest = useRef<Job>(undefined);
  const base = useRef<string>('');
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const busy = useRef(false);

  const fail = useCallback((e: unknown) => setProblem(e instanceof Error ? e.message : String(e)), []);

  const startPlan = useCallback(async () => {
    try {
      const p = await api.plan(id);
      setPlan(p);
      setPlanned(p.revision);
    } catch (e) {
      fail(e);
    }
  }, [id, fail]);

  useEffect(() => {
    let gone = false;
    api.job(id).then((j) => {
      if (gone) return;
      latest.current = j.document;
      base.current = j.revision;
      setDocument(j.document);
      setRevision(j.revision);
      if (j.kept.length > 0) setConflict({ head: j.revision, kept: j.kept[0].id });
      const p = j.plan ?? null;
      setPlan(p);
      setPlanned(p?.revision ?? null);
      // A newcomer's job is planned by itself; one that was stopped by hand waits for the word.
      if (!p || p.status === 'interrupted' || (p.revision !== j.revision && p.status !== 'cancelled')) void startPlan();
    }, fail);
    return () => {
      gone = true;
      clearTimeout(timer.current);
    };
  }, [id, startPlan, fail]);

  const save = useCallback(async () => {
    const doc = latest.current;
    if (!doc || busy.current) return;
    const parsed = jobSchema.safeParse(doc);
    if (!parsed.success) {
      setSaving('refused');
      setProblem(describeIssues(parsed.error, doc));
      return;
    }
    busy.current = true;
    setSaving('saving');
    try {
      const saved = await api.saveJob(id, base.current, parsed.data);
      base.current = saved.revision;
      setRevision(saved.revision);
      setProblem(null);
      const more = latest.current !== doc;
      setSaving(more ? 'waiting' : 'saved');
      busy.current = false;
      if (more) void save();
      else {
        void client.invalidateQueries({ queryKey: ['jobs'] });
        void startPlan();
      }
    } catch (e) {
      busy.current = false;
      setSaving('refused');
      if (e instanceof ApiError && e.status === 409)
        setConflict({ head: String(e.details.head), kept: String(e.details.kept) });
      else fail(e);
    }
  }, [id, client, startPlan, fail]);

  const put = useCallback(
    (doc: Job) => {
      latest.current = doc;
      setDocument(doc);
      setRevision(null);
      setSaving('waiting');
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void save(), SETTLE);
    },
    [save],
  );

  const change = useCallback(
    (edit: (job: Job) => void) => {
      const before = latest.current;
      if (!before) return;
      const next = structuredClone(before);
      edit(next);
      if (JSON.stringify(next) === JSON.stringify(before)) return;
      setPast((p) => [...p.slice(-UNDO_STEPS), before]);
      setFuture([]);
      put(next);
    },
    [put],
  );

  const step = useCallback(
    (from: Job[], setFrom: typeof setPast, setTo: typeof setPast) => {
      const target = from.at(-1);
      const now = latest.current;
      if (!target || !now) return;
      setFrom(from.slice(0, -1));
      setTo((t) => [...t, now]);
      put(target);
    },
    [put],
  );
  const undo = useCallback(() => step(past, setPast, setFuture), [step, past]);
  const redo = useCallback(() => step(future, setFuture, setPast), [step, future]);

  const following = plan && (plan.status === 'queued' || plan.status === 'running') ? plan.id : null;
  useEffect(() => {
    if (!following) return;
    const events = new EventSource(`/api/plans/${following}/events`);
    events.onmessage = (e) => {
      const state = JSON.parse(e.data) as PlanInfo;
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
        const doc = mine
          ? saving === 'saved'
            ? await api.revision(id, conflict.kept)
            : latest.current!
          : (await api.job(id)).document;
        base.current = (await api.job(id)).revision;
        await api.settleKept(id);
        setConflict(null);
        latest.current = doc;
        setDocument(doc);
        if (mine) await save();
        else {
          setRevision(base.current);
          setSaving('saved');
          void startPlan();
        }
      } catch (e) {
        fail(e);
      }
    },
    [conflict, id, saving, save, startPlan, fail],
  );

  return {
    document,
    plan,
    fresh: revision !== null && planned === revision,
    saving,
    problem,
    conflict,
    change,
    undo,
    redo,
    canUndo: past.length > 0,
    canRedo: future.length > 0,
    prove: () => void startPlan(),
    cancel: () => {
      if (plan) void api.cancelPlan(plan.id).then(setPlan, fail);
    },
    settle: (mine) => void settle(mine),
  };
}
