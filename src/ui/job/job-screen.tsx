'use client';
import { DndContext, type DragEndEvent, DragOverlay, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { useQuery } from '@tanstack/react-query';
import { Redo2, Undo2 } from 'lucide-react';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useCallback, useRef, useState } from 'react';
import type { Grid } from '@/core/field/height-field';
import type { Finding } from '@/core/proof/finding';
import { api, type PatternInfo } from '../api';
import { placeFile } from '../arrange/actions';
import { ArrangeSide } from '../arrange/arrange-side';
import { LayerHandles } from '../arrange/layer-handles';
import { PatternDrawer } from '../arrange/pattern-drawer';
import { useArrangement } from '../arrange/use-arrangement';
import { BoardPlan, type Layout, type SectionLine, type ViewMode } from '../board-view/board-view';
import { Legend } from '../board-view/legend';
import { BoardCard } from '../cards/board-card';
import { PassCard } from '../cards/pass-card';
import { hasPlaces, PlaceHandles } from '../cards/place-handles';
import { ProofCard } from '../cards/proof-card';
import { RunCard } from '../cards/run-card';
import { DepthStrip } from '../depth-strip/depth-strip';
import { ThemeSwitch } from '../theme-switch';
import { HeaderFacts } from './header-facts';
import { PassRibbon } from './pass-ribbon';
import { Conflict, Footer, Progress } from './progress';
import { type Station, Stations } from './stations';
import { useSurface } from './surface';
import { useJob } from './use-job';
import { useKeys } from './use-keys';

const TurnView = dynamic(() => import('../board-view/turn-view').then((m) => m.TurnView), { ssr: false });

const STRIP = 172;

/** An element with its width and height as it is laid out. */
function useSize<T extends HTMLElement>() {
  const [size, setSize] = useState({ width: 0, height: 0 });
  const watch = useRef<ResizeObserver>(undefined);
  const element = useRef<T | null>(null);
  const ref = useCallback((el: T | null) => {
    watch.current?.disconnect();
    element.current = el;
    if (!el) return;
    watch.current = new ResizeObserver(() => setSize({ width: el.clientWidth, height: el.clientHeight }));
    watch.current.observe(el);
  }, []);
  return { ref, size, element };
}

