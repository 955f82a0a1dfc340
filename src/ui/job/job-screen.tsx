'use client';
import { useQuery } from '@tanstack/react-query';
import { Redo2, Undo2 } from 'lucide-react';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Finding } from '@/core/proof/finding';
import { formatDuration, trimNumber } from '@/core/units/length';
import { api } from '../api';
import { BoardPlan, type Layout, type SectionLine, type ViewMode } from '../board-view/board-view';
import { Legend } from '../board-view/legend';
import { ArrangeCard } from '../cards/arrange-card';
import { BoardCard } from '../cards/board-card';
import { PassCard } from '../cards/pass-card';
import { ProofCard } from '../cards/proof-card';
import { RunCard } from '../cards/run-card';
import { DepthStrip } from '../depth-strip/depth-strip';
import { ThemeSwitch } from '../theme-switch';
import { HeaderFacts } from './header-facts';
import { PassRibbon } from './pass-ribbon';
import { STATIONS, type Station, Stations } from './stations';
import { useSurface } from './surface';
import { type JobState, useJob } from './use-job';

const TurnView = dynamic(() => import('../board-view/turn-view').then((m) => m.TurnView), { ssr: false });

const STRIP = 172;

/** Width and height of an element as it is laid out. */
function useSize<T extends HTMLElement>(): [(el: T | null) => void, { width: number; height: number }] {
  const [size, setSize] = useState({ width: 0, height: 0 });
  const watch = useRef<ResizeObserver>(undefined);
  const ref = useCallback((el: T | null) => {
    watch.current?.disconnect();
    if (!el) return;
    watch.current = new ResizeObserver(() => setSize({ width: el.clientWidth, height: el.clientHeight }));
    watch.current.observe(el);
  }, []);
  return [ref, size];
}

