'use client';
import dynamic from 'next/dynamic';
import { type Ref, useRef } from 'react';
import type { Pattern } from '@/contract/patterns';
import type { PlanWays } from '@/contract/wire';
import { LayerHandles } from '../arrange/layer-handles';
import { PatternDrawer } from '../arrange/pattern-drawer';
import { BoardPlan } from '../board-view/board-view';
import { type Layout, pointerOn } from '../board-view/layout';
import { useCamera } from '../board-view/use-camera';
import { type Part, usePart } from '../board-view/use-part';
import { useWays } from '../board-view/use-ways';
import { WayLegend } from '../board-view/ways-canvas';
import { hasPlaces, PlaceHandles } from '../cards/place-handles';
import { ActsMenu } from '../controls/acts-menu';
import { useNarrow, usePhone } from '../controls/use-media';
import { DepthStrip } from '../depth-strip/depth-strip';
import { boardActs, takeAt } from './board-acts';
import { passActs } from './pass-acts';
import { PassRibbon } from './pass-ribbon';
import { LOW } from './sheet';
import type { OpenScreen } from './use-screen';
import { type Room, ViewBar } from './view-bar';
import { waysShown } from './view-switches';

const TurnView = dynamic(() => import('../board-view/turn-view').then((m) => m.TurnView), { ssr: false });

const STRIP = 172;

/** What can be taken hold of on the board: places of a pass, or layers. */
function Hands({ screen, layout, pinching }: { screen: OpenScreen; layout: Layout; pinching: boolean }) {
  const { station, arranging, pass, cut, change, job, layers, editor, look, tryOut } = screen;
  if (station === 'Passes' && pass && hasPlaces(pass, cut))
    return <PlaceHandles pass={pass} facts={cut} layout={layout} change={change} />;
  if (!arranging) return null;
  return (
    <LayerHandles
      job={job}
      selected={layers}
      close={look.coarse?.close ?? null}
      layout={layout}
      pinching={pinching}
      onSelect={editor.select}
      tryOut={tryOut}
      change={change}
    />
  );
}

/** The board from above or turned. */
function BoardPicture({
  screen,
  room,
  part,
  ways,
  pinching,
}: {
  screen: OpenScreen;
  room: Room;
  part: Part | null;
  ways: PlanWays | null;
  pinching: boolean;
}) {
  const { job, surface, mode, arranging, station, pass, cut, missed } = screen;
  const { width, height, layout } = room;
  const phone = usePhone();
  if (width === 0) return null;
  if (mode === 'turn' && surface) return <TurnView job={job} surface={surface} alone={screen.alone} />;
  const handled = !phone && (arranging || (station === 'Passes' && pass !== null && hasPlaces(pass, cut)));
  return (
    <BoardPlan
      job={job}
      surface={surface}
      part={part}
      ways={ways}
      mode={mode}
      layout={layout}
      width={width}
      height={height}
      section={sectionOn(screen)}
      onSection={screen.setLine}
      pointer={screen.pointer}
      onPointer={screen.setPointer}
      findings={screen.findings}
      picked={screen.picked}
      onPick={screen.pick}
      marked={arranging ? missed : null}
      hands={handled ? <Hands screen={screen} layout={layout} pinching={pinching} /> : undefined}
    />
  );
}

/** The section line: where it was put, or through the board's middle. */
function sectionOn({ job, line }: OpenScreen) {
  const { board } = job;
  const on = line && Math.max(line.x0, line.x1) <= board.x && Math.max(line.y0, line.y1) <= board.y;
  return on ? line : { x0: 0, y0: board.y / 2, x1: board.x, y1: board.y / 2 };
}

/** Board, depth strip, and below them the passes or the pattern drawer. */
export function BoardArea({
  screen,
  room,
  boardRef,
  onPlace,
}: {
  screen: OpenScreen;
  room: Room;
  boardRef: Ref<HTMLDivElement>;
  onPlace(p: Pattern): void;
}) {
  const { job, surface, arranging, look, plan, summary, station, pass, sound } = screen;
  const on = sound && screen.mode !== 'turn';
  const shown = surface && room.width > 0 ? { surface, plan: plan?.id ?? null, job, mode: screen.mode } : null;
  const part = usePart(shown, room.looking, room.layout);
  const of = waysShown(screen);
  const ways = useWays(room.width > 0 ? of : null, room.looking, room.layout);
  const [narrow, phone] = [useNarrow(), usePhone()];
  const menuAt = useRef({ x: 0, y: 0 });
  const view = useCamera({ element: room.element, looking: room.looking, setCamera: screen.setCamera, on });
  return (
    <main
      className="flex min-h-0 min-w-0 flex-1 flex-col gap-2 p-3 max-sm:p-1.5"
      style={narrow ? { paddingBottom: LOW + 8 } : undefined}
    >
      <ViewBar screen={screen} room={room} />
      {of && <WayLegend ways={ways} pointer={screen.pointer} scale={room.layout.scale} />}
      <ActsMenu
        label="What can be done here"
        acts={() => boardActs(screen, room, menuAt.current)}
        onOpen={(e) => {
          const [x, y] = room.element.current ? pointerOn(room.element.current, e) : [0, 0];
          menuAt.current = { x, y };
          takeAt(screen, room, menuAt.current);
        }}
      >
        <div
          className={`relative min-h-0 flex-1 overflow-hidden rounded-xl border border-base-300 bg-[color-mix(in_oklab,var(--color-base-300)_45%,var(--color-base-200))] ${view.cursor}`}
          ref={boardRef}
          data-testid="board-view"
          data-coarse-ms={arranging && look.coarse ? (1000 * look.coarse.seconds).toFixed(2) : undefined}
          data-sharp={arranging ? look.sharp !== null : undefined}
          {...view.bind}
        >
          {sound ? (
            <BoardPicture screen={screen} room={room} part={part} ways={ways} pinching={view.pinching} />
          ) : (
            <p role="alert" className="p-6 text-sm">
              This board cannot be drawn: its size is out of all bounds. Set it on the board card.
            </p>
          )}
        </div>
      </ActsMenu>
      {room.width > 0 && sound && (
        <DepthStrip
          job={job}
          surface={surface}
          part={part}
          plan={surface?.proven ? (plan?.id ?? null) : null}
          undercuts={summary?.undercuts ?? []}
          section={sectionOn(screen)}
          layout={room.layout}
          close={screen.camera !== null}
          onBring={() => {
            const y = screen.camera?.y ?? job.board.y / 2;
            screen.setLine({ x0: 0, y0: y, x1: job.board.x, y1: y });
          }}
          room={room}
          height={STRIP}
          pointer={screen.pointer}
          onPointer={screen.setPointer}
        />
      )}
      {phone ? null : arranging ? (
        <PatternDrawer onPlace={onPlace} />
      ) : (
        <PassRibbon
          job={job}
          summary={summary}
          hours={screen.hours}
          selected={station === 'Passes' ? (pass?.id ?? '') : ''}
          acts={(p) => passActs(screen, p)}
          onSelect={(p) => {
            screen.editor.showPass(p);
            screen.editor.go('Passes');
          }}
          onMove={(from, to) =>
            screen.change((j) => {
              const [p] = j.passes.splice(from, 1);
              j.passes.splice(to, 0, p);
            })
          }
        />
      )}
    </main>
  );
}
