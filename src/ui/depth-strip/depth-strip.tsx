'use client';
import { type ComponentProps, useMemo } from 'react';
import { type Undercut, undercutThrough } from '@/core/proof/hollow';
import { frameBetween } from '@/core/setup/frame';
import type { SetupView } from '@/core/setup/view';
import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';
import type { Layout, SectionLine } from '@/ui/board-view/layout';
import { type PointerPlace, usePointer } from '../board-view/pointer-place';
import type { Part } from '../board-view/use-part';
import type { Surface } from '../job/surface';
import { HeightScale } from './height-scale';
import { Marks, TOP } from './marks';
import { MeasureLine } from './measure';
import { Readout } from './readout';
import { RayAt, RoundSection } from './round-section';
import { SectionHollows } from './section-hollows';
import { SectionSolid } from './section-solid';
import {
  isAcross,
  isInView,
  lengthOf,
  placeOn,
  shareOn,
  spanOfHeights,
  stretchInView,
  stripAlong,
  stripTall,
} from './strip-place';
import { useHeights } from './use-heights';
import { useMeasure } from './use-measure';

interface Props {
  job: SetupView;
  surface: Surface | null;
  /** What of it is in view, as finely as the screen shows it. */
  part: Part | null;
  /** Id of the finished plan, for heights cell by cell. */
  plan: string | null;
  /** What slot bits have hollowed out beneath the wood, with the face up; as far as it is proven. */
  undercuts: Undercut[];
  section: SectionLine;
  layout: Layout;
  /** Whether the board is looked at closely: then the strip shows what stands in view, as tall as there is room for. */
  close: boolean;
  /** Puts the section line through the middle of what is looked at. */
  onBring(): void;
  /** The board view above. */
  room: { width: number; height: number };
  height: number;
  pointer: PointerPlace;
}

const SPOIL = 8;
/** Most heights along a section. */
const MOST = 2000;

/** The stretch that is shown, and the board that stands over its top, whose heights it is drawn to. */
function useStretch({ job: { board }, section, close, layout, room }: Props, round: boolean): SectionLine {
  return useMemo(() => {
    if (round) return { ...section, x1: section.x0, y0: 0, y1: board.y };
    return close ? stretchInView(section, layout, room) : section;
  }, [board.y, section, close, layout, room, round]);
}

/** The place of the section that is pointed at, as a line or as the ray of a drum. */
function Pointed({
  pointer,
  section,
  at,
  circle,
  height,
}: Pick<Props, 'pointer' | 'section' | 'height'> & {
  at(share: number): number;
  circle: Omit<ComponentProps<typeof RayAt>, 'y'> | null;
}) {
  const place = usePointer(pointer);
  const share = place && shareOn(section, place);
  if (!place || share === null || share < 0 || share > 1) return null;
  if (circle) return <RayAt {...circle} y={place.y} />;
  const x = at(share);
  return <line x1={x} x2={x} y1={TOP - 2} y2={height - 4} stroke="var(--color-primary)" strokeWidth={1.5} />;
}