/** A job: stations at the left, board, depth strip and ribbon in the middle, one card at the side. */
export function JobScreen({ id }: { id: string }) {
  const state = useJob(id);
  const { document: job, plan, fresh } = state;
  const library = useQuery({ queryKey: ['library'], queryFn: api.library, staleTime: 60_000 });
  const surface = useSurface(job, plan, fresh);
  const [station, setStation] = useState<Station>('Board');
  const [mode, setMode] = useState<ViewMode>('plan');
  const [selected, setSelected] = useState<string | null>(null);
  const [line, setLine] = useState<SectionLine | null>(null);
  const [pointer, setPointer] = useState<{ x: number; y: number } | null>(null);
  const [picked, setPicked] = useState<Finding | null>(null);
  const [boardRef, size] = useSize<HTMLDivElement>();

  const { undo, redo } = state;
  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      const typing = e.target instanceof HTMLElement && e.target.closest('input, select, textarea') !== null;
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z' && !typing) {
        e.preventDefault();
        if (e.shiftKey) redo();
        else undo();
      } else if (!typing && !e.ctrlKey && !e.altKey && !e.metaKey && /^[1-5]$/.test(e.key))
        setStation(STATIONS[Number(e.key) - 1]);
    };
    addEventListener('keydown', keys);
    return () => removeEventListener('keydown', keys);
  }, [undo, redo]);

  if (!job) {
    return (
      <main className="flex h-screen items-center justify-center">
        {state.problem ? (
          <div className="text-center">
            <p role="alert">{state.problem}</p>
            <Link href="/" className="btn btn-sm mt-3">
              Back to the shop
            </Link>
          </div>
        ) : (
          <span className="loading loading-dots" role="status" aria-label="loading the job" />
        )}
      </main>
    );
  }

  const { board } = job;
  const pad = 26;
  const scale = Math.max(0.01, Math.min((size.width - 2 * pad) / board.x, (size.height - 2 * pad) / board.y));
  const layout: Layout = {
    scale,
    left: (size.width - board.x * scale) / 2,
    bottom: (size.height + board.y * scale) / 2,
  };
  const middle = { x0: 0, y0: board.y / 2, x1: board.x, y1: board.y / 2 };
  const section =
    line && Math.max(line.x0, line.x1) <= board.x && Math.max(line.y0, line.y1) <= board.y ? line : middle;
  const findings = fresh && plan?.status === 'done' ? (plan.summary?.findings ?? []) : [];
  const pass = job.passes.find((p) => p.id === selected) ?? job.passes[0];
  const pick = (f: Finding) => {
    setPicked(f);
    setStation('Proof');
    const y = Math.min(board.y, Math.max(0, f.y));
    setLine({ x0: 0, y0: y, x1: board.x, y1: y });
    setPointer({ x: f.x, y: f.y });
  };
  const cards = { job, change: state.change, library: library.data };
  return (
    <div className="flex h-screen min-h-[640px] flex-col">
      <header className="flex min-h-14 items-center gap-5 border-b border-base-300 bg-base-100 px-4 py-1">
        <Link href="/" className="slab text-xl whitespace-nowrap">
          zealous <span className="text-primary">grain</span>
        </Link>
        <h1 className="slab min-w-0 flex-1 truncate text-lg" title={job.name}>
          {job.name}
        </h1>
        <HeaderFacts job={job} plan={plan} fresh={fresh} />
        <div className="flex">
          <button
            type="button"
            className="btn btn-ghost btn-sm btn-square"
            aria-label="Undo"
            title="Undo (Ctrl Z)"
            disabled={!state.canUndo}
            onClick={undo}
          >
            <Undo2 size={16} />
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-sm btn-square"
            aria-label="Redo"
            title="Redo (Ctrl Shift Z)"
            disabled={!state.canRedo}
            onClick={redo}
          >
            <Redo2 size={16} />
          </button>
          <ThemeSwitch />
        </div>
      </header>
      {state.conflict && <Conflict state={state} />}
      <div className="flex min-h-0 flex-1">
        <Stations job={job} plan={plan} fresh={fresh} current={station} onGo={setStation} />
        <main className="flex min-w-0 flex-1 flex-col gap-2.5 p-3">
          <div
            className="relative min-h-0 flex-1 overflow-hidden rounded-xl border border-base-300 bg-[color-mix(in_oklab,var(--color-base-300)_45%,var(--color-base-200))]"
            ref={boardRef}
          >
            {size.width > 0 &&
              (mode === 'turn' && surface ? (
                <TurnView job={job} surface={surface} />
              ) : (
                <BoardPlan
                  job={job}
                  surface={surface}
                  mode={mode}
                  layout={layout}
                  width={size.width}
                  height={size.height}
                  section={section}
                  onSection={setLine}
                  pointer={pointer}
                  onPointer={setPointer}
                  findings={findings}
                  picked={picked}
                  onPick={pick}
                />
              ))}
            <fieldset className="join absolute top-2 right-2">
              <legend className="sr-only">How the board is shown</legend>
              {(['plan', 'turn', 'left over'] as const).map((m) => (
                <button
                  key={m}
                  type="button"
                  aria-pressed={mode === m}
                  disabled={m === 'left over' && !surface?.deviation}
                  className={`btn join-item btn-sm ${mode === m ? 'btn-primary' : 'bg-base-100'}`}
                  onClick={() => setMode(m)}
                >
                  {m}
                </button>
              ))}
            </fieldset>
            <Legend mode={mode} surface={surface} />
            <Progress state={state} proven={surface?.proven ?? false} />
          </div>
          {size.width > 0 && (
            <DepthStrip
              job={job}
              surface={surface}
              plan={surface?.proven ? (plan?.id ?? null) : null}
              section={section}
              layout={layout}
              width={size.width}
              height={STRIP}
              pointer={pointer}
              onPointer={setPointer}
            />
          )}
          <PassRibbon
            job={job}
            summary={fresh ? (plan?.summary ?? null) : null}
            selected={station === 'Passes' ? pass.id : ''}
            onSelect={(p) => {
              setSelected(p);
              setStation('Passes');
            }}
            onMove={(from, to) =>
              state.change((j) => {
                const [p] = j.passes.splice(from, 1);
                j.passes.splice(to, 0, p);
              })
            }
          />
        </main>
        <aside className="flex w-[306px] shrink-0 flex-col border-l border-base-300 bg-base-100">
          <div className="min-h-0 flex-1 overflow-y-auto">
            {station === 'Board' && <BoardCard {...cards} />}
            {station === 'Arrange' && <ArrangeCard {...cards} lostPlan={surface?.lostPlan ?? 0} />}
            {station === 'Passes' && (
              <PassCard {...cards} pass={pass} plan={plan} fresh={fresh} onSelect={setSelected} />
            )}
            {station === 'Proof' && <ProofCard plan={plan} fresh={fresh} picked={picked} onPick={pick} />}
            {station === 'Run' && <RunCard {...cards} plan={plan} fresh={fresh} />}
          </div>
          <Footer state={state} onRun={() => setStation('Run')} onRunStation={station === 'Run'} />
        </aside>
      </div>
    </div>
  );
}