/** A job: stations at the left, board, depth strip and ribbon (or the pattern drawer) in the middle, one card at the side. */
export function JobScreen({ id }: { id: string }) {
  const [station, setStation] = useState<Station>('Board');
  const arranging = station === 'Arrange';
  const state = useJob(id, arranging);
  const { document: job, plan, fresh, change } = state;
  const library = useQuery({ queryKey: ['library'], queryFn: api.library, staleTime: 60_000 });
  const [layers, setLayers] = useState<string[]>([]);
  const look = useArrangement(job, layers.length === 1 ? layers[0] : null, state.trying);
  const surface = useSurface(look, plan, fresh, arranging ? 'layers' : 'cut');
  const facts = (look.sharp ?? look.coarse)?.facts ?? null;
  const [mode, setMode] = useState<ViewMode>('plan');
  const [selectedPass, setSelectedPass] = useState<string | null>(null);
  const [line, setLine] = useState<SectionLine | null>(null);
  const [pointer, setPointer] = useState<{ x: number; y: number } | null>(null);
  const [picked, setPicked] = useState<Finding | null>(null);
  const [missed, setMissed] = useState<{ grid: Grid; mask: Uint8Array } | null>(null);
  const [carried, setCarried] = useState<PatternInfo | null>(null);
  const { ref: boardRef, size, element: boardElement } = useSize<HTMLDivElement>();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  /** A job of one relief is arranged by that relief: it is taken in hand at once. */
  const go = useCallback(
    (s: Station) => {
      setStation(s);
      if (s === 'Arrange' && job?.layers.length === 1) setLayers([job.layers[0].id]);
    },
    [job],
  );
  useKeys(state, station, go, layers, setLayers);

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
  const findings = !arranging && fresh && plan?.status === 'done' ? (plan.summary?.findings ?? []) : [];
  const pass = job.passes.find((p) => p.id === selectedPass) ?? job.passes[0];
  const cut = fresh ? (plan?.summary?.passes.find((p) => p.id === pass.id)?.cutout ?? null) : null;
  const pick = (f: Finding) => {
    setPicked(f);
    setStation('Proof');
    const y = Math.min(board.y, Math.max(0, f.y));
    setLine({ x0: 0, y0: y, x1: board.x, y1: y });
    setPointer({ x: f.x, y: f.y });
  };
  const place = (p: PatternInfo, at: { x: number; y: number } | null) => {
    const layer = placeFile(job, p, at);
    change((j) => j.layers.push(layer));
    setLayers([layer.id]);
  };
  /** A pattern let go over the board is placed where it was let go. */
  const dropped = (e: DragEndEvent) => {
    setCarried(null);
    const pattern = e.active.data.current?.pattern as PatternInfo | undefined;
    const box = boardElement.current?.getBoundingClientRect();
    const start = e.activatorEvent as PointerEvent;
    if (!pattern || !box) return;
    const x = start.clientX + e.delta.x - box.left;
    const y = start.clientY + e.delta.y - box.top;
    if (x < 0 || y < 0 || x > box.width || y > box.height) return;
    const on = (v: number, most: number) => Math.min(most, Math.max(0, v));
    place(pattern, {
      x: on((x - layout.left) / scale, board.x),
      y: on((layout.bottom - y) / scale, board.y),
    });
  };
  const cards = { job, change, library: library.data };
  return (
    <DndContext
      id="drawer"
      sensors={sensors}
      onDragStart={(e) => setCarried((e.active.data.current?.pattern as PatternInfo | undefined) ?? null)}
      onDragEnd={dropped}
      onDragCancel={() => setCarried(null)}
    >
      <div className="flex h-screen min-h-[640px] flex-col">
        <header className="flex min-h-14 items-center gap-5 border-b border-base-300 bg-base-100 px-4 py-1">
          <Link href="/" className="slab text-xl whitespace-nowrap">
            zealous <span className="text-primary">grain</span>
          </Link>
          <h1 className="slab min-w-0 flex-1 truncate text-lg" title={job.name}>
            {job.name}
          </h1>
          <HeaderFacts job={job} plan={plan} fresh={fresh} facts={facts} />
          <div className="flex">
            <button
              type="button"
              className="btn btn-ghost btn-sm btn-square"
              aria-label="Undo"
              title="Undo (Ctrl Z)"
              disabled={!state.canUndo}
              onClick={state.undo}
            >
              <Undo2 size={16} />
            </button>
            <button
              type="button"
              className="btn btn-ghost btn-sm btn-square"
              aria-label="Redo"
              title="Redo (Ctrl Shift Z)"
              disabled={!state.canRedo}
              onClick={state.redo}
            >
              <Redo2 size={16} />
            </button>
            <ThemeSwitch />
          </div>
        </header>
        {state.conflict && <Conflict state={state} />}
        <div className="flex min-h-0 flex-1">
          <Stations job={job} plan={plan} fresh={fresh} current={station} onGo={go} />
          <main className="flex min-w-0 flex-1 flex-col gap-2.5 p-3">
            <div
              className="relative min-h-0 flex-1 overflow-hidden rounded-xl border border-base-300 bg-[color-mix(in_oklab,var(--color-base-300)_45%,var(--color-base-200))]"
              ref={boardRef}
              data-coarse-ms={arranging && look.coarse ? (1000 * look.coarse.seconds).toFixed(2) : undefined}
              data-sharp={arranging ? look.sharp !== null : undefined}
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
                    marked={arranging ? missed : null}
                    hands={
                      station === 'Passes' && hasPlaces(pass, cut) ? (
                        <PlaceHandles pass={pass} facts={cut} layout={layout} change={change} />
                      ) : (
                        arranging && (
                          <LayerHandles
                            job={job}
                            selected={layers}
                            close={look.coarse?.close ?? null}
                            layout={layout}
                            onSelect={setLayers}
                            tryOut={state.tryOut}
                            change={change}
                          />
                        )
                      )
                    }
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
              <Progress
                state={state}
                arranging={arranging}
                sharp={look.sharp !== null}
                proven={surface?.proven ?? false}
              />
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
            {arranging ? (
              <PatternDrawer onPlace={(p) => place(p, null)} />
            ) : (
              <PassRibbon
                job={job}
                summary={fresh ? (plan?.summary ?? null) : null}
                selected={station === 'Passes' ? pass.id : ''}
                onSelect={(p) => {
                  setSelectedPass(p);
                  setStation('Passes');
                }}
                onMove={(from, to) =>
                  change((j) => {
                    const [p] = j.passes.splice(from, 1);
                    j.passes.splice(to, 0, p);
                  })
                }
              />
            )}
          </main>
          <aside className="flex w-[306px] shrink-0 flex-col border-l border-base-300 bg-base-100">
            <div className="min-h-0 flex-1 overflow-y-auto">
              {station === 'Board' && <BoardCard {...cards} facts={facts} />}
              {arranging && (
                <ArrangeSide
                  {...cards}
                  id={id}
                  revision={state.revision}
                  selected={layers}
                  coarse={look.coarse}
                  facts={facts}
                  onSelect={setLayers}
                  onMissed={setMissed}
                />
              )}
              {station === 'Passes' && (
                <PassCard {...cards} pass={pass} plan={plan} fresh={fresh} onSelect={setSelectedPass} />
              )}
              {station === 'Proof' && <ProofCard plan={plan} fresh={fresh} picked={picked} onPick={pick} />}
              {station === 'Run' && <RunCard {...cards} plan={plan} fresh={fresh} />}
            </div>
            <Footer state={state} onRun={() => setStation('Run')} onRunStation={station === 'Run'} />
          </aside>
        </div>
      </div>
      <DragOverlay dropAnimation={null}>
        {carried && (
          // biome-ignore lint/performance/noImgElement: a picture made by our own server
          <img
            src={`/api/assets/${carried.hash}/picture`}
            alt={carried.name}
            className="h-20 rounded opacity-80 shadow-lg"
          />
        )}
      </DragOverlay>
    </DndContext>
  );
}
