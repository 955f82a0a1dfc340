'use client';
import dynamic from 'next/dynamic';
import { useMemo } from 'react';
import type { PlanWays } from '@/contract/wire';
import { LayerHandles } from '../arrange/layer-handles';
import { BoardPlan } from '../board-view/board-view';
import type { Layout, SectionLine } from '../board-view/layout';
import type { Part } from '../board-view/use-part';
import { AreaFrame } from '../cards/area-frame';
import { hasPlaces, PlaceHandles } from '../cards/place-handles';
import { usePhone } from '../controls/use-media';
import type { OpenScreen } from './use-screen';
import type { Room } from './view-bar';

const TurnView = dynamic(() => import('../board-view/turn-view').then((m) => m.TurnView), { ssr: false });

/** What can be taken hold of on the board: places of a pass, or layers. */
function Hands({ screen, layout, pinching }: { screen: OpenScreen; layout: Layout; pinching: boolean }) {
  const { station, arranging, pass, cut, change, job, layers, editor, look, tryOut, held, setHeld } = screen;
  if (station === 'Passes' && pass)
    return hasPlaces(pass, cut) ? (
      <PlaceHandles pass={pass} facts={cut} layout={layout} change={change} />
    ) : (
      <AreaFrame job={job} pass={pass} layout={layout} />
    );
  if (!arranging) return null;
  return (
    <LayerHandles
      job={job}
      selected={layers}
      close={look.coarse?.close ?? null}
      layout={layout}
      pinching={pinching}
      onSelect={editor.select}
      tryOut={(edit) => {
        const now = edit !== null;
        if (now !== held) setHeld(now);
        tryOut(edit);
      }}
      change={(edit) => {
        setHeld(false);
        change(edit);
      }}
    />
  );
}

/** The board from above or turned. */
export function BoardPicture({
  screen,
  room,
  part,
  ways,
  section,
  pinching,
}: {
  screen: OpenScreen;
  room: Room;
  part: Part | null;
  ways: PlanWays | null;
  section: SectionLine;
  pinching: boolean;
}) {
  const { job, surface, mode, arranging, station, pass, cut, missed } = screen;
  const { width, height, layout } = room;
  const phone = usePhone();
  if (width === 0) return null;
  if (mode === 'turn' && surface) return <TurnView job={job} surface={surface} alone={screen.alone} />;
  const framed = pass !== null && 'area' in pass && pass.area.kind === 'frame';
  const onPasses = station === 'Passes' && pass !== null && (framed || hasPlaces(pass, cut));
  const handled = !phone && (arranging || onPasses);
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
      section={section}
      onSection={screen.setLine}
      pointer={screen.pointer}
      findings={screen.findings}
      picked={screen.picked}
      onPick={screen.pick}
      marked={arranging ? missed : null}
      hands={handled ? <Hands screen={screen} layout={layout} pinching={pinching} /> : undefined}
    />
  );
}

/** The section line: where it was put, or through the board's middle. */
export function useSection({ job, line }: OpenScreen): SectionLine {
  const { x, y } = job.board;
  return useMemo(() => {
    const on = line && Math.max(line.x0, line.x1) <= x && Math.max(line.y0, line.y1) <= y;
    return on ? line : { x0: 0, y0: y / 2, x1: x, y1: y / 2 };
  }, [line, x, y]);
}