/** What is going on with the plan, over the board. */
function Progress({ state, proven }: { state: JobState; proven: boolean }) {
  const { plan, fresh } = state;
  const running = plan?.status === 'queued' || plan?.status === 'running';
  if (fresh && proven && !running) return null;
  const p = plan?.progress;
  return (
    <div className="panel absolute top-2 left-2 flex items-center gap-3 px-3 py-1.5 text-sm" role="status">
      {running ? (
        <>
          <progress className="progress progress-primary w-28" value={p?.share ?? 0} max={1} aria-label="planning" />
          <span>
            {plan?.status === 'queued' ? 'waiting its turn' : (p?.name ?? 'starting')}
            {p?.secondsLeft !== null &&
              p?.secondsLeft !== undefined &&
              `, ${formatDuration(Math.max(1, p.secondsLeft))} left`}
          </span>
          <button type="button" className="btn btn-sm" onClick={state.cancel}>
            Cancel
          </button>
        </>
      ) : state.saving === 'refused' ? (
        <span className="text-accent">not planned: see the card's foot</span>
      ) : plan?.status === 'failed' ? (
        <span className="text-accent">planning failed: {plan.message}</span>
      ) : plan?.status === 'cancelled' ? (
        <span>cancelled; this is the target, not yet proven</span>
      ) : (
        <span>a coarse look; sharpens when it is planned</span>
      )}
    </div>
  );
}

/** Two saves on top of the same version: both are kept until one is chosen. */
function Conflict({ state }: { state: JobState }) {
  return (
    <div role="alert" className="flex items-center gap-3 border-b border-accent bg-base-100 px-4 py-2 text-sm">
      <span className="flex-1">
        This job was changed elsewhere, in another tab perhaps. Both versions are kept; which one goes on?
      </span>
      <button type="button" className="btn btn-sm" onClick={() => state.settle(false)}>
        The other one
      </button>
      <button type="button" className="btn btn-primary btn-sm" onClick={() => state.settle(true)}>
        Mine
      </button>
    </div>
  );
}

function Footer({ state, onRun, onRunStation }: { state: JobState; onRun(): void; onRunStation: boolean }) {
  const { plan, fresh, saving, problem } = state;
  const running = plan?.status === 'queued' || plan?.status === 'running';
  const done = fresh && plan?.status === 'done';
  const said = { saved: 'saved', waiting: 'changed', saving: 'saving', refused: 'not saved' }[saving];
  return (
    <div className="border-t border-base-300 px-4 py-3">
      {problem && (
        <p role="alert" className="mb-2 text-sm text-accent">
          {problem}
        </p>
      )}
      {done ? (
        !onRunStation && (
          <button type="button" className="btn btn-primary w-full" onClick={onRun}>
            Programs, {plan?.summary ? formatDuration(plan.summary.seconds) : ''}
          </button>
        )
      ) : (
        <button
          type="button"
          className="btn btn-primary w-full"
          disabled={running || saving !== 'saved'}
          onClick={state.prove}
        >
          {running ? `Proving the cut, ${trimNumber((plan?.progress?.share ?? 0) * 100, 0)} %` : 'Prove the cut'}
        </button>
      )}
      <p className="soft mt-1 text-right text-[13px]" role="status">
        {said}
      </p>
    </div>
  );
}
