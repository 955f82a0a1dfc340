'use client';
import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { ask } from '@/contract/ask';
import type { PlanInfo, PlanState } from '@/contract/plans';
import { SHOP } from '@/contract/shop';
import { boardSchema } from '@/core/doc/board';
import { applyEdits } from '@/core/doc/edits';
import { type Job, setupsOf } from '@/core/doc/job';
import { bitsIn } from '@/core/doc/own-feeds';
import type { Grid } from '@/core/field/height-field';
import type { Finding, Fix } from '@/core/findings/finding';
import { cutoutFacts } from '@/core/plan/plan-passes';
import { problems } from '@/core/plan/problems';
import { summaryOf } from '@/core/plan/summary';
import { type SetupView, setupView } from '@/core/setup/view';
import type { Camera } from '@/ui/board-view/camera';
import type { SectionLine, ViewMode } from '@/ui/board-view/layout';
import { PointerPlace } from '@/ui/board-view/pointer-place';
import { useAddFiles } from '../arrange/use-add-files';
import { type ArrangementLook, useArrangement } from '../arrange/use-arrangement';
import { useBehind } from '../arrange/use-behind';
import { Pace } from '../board-view/pace';
import type { Editor } from '../editor/editor';
import { useSurface } from './surface';
import { useCalm } from './use-calm';
import { type Editing, useEditor } from './use-editor';
import { useHours } from './use-hours';

/** Size and thickness of a board that can be drawn at all. */
const drawable = boardSchema.pick({ x: true, y: true, thickness: true });

/** The setup of a document that is shown: the one asked for, else the first that cuts layers, else the first. */
function shownSetup(document: Job | undefined, wanted: string | null): SetupView | null {
  if (!document) return null;
  return setupsOf(document).length > 0 ? setupView(document, wanted) : null;
}

/** A plan of the whole job as one setup sees it. */
function planFor(plan: PlanState | null, setup: string | null): PlanInfo | null {
  return plan && { ...plan, summary: plan.summary && setup !== null ? summaryOf(plan.summary, setup) : null };
}

type SetupEdit = (j: SetupView) => void;

/** What is waiting to be drawn of a document that is tried out. */
const TRIED = 'tried';

/** How one setup of a document is edited; what is tried out of it is worked out at once, and drawn at its pace. */
function useEdits(editor: Editor, setup: string | null, pace: Pace, ahead: ArrangementLook['ahead']) {
  const change = useCallback(
    (edit: SetupEdit) => {
      pace.drop(TRIED);
      ahead(null);
      editor.change((d) => edit(setupView(d, setup)));
    },
    [editor, setup, pace, ahead],
  );
  const tryOut = useCallback(
    (edit: SetupEdit | null) => {
      const tried = edit && editor.tried((d) => edit(setupView(d, setup)));
      if (tried) {
        ahead(setupView(tried, setup));
        pace.put(TRIED, () => editor.tryOut(tried));
      } else {
        pace.drop(TRIED);
        ahead(null);
        editor.tryOut(null);
      }
    },
    [editor, setup, pace, ahead],
  );
  return { change, tryOut };
}

/** The tab is named after the job while it is open. */
function useTitle(name: string | undefined): void {
  useEffect(() => {
    if (name === undefined) return;
    const before = document.title;
    document.title = name;
    return () => {
      document.title = before;
    };
  }, [name]);
}

/** What has been found in what is shown: by its proof, or in the document itself. */
function findingsOf(state: Editing, stopping: Finding[]): Finding[] {
  const proven = state.fresh && state.plan?.status === 'done' ? state.plan.summary?.findings : undefined;
  return proven ?? stopping;
}

/** Through the place of a finding, from the board's one side to the other. */
function lineThrough(f: Finding | null, job: SetupView | null): SectionLine | null {
  if (!f?.place || !job) return null;
  const y = Math.min(job.board.y, Math.max(0, f.place.y));
  return { x0: 0, y0: y, x1: job.board.x, y1: y };
}

