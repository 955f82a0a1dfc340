'use client';
import { useQuery } from '@tanstack/react-query';
import { useCallback, useMemo, useState } from 'react';
import { boardSchema } from '@/core/doc/board';
import { applyEdits } from '@/core/doc/edits';
import { type Job, setupsOf } from '@/core/doc/job';
import type { Grid } from '@/core/field/height-field';
import type { Finding, Fix } from '@/core/findings/finding';
import { cutoutFacts } from '@/core/plan/plan-passes';
import { problems } from '@/core/plan/problems';
import { summaryOf } from '@/core/plan/summary';
import { type SetupView, setupView } from '@/core/setup/view';
import type { SectionLine, ViewMode } from '@/ui/board-view/layout';
import { api, type JobPlan, type PlanInfo } from '../api';
import { useArrangement } from '../arrange/use-arrangement';
import type { Station } from './stations';
import { useSurface } from './surface';
import { useJob } from './use-job';
import { useKeys } from './use-keys';

/** Size and thickness of a board that can be drawn at all. */
const drawable = boardSchema.pick({ x: true, y: true, thickness: true });

/** The setup of a document that is shown: the one asked for, else the first that cuts layers, else the first. */
function shownSetup(document: Job | undefined, wanted: string | null): SetupView | null {
  if (!document) return null;
  return setupsOf(document).length > 0 ? setupView(document, wanted) : null;
}

/** A plan of the whole job as one setup sees it. */
function planFor(plan: JobPlan | null, view: SetupView | null): PlanInfo | null {
  return plan && { ...plan, summary: plan.summary && view ? summaryOf(plan.summary, view.setup.id) : null };
}

/** A document as one setup of it is edited. */
function useSetup(state: ReturnType<typeof useJob>, wanted: string | null) {
  const { document, change: changeJob, tryOut: tryJob } = state;
  const job = useMemo(() => shownSetup(document, wanted), [document, wanted]);
  const setup = job?.setup.id ?? null;
  const change = useCallback(
    (edit: (j: SetupView) => void) => changeJob((d) => edit(setupView(d, setup))),
    [changeJob, setup],
  );
  const tryOut = useCallback(
    (edit: ((j: SetupView) => void) | null) => tryJob(edit && ((d) => edit(setupView(d, setup)))),
    [tryJob, setup],
  );
  return { job, change, tryOut };
}

/** What the job screen shows: one setup of a job with its plan, what is selected on it, and how it is looked at. */
export function useScreen(id: string) {
  const [station, setStation] = useState<Station>('Board');
  const arranging = station === 'Arrange';
  const state = useJob(id, arranging);
  const [wanted, setWanted] = useState<string | null>(null);
  const { job, change, tryOut } = useSetup(state, wanted);
  const { fresh, document } = state;
  const plan = useMemo(() => planFor(state.plan, job), [state.plan, job]);
  const library = useQuery({ queryKey: ['library'], queryFn: api.library, staleTime: 60_000 });
  const [layers, setLayers] = useState<string[]>([]);
  const sound = useMemo(() => job !== null && drawable.safeParse(job.board).success, [job]);
  const look = useArrangement(sound && job ? job : undefined, layers.length === 1 ? layers[0] : null, state.trying);
  const surface = useSurface(look, plan, fresh, arranging ? 'layers' : 'cut', job?.setup.id ?? '');
  const [mode, setMode] = useState<ViewMode>('plan');
  const [selectedPass, selectPass] = useState<string | null>(null);
  const [line, setLine] = useState<SectionLine | null>(null);
  const [pointer, setPointer] = useState<{ x: number; y: number } | null>(null);
  const [picked, setPicked] = useState<Finding | null>(null);
  const [missed, setMissed] = useState<{ grid: Grid; mask: Uint8Array } | null>(null);
  const stopping = useMemo(() => (document ? problems(document).filter((f) => f.stops) : []), [document]);
  /** A job of one relief is arranged by that relief: it is taken in hand at once. */
  const go = useCallback(
    (s: Station) => {
      setStation(s);
      if (s === 'Arrange' && job?.layers.length === 1) setLayers([job.layers[0].id]);
    },
    [job],
  );
  useKeys({ undo: state.undo, redo: state.redo, change }, station, go, layers, setLayers);
  const pass = job?.passes.find((p) => p.id === selectedPass) ?? job?.passes[0] ?? null;
  const summary = fresh ? (plan?.summary ?? null) : null;
  const showSetup = (to: string) => {
    setWanted(to);
    setLayers([]);
    setLine(null);
    setPicked(null);
  };
  const pick = (f: Finding) => {
    setPicked(f);
    setStation('Proof');
    const of = f.subject.setup;
    if (of !== undefined && of !== job?.setup.id) setWanted(of);
    if (!f.place || !job) return;
    const y = Math.min(job.board.y, Math.max(0, f.place.y));
    setLine({ x0: 0, y0: y, x1: job.board.x, y1: y });
    setPointer(f.place);
  };
  const fix = (f: Fix) => state.change((d) => applyEdits(d, f.edits));
  return {
    id,
    state,
    station,
    setStation,
    arranging,
    go,
    job,
    change,
    tryOut,
    sound,
    plan,
    fresh,
    summary,
    library: library.data,
    layers,
    setLayers,
    look,
    surface,
    facts: (look.sharp ?? look.coarse)?.facts ?? null,
    mode,
    setMode,
    pass,
    selectPass,
    cut: cutoutFacts(summary?.passes.find((p) => p.id === pass?.id)),
    line,
    setLine,
    pointer,
    setPointer,
    picked,
    pick,
    missed,
    setMissed,
    stopping,
    fix,
    showSetup,
    findings: !arranging && fresh && plan?.status === 'done' ? (plan.summary?.findings ?? []) : [],
  };
}

export type Screen = ReturnType<typeof useScreen>;
/** The screen of a job that has a setup. */
export type OpenScreen = Screen & { job: SetupView };
