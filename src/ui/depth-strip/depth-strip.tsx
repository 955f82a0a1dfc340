'use client';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { ask } from '@/contract/ask';
import { PLANS } from '@/contract/plans';
import { sectionOf } from '@/core/plan/view';
import { type Undercut, undercutThrough } from '@/core/proof/hollow';
import { frameBetween } from '@/core/setup/frame';
import type { SetupView } from '@/core/setup/view';
import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';
import { type Layout, onScreen, type SectionLine } from '@/ui/board-view/layout';
import type { Surface } from '../job/surface';
import { Readout } from './readout';
import { RoundSection } from './round-section';
import { SectionHollows } from './section-hollows';
import { type Heights, SectionSolid } from './section-solid';

interface Props {
  job: SetupView;
  surface: Surface | null;
  /** Id of the finished plan, for heights cell by cell. */
  plan: string | null;
  /** What slot bits have hollowed out beneath the wood, with the face up; as far as it is proven. */
  undercuts: Undercut[];
  section: SectionLine;
  layout: Layout;
  width: number;
  height: number;
  pointer: { x: number; y: number } | null;
  onPointer(p: { x: number; y: number } | null): void;
}

const TOP = 24;
const SPOIL = 8;

/** Whether a section runs straight up the board. */
const isAcross = ({ x0, y0, x1, y1 }: SectionLine) => Math.abs(x1 - x0) < 0.02 * Math.abs(y1 - y0);

/** What has been cut away is drawn with this. */
function Hatch() {
  return (
    <defs>
      <pattern id="away" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line x1="0" y1="0" x2="0" y2="7" stroke="var(--hatch)" strokeWidth="1.2" />
      </pattern>
    </defs>
  );
}

/** The section through the board along the chalk line, at the board view's own scale. */
export function DepthStrip({ job, surface, plan, layout, width, height, pointer, onPointer, ...rest }: Props) {
  const { board } = job;
  // Across a drum it is a circle, whole, at the board's own scale where there is room for it.
  const round = board.drum !== null && isAcross(rest.section);
  const section = round ? { ...rest.section, x1: rest.section.x0, y0: 0, y1: board.y } : rest.section;
  const faceUp = frameBetween(board, { up: 'face' }, job.setup);
  const undercuts = surface?.cut ? rest.undercuts.map((u) => undercutThrough(faceUp, u)) : [];
  const length = Math.hypot(section.x1 - section.x0, section.y1 - section.y0);
  const { scale } = layout;
  // Below its own place on the board as long as it runs more across than up; from the board's left edge otherwise.
  const across = Math.abs(section.x1 - section.x0) >= 0.99 * length;
  const { px } = onScreen(layout);
  const forward = px(section.x1) >= px(section.x0);
  const left = across ? Math.min(px(section.x0), px(section.x1)) : Math.min(px(0), px(board.x));
  const n = Math.max(2, Math.min(2000, Math.round(length * scale)));
  const exact = useQuery({
    queryKey: ['section', plan, job.setup.id, section, n],
    queryFn: () => ask(PLANS.section, { id: plan!, setup: job.setup.id, ...section, n }),
    enabled: plan !== null && surface?.proven === true,
    staleTime: Infinity,
    gcTime: 30_000,
  });
  const heights: Heights | null = useMemo(() => {
    if (!surface) return null;
    if (exact.data) {
      const { target, cut, rough = null, under = null } = exact.data;
      return { target, cut, rough, under };
    }
    const read = (f: typeof surface.cut) => f && sectionOf(f, section, n);
    return {
      target: read(surface.target)!,
      cut: read(surface.cut),
      rough: read(surface.rough),
      under: read(surface.under),
    };
  }, [surface, exact.data, section, n]);

  const room = height - TOP - SPOIL - 12;
  const over = Math.max(0, ...Array.from(heights?.cut ?? []));
  const tall = Math.max(0.25, Math.min(8, room / ((board.thickness + over) * scale)));
  const v = scale * tall;
  const y0 = TOP + 4 + over * v;
  const py = (z: number) => y0 - z * v;
  const at = (i: number) => left + ((across && !forward ? n - 1 - i : i) / (n - 1)) * length * scale;
  const bottom = py(-board.thickness);
  const end = left + length * scale;
  const circle = { radius: board.thickness, scale: Math.min(scale, (room - 4) / 2 / (board.thickness + over)) };

  // Place of the pointer along the line, as a share.
  const t =
    pointer && length > 0
      ? ((pointer.x - section.x0) * (section.x1 - section.x0) + (pointer.y - section.y0) * (section.y1 - section.y0)) /
        length ** 2
      : null;
  const marked = t !== null && t >= 0 && t <= 1 ? left + (across && !forward ? 1 - t : t) * length * scale : null;
  return (
    <div className="panel relative overflow-hidden" style={{ height }}>
      <p className="soft absolute top-1 left-3 text-[13px]">
        {round ? 'across, from its right end' : <>heights × {trimNumber(tall, 1)}</>} · hatched: cut away
        {heights?.rough ? ' · dashed: after roughing' : ''}
        {heights?.cut ? ' · blue: target' : ''}
      </p>
      <Readout surface={surface} undercuts={undercuts} pointer={pointer} />
      <svg
        width={width}
        height={height}
        className="absolute inset-0"
        role="img"
        aria-label={round ? 'Section across the drum' : `Section through the board, ${sayLength(length, 1)} long`}
        onPointerMove={(e) => {
          if (round) return;
          const r = e.currentTarget.getBoundingClientRect();
          const s = (e.clientX - r.left - left) / (length * scale);
          const u = across && !forward ? 1 - s : s;
          onPointer(
            s >= 0 && s <= 1
              ? { x: section.x0 + (section.x1 - section.x0) * u, y: section.y0 + (section.y1 - section.y0) * u }
              : null,
          );
        }}
        onPointerLeave={() => onPointer(null)}
      >
        <Hatch />
        {round && (
          <RoundSection
            {...{ heights, section, ...circle }}
            middle={{ x: width / 2, y: TOP + 4 + (board.thickness + over) * circle.scale }}
            at={marked === null ? null : (pointer?.y ?? null)}
          />
        )}
        {job.setup.spoilboard !== null && !board.drum && (
          <rect x={left} y={bottom} width={end - left} height={SPOIL} fill="var(--spoil)" />
        )}
        {!round && (
          <rect
            x={left}
            y={py(0)}
            width={end - left}
            height={bottom - py(0)}
            fill="url(#away)"
            stroke="var(--wood-line)"
          />
        )}
        {heights && !round && (
          <>
            <SectionSolid heights={heights} place={{ n, at, py, thickness: board.thickness }} />
            <SectionHollows
              {...{ undercuts, section }}
              surface={heights.cut ?? heights.target}
              place={{ n, at, py, thickness: board.thickness }}
            />
          </>
        )}
        {marked !== null && !round && (
          <line x1={marked} x2={marked} y1={TOP - 2} y2={height - 4} stroke="var(--color-primary)" strokeWidth={1.5} />
        )}
      </svg>
    </div>
  );
}
