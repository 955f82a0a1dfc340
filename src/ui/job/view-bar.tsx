'use client';
import type { RefObject } from 'react';
import type { Looking } from '../board-view/camera';
import type { Layout } from '../board-view/layout';
import { Legend } from '../board-view/legend';
import { ZoomButtons } from '../board-view/zoom-buttons';
import { usePhone } from '../controls/use-media';
import { Progress } from './progress';
import { SetupSwitch } from './screen-header';
import type { OpenScreen } from './use-screen';
import { AloneSwitch, Modes, PathsSwitch, WayUp } from './view-switches';

/** The room of the board view, and how the board lies in it. */
export interface Room {
  width: number;
  height: number;
  /** What the board is drawn in. */
  element: RefObject<HTMLDivElement | null>;
  looking: Looking;
  layout: Layout;
}

/** What the board's picture says and how it is shown, beside it. */
export function ViewBar({ screen, room }: { screen: OpenScreen; room: Room }) {
  const { state, arranging, look, surface, setCamera, mode, job } = screen;
  const phone = usePhone();
  return (
    <div className="isolate flex min-h-8 flex-wrap items-center justify-end gap-x-2.5 gap-y-1.5 [&_.btn]:px-2">
      <div className="min-w-0 flex-1">
        <Progress state={state} arranging={arranging} sharp={look.sharp !== null} proven={surface?.proven ?? false} />
      </div>
      {!phone && <Legend mode={mode} surface={surface} board={job.board} />}
      <SetupSwitch screen={screen} />
      <WayUp screen={screen} />
      {/* On a phone two fingers are nearer than buttons. */}
      {mode !== 'turn' && !phone && <ZoomButtons looking={room.looking} setCamera={setCamera} />}
      <PathsSwitch screen={screen} />
      <AloneSwitch screen={screen} />
      <Modes screen={screen} />
    </div>
  );
}
