'use client';
import { memo, type Ref, useCallback, useRef } from 'react';
import type { Pattern } from '@/contract/patterns';
import { PatternDrawer } from '../arrange/pattern-drawer';
import { pointerOn } from '../board-view/layout';
import { Magnifier } from '../board-view/magnifier';
import { useCamera } from '../board-view/use-camera';
import { usePart } from '../board-view/use-part';
import { useWays } from '../board-view/use-ways';
import { WayLegend } from '../board-view/ways-canvas';
import { ActsMenu } from '../controls/acts-menu';
import { useNarrow, usePhone } from '../controls/use-media';
import { DepthStrip } from '../depth-strip/depth-strip';
import { boardActs, takeAt } from './board-acts';
import { BoardPicture, useSection } from './board-picture';
import { passActs } from './pass-acts';
import { PassRibbon } from './pass-ribbon';
import { LOW } from './sheet';
import type { OpenScreen } from './use-screen';
import { type Room, ViewBar } from './view-bar';
import { waysShown } from './view-switches';

const STRIP = 172;

const CalmBar = memo(ViewBar);
const CalmDrawer = memo(PatternDrawer);
const CalmStrip = memo(DepthStrip);
const NO_UNDERCUTS: never[] = [];

/** Board, depth strip, and below them the passes or the pattern drawer. */
export function BoardArea({
  screen,
  calm,
  room,
  boardRef,
  onPlace,
}: {
  screen: OpenScreen;
  /** The same as it was a moment ago while a hand moves something. */
  calm: OpenScreen;
  room: Room;
  boardRef: Ref<HTMLDivElement>;
  onPlace(p: Pattern): void;
}) {
  const { job, surface, arranging, look, plan, summary, station, pass, sound } = screen;
  const on = sound && screen.mode !== 'turn';
  const shown = surface && room.width > 0 ? { surface, plan: plan?.id ?? null, job, mode: screen.mode } : null;
  const part = usePart(shown, room.looking, room.layout);
  const section = useSection(screen);
  const { setLine } = screen;
  const [long, middle] = [job.board.x, screen.camera?.y ?? job.board.y / 2];
  const bring = useCallback(() => setLine({ x0: 0, y0: middle, x1: long, y1: middle }), [setLine, long, middle]);
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
      <CalmBar screen={calm} room={room} />
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
            <BoardPicture
              screen={screen}
              room={room}
              part={part}
              ways={ways}
              section={section}
              pinching={view.pinching}
            />
          ) : (
            <p role="alert" className="p-6 text-sm">
              This board cannot be drawn: its size is out of all bounds. Set it on the board card.
            </p>
          )}
          {sound && !surface && (
            <p role="status" className="soft absolute inset-x-0 top-8 text-center text-sm">
              {plan?.status === 'done' && screen.fresh && !arranging
                ? 'Reading the board that was cut.'
                : job.layers.length > 0
                  ? `Joining ${job.layers.length} ${job.layers.length === 1 ? 'layer' : 'layers'}.`
                  : 'Drawing the board.'}
            </p>
          )}
          {on && <Magnifier element={room.element} off={view.pinching || view.panning} />}
        </div>
      </ActsMenu>
      {room.width > 0 && sound && (
        <CalmStrip
          job={calm.job}
          surface={surface}
          part={part}
          plan={surface?.proven ? (plan?.id ?? null) : null}
          undercuts={summary?.undercuts ?? NO_UNDERCUTS}
          section={section}
          layout={room.layout}
          close={screen.camera !== null}
          onBring={bring}
          room={room}
          height={STRIP}
          pointer={screen.pointer}
        />
      )}
      {phone ? null : arranging ? (
        <CalmDrawer onPlace={onPlace} />
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
