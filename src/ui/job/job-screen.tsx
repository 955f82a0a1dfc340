'use client';
import Link from 'next/link';
import { memo, type RefObject, useCallback, useMemo, useRef, useState } from 'react';
import { addressOf } from '@/contract/endpoint';
import { type FirstLook, JOBS } from '@/contract/jobs';
import type { Pattern } from '@/contract/patterns';
import { halfTurned, placeFile } from '../arrange/actions';
import { laidOut } from '../board-view/camera';
import { onScreen, pointerOn } from '../board-view/layout';
import { useSaidUnit } from '../controls/unit';
import { DropAnywhere } from '../uploads/drop-anywhere';
import { BoardArea } from './board-area';
import { Carrying, type TakePattern } from './carrying';
import { Conflict } from './conflict';
import { Keys } from './keys';
import { Opening } from './opening';
import { ScreenHeader } from './screen-header';
import { SideCard } from './side-card';
import { Stations } from './stations';
import { useCalm } from './use-calm';
import { type OpenScreen, useScreen } from './use-screen';
import type { Room } from './view-bar';

const PAD = 26;

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

/** A job that is on its way, cannot be read, or has no setup. */
function NotOpen({ id, problem, first }: { id: string; problem: string | null; first: FirstLook | null }) {
  if (!problem && first) return <Opening first={first} />;
  return (
    <main className="flex h-screen items-center justify-center">
      {problem ? (
        <div className="max-w-xl text-center">
          <p role="alert">{problem}</p>
          <Link href="/" className="btn btn-sm mt-3">
            Back to the shop
          </Link>
          <a className="btn btn-sm mt-3 ml-2" href={addressOf(JOBS.raw, { id })} download>
            Its document as it is stored
          </a>
        </div>
      ) : (
        <span className="loading loading-dots" role="status" aria-label="loading the job" />
      )}
    </main>
  );
}

const NO_SETUP = 'This job has no board that is clamped in a setup; import it again with one.';

/** A job: stations at the left, board, depth strip and ribbon (or the pattern drawer) in the middle, one card at the side. */
export function JobScreen({ id, first }: { id: string; first: FirstLook | null }) {
  const take = useRef<TakePattern>(() => {});
  return (
    <Carrying take={take}>
      <LiveScreen id={id} first={first} take={take} />
    </Carrying>
  );
}

interface ScreenProps {
  id: string;
  first: FirstLook | null;
  take: RefObject<TakePattern>;
}

/** The screen as it changes with each move. */
function LiveScreen({ id, first, take }: ScreenProps) {
  useSaidUnit();
  const screen = useScreen(id);
  const { job, state } = screen;
  if (!job) {
    const problem = state.problem ?? (state.document === undefined ? null : NO_SETUP);
    return <NotOpen id={id} problem={problem} first={first} />;
  }
  return <OpenJob screen={{ ...screen, job }} takePattern={take} />;
}

/** What stands beside the board is drawn anew only when it has become another. */
const CalmHeader = memo(ScreenHeader);
const CalmStations = memo(Stations);
const CalmSide = memo(SideCard);
const CalmKeys = memo(Keys);

function OpenJob({ screen, takePattern }: { screen: OpenScreen; takePattern: RefObject<TakePattern> }) {
  const { job, state, station, editor, change } = screen;
  const { ref: boardRef, size, element } = useSize<HTMLDivElement>();
  const { x, y } = job.board;
  const { turned, camera } = screen;
  const room = useMemo((): Room => {
    const looking = { room: size, pad: PAD, board: { x, y }, turned };
    return { ...size, element, looking, layout: laidOut(looking, camera) };
  }, [size, element, x, y, turned, camera]);
  const place = (p: Pattern, at: { x: number; y: number } | null) => {
    const layer = placeFile(job, p, at);
    change((j) => j.layers.push(...(screen.turned ? halfTurned([layer]) : [layer])));
    editor.select([layer.id]);
  };
  const calm = useCalm({ screen, placeInMiddle: (p: Pattern) => place(p, null) }, screen.held);
  /** A pattern let go over the board is placed where it was let go. */
  takePattern.current = (pattern, hand) => {
    if (!element.current) return;
    const [x, y] = pointerOn(element.current, hand);
    if (x < 0 || y < 0 || x > size.width || y > size.height) return;
    const at = onScreen(room.layout).place(x, y);
    const on = (v: number, most: number) => Math.min(most, Math.max(0, v));
    place(pattern, { x: on(at.x, job.board.x), y: on(at.y, job.board.y) });
  };
  /** Files let go over the board are placed where they were let go, others in its middle. */
  const take = (files: File[], { x, y }: { x: number; y: number }) => {
    const view = element.current;
    const at = view && onScreen(room.layout).place(...pointerOn(view, { clientX: x, clientY: y }));
    const over = at && at.x >= 0 && at.y >= 0 && at.x <= job.board.x && at.y <= job.board.y;
    screen.files.take(files, over ? at : null);
    editor.go('Arrange');
  };
  return (
    <DropAnywhere
      says="Let go: each file becomes a layer"
      className="flex h-dvh flex-col lg:min-h-[640px]"
      onFiles={take}
    >
      <CalmKeys screen={calm.screen} />
      <CalmHeader screen={calm.screen} />
      {state.conflict && <Conflict id={screen.id} state={state} />}
      <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
        <CalmStations
          job={calm.screen.job}
          plan={calm.screen.plan}
          fresh={calm.screen.fresh}
          stopping={calm.screen.stopping.length}
          current={station}
          onGo={editor.go}
        />
        <BoardArea screen={screen} calm={calm.screen} room={room} boardRef={boardRef} onPlace={calm.placeInMiddle} />
        <CalmSide screen={calm.screen} />
      </div>
    </DropAnywhere>
  );
}
