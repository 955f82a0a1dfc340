'use client';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { type Job, setupsOf } from '@/core/doc/job';
import { problems } from '@/core/plan/problems';
import { api, type JobPlan } from '../api';

/** Wait after the last save before it is planned while layers are being arranged, ms. */
const ARRANGING = 5000;

/** The plan of a job: asked for when a version has settled, and followed while it is worked on. */
export function usePlan({
  id,
  now,
  arranging,
  revision,
  fail,
}: {
  id: string;
  now(): Job | undefined;
  /** Plans wait longer, so that the machine is free for the layers. */
  arranging: boolean;
  /** The version in force, when it is the one that is shown. */
  revision: string | null;
  fail(e: unknown): void;
}) {
  const client = useQueryClient();
  const [plan, setPlan] = useState<JobPlan | null>(null);
  const [planned, setPlanned] = useState<string | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const slow = useRef(arranging);
  slow.current = arranging;
  const hold = useCallback(() => clearTimeout(timer.current), []);
  const found = useCallback((p: JobPlan | null) => {
    setPlan(p);
    setPlanned(p?.revision ?? null);
  }, []);
  const start = useCallback(async () => {
    hold();
    try {
      found(await api.plan(id));
    } catch (e) {
      fail(e);
    }
  }, [id, hold, found, fail]);
  const soon = useCallback(() => {
    hold();
    const job = now();
    // Nothing is planned of an empty board, or while something in the document stops it.
    if (!job || setupsOf(job).every((p) => p.setup.layers.length === 0) || problems(job).some((f) => f.stops)) return;
    timer.current = setTimeout(() => void start(), slow.current ? ARRANGING : 0);
  }, [now, hold, start]);
  const cancel = () => {
    hold();
    if (plan) void api.cancelPlan(plan.id).then(setPlan, fail);
  };

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
  // Arranging is over: what waited is planned now.
  const wasArranging = useRef(arranging);
  useEffect(() => {
    if (wasArranging.current && !arranging && revision !== null && planned !== revision) soon();
    wasArranging.current = arranging;
  }, [arranging, revision, planned, soon]);
  return { plan, planned, found, start, soon, hold, cancel };
}