/** The section through the board along the chalk line, at the board view's own scale. */
export function DepthStrip(props: Props) {
  const { job, surface, layout, room, height, pointer, close, part } = props;
  const { board } = job;
  const { width } = room;
  const { scale } = layout;
  // Across a drum it is a circle, whole, at the board's own scale where there is room for it.
  const round = board.drum !== null && isAcross(props.section);
  const section = useStretch(props, round);
  const length = lengthOf(section);
  const n = Math.max(2, Math.min(MOST, Math.round(length * scale)));
  const heights = useHeights(props, section, n);
  const faceUp = frameBetween(board, { up: 'face' }, job.setup);
  const undercuts = surface?.cut ? props.undercuts.map((u) => undercutThrough(faceUp, u)) : [];

  const along = stripAlong(section, layout, board);
  const tallest = height - TOP - SPOIL - 12;
  const over = Math.max(0, ...Array.from(heights?.cut ?? []));
  const shown = heights ? [heights.target, heights.cut, heights.rough, heights.under] : [];
  const span = close ? spanOfHeights(shown, -board.thickness) : { top: over, low: -board.thickness };
  const { top, tall, v } = stripTall(span, scale, tallest, close);
  const py = (z: number) => TOP + 4 + (top - z) * v;
  const zOf = (y: number) => top - (y - TOP - 4) / v;
  const at = (i: number) => along.at(i / (n - 1));
  const place = { n, at, py, thickness: board.thickness };
  const bottom = py(-board.thickness);
  const k = Math.min(scale, (tallest - 4) / 2 / (board.thickness + over));
  const middle = { x: width / 2, y: TOP + 4 + (board.thickness + over) * k };
  const circle = { radius: board.thickness, scale: k, middle };
  const measure = useMeasure({
    on: !round && length > 0,
    placeAt: (x, y) => {
      const share = Math.min(1, Math.max(0, along.share(x)));
      const stands = heights?.cut ?? heights?.target;
      const z = stands ? Math.max(stands[Math.round(share * (n - 1))], -board.thickness) : 0;
      // Near the surface it is the surface that is meant.
      return { along: share * length, z: Math.abs(py(z) - y) < 12 ? z : zOf(y) };
    },
  });

  return (
    <div className="panel relative isolate select-none overflow-hidden" style={{ height }}>
      <div className="absolute inset-x-3 top-1 z-10 flex gap-4 text-[13px]">
        <p className="soft min-w-0 flex-1 truncate">
          {round ? 'across, from its right end' : <>heights × {trimNumber(tall, tall < 1 ? 2 : 1)}</>} · hatched: cut
          away
          {heights?.rough ? ' · dashed: after roughing' : ''}
          {heights?.cut ? ' · blue: target' : ''}
          {close && !isInView(props.section, layout, room) && (
            <>
              {' · '}
              <button type="button" className="link" onClick={props.onBring}>
                bring the line into view
              </button>
            </>
          )}
        </p>
        <Readout surface={surface} part={part} undercuts={undercuts} pointer={pointer} />
      </div>
      <svg
        width={width}
        height={height}
        className="absolute inset-0 touch-none"
        role="img"
        aria-label={round ? 'Section across the drum' : `Section through the board, ${sayLength(length, 1)} long`}
        onPointerMove={(e) => {
          if (round) return;
          const s = along.share(e.clientX - e.currentTarget.getBoundingClientRect().left);
          pointer.put(s >= 0 && s <= 1 ? placeOn(section, s) : null);
        }}
        onPointerLeave={() => pointer.put(null)}
        {...measure.bind}
      >
        <Marks width={width} height={height} />
        {round ? (
          <RoundSection {...{ heights, section, ...circle }} />
        ) : (
          <g clipPath="url(#strip)">
            {job.setup.spoilboard !== null && !board.drum && (
              <rect x={along.left} y={bottom} width={along.end - along.left} height={SPOIL} fill="var(--spoil)" />
            )}
            <rect
              x={along.left}
              y={py(0)}
              width={along.end - along.left}
              height={bottom - py(0)}
              fill="url(#away)"
              stroke="var(--wood-line)"
            />
            {heights && (
              <>
                <SectionSolid heights={heights} place={place} />
                <SectionHollows {...{ undercuts, section, place }} surface={heights.cut ?? heights.target} />
              </>
            )}
            <HeightScale {...{ top, v, py }} low={zOf(height - 4)} right={width - 2} />
            {measure.measured && (
              <MeasureLine measured={measure.measured} at={(mm) => along.at(mm / length)} py={py} width={width} />
            )}
          </g>
        )}
        <Pointed {...{ pointer, section, height }} at={along.at} circle={round ? circle : null} />
      </svg>
    </div>
  );
}