/** How the board is looked at; nothing of it outlives the page. */
function useLook(pace: Pace) {
  const [mode, setMode] = useState<ViewMode>('plan');
  const [line, setLine] = useState<SectionLine | null>(null);
  const [pointer] = useState(() => new PointerPlace(pace));
  const [missed, setMissed] = useState<{ grid: Grid; mask: Uint8Array } | null>(null);
  const [seen, setSeen] = useState(false);
  const [camera, setCamera] = useState<Camera | null>(null);
  /** Whether the ways of the bits are drawn. */
  const [paths, setPaths] = useState(false);
  /** Whether a hand moves something on the board. */
  const [held, setHeld] = useState(false);
  /** Whether the turned board is shown without its frame and waste. */
  const [alone, setAlone] = useState(false);
  /** The layer whose name is being written where it stands. */
  const [renaming, setRenaming] = useState<string | null>(null);
  return {
    renaming,
    setRenaming,
    camera,
    setCamera,
    paths,
    setPaths,
    alone,
    setAlone,
    held,
    setHeld,
    mode,
    setMode,
    line,
    setLine,
    pointer,
    missed,
    setMissed,
    seen,
    setSeen,
  };
}

/** What the job screen shows: one setup of a job with its plan, what is selected on it, and how it is looked at. */
export function useScreen(id: string) {
  const state = useEditor(id);
  const { editor, fresh, document, place } = state;
  const { station } = place;
  const arranging = station === 'Arrange';
  const job = useMemo(() => shownSetup(document, place.setup), [document, place.setup]);
  const setup = job?.setup.id ?? null;
  const [pace] = useState(() => new Pace());
  const plan = useMemo(() => planFor(state.plan, setup), [state.plan, setup]);
  const library = useQuery({ queryKey: ['library'], queryFn: () => ask(SHOP.library, {}), staleTime: 60_000 });
  // While a hand moves something, what is reckoned of the document waits until it lets go.
  const calm = useCalm({ document, job }, state.trying);
  const bits = useMemo(
    () => (calm.job && library.data ? bitsIn(library.data.cutters, calm.job.board.material) : []),
    [library.data, calm.job],
  );
  const layers = useMemo(() => [...place.layers], [place.layers]);
  const sound = useMemo(() => job !== null && drawable.safeParse(job.board).success, [job]);
  const [axis, setAxis] = useState<'x' | 'y'>('x');
  const look = useArrangement(sound && job ? job : undefined, { selected: layers, axis, moving: state.trying }, pace);
  const { change, tryOut } = useEdits(editor, setup, pace, look.ahead);
  const behind = useBehind(sound && calm.job ? calm.job : undefined);
  const surface = useSurface({ ...look, behind }, plan, fresh, arranging ? 'layers' : 'cut', setup ?? '');
  const view = useLook(pace);
  const stopping = useMemo(
    () => (calm.document ? problems(calm.document).filter((f) => f.stops) : []),
    [calm.document],
  );
  const found = findingsOf(state, stopping);
  const picked = found.find((f) => f.id === place.finding) ?? null;
  // Turned over about its length, the board's far edge lies near: whoever holds the piece turns it like a page, and sees it the other way up.
  const upsideDown = job !== null && job.setup.up === 'back' && job.board.flip === 'about-x';
  const turned = upsideDown && view.seen;
  const files = useAddFiles({ change, turned, selectLater: editor.selectLater });
  useTitle(document?.name);
  const pass = job?.passes.find((p) => p.id === place.pass) ?? job?.passes[0] ?? null;
  const summary = fresh ? (plan?.summary ?? null) : null;
  const hours = useHours(state, job, summary !== null);
  const showSetup = (to: string) => {
    editor.showSetup(to);
    view.setLine(null);
    view.setCamera(null);
  };
  const pick = (f: Finding) => {
    editor.showFinding(f.id, f.subject.setup);
    view.setLine(null);
    const { place } = f;
    if (!place) return;
    view.pointer.put(place);
    // Whoever looks closely already is led to it.
    view.setCamera((was) => was && { ...was, ...place });
  };
  const fix = (f: Fix) => editor.change((d) => applyEdits(d, f.edits));
  return {
    id,
    state,
    editor,
    station,
    arranging,
    job,
    change,
    tryOut,
    sound,
    plan,
    fresh,
    summary,
    hours,
    library: library.data,
    bits,
    layers,
    files,
    look,
    axis,
    setAxis,
    surface,
    facts: (look.sharp ?? look.coarse)?.facts ?? null,
    pass,
    cut: cutoutFacts(summary?.passes.find((p) => p.id === pass?.id)),
    ...view,
    upsideDown,
    turned,
    line: view.line ?? lineThrough(picked, job),
    picked,
    pick,
    stopping,
    fix,
    showSetup,
    findings: !arranging && fresh && plan?.status === 'done' ? (plan.summary?.findings ?? []) : [],
  };
}

export type Screen = ReturnType<typeof useScreen>;
/** The screen of a job that has a setup. */
export type OpenScreen = Screen & { job: SetupView };
