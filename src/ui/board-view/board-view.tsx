'use client';
import { memo, type ReactNode, type PointerEvent as ReactPointerEvent, useRef, useState } from 'react';
import type { PlanWays } from '@/contract/wire';
import type { Finding } from '@/core/findings/finding';
import { textOf } from '@/core/findings/texts/text-of';
import { zeroOf } from '@/core/setup/frame';
import type { SetupView } from '@/core/setup/view';
import { sayLength } from '@/core/units/say';
import type { Surface } from '../job/surface';
import { BoardCanvas } from './board-canvas';
import { type Layout, onScreen, pointerOn, type SectionLine, type ViewMode } from './layout';
import type { Marked } from './painter';
import { type PointerPlace, usePointer } from './pointer-place';
import { ScaleBar } from './scale-bar';
import { kept, shifted } from './section-line';
import { type Grip, type OnScreen, SectionGrips, SectionRule } from './section-rule';
import type { Part } from './use-part';
import { WaysCanvas } from './ways-canvas';

interface Props {
  job: SetupView;
  surface: Surface | null;
  /** What of it is in view, as finely as the screen shows it. */
  part: Part | null;
  /** The ways of the bits, where they are shown. */
  ways: PlanWays | null;
  mode: ViewMode;
  layout: Layout;
  width: number;
  height: number;
  section: SectionLine;
  onSection(s: SectionLine): void;
  pointer: PointerPlace;
  findings: Finding[];
  picked: Finding | null;
  onPick(f: Finding): void;
  /** Places that are marked on the board. */
  marked: Marked | null;
  /** Handles that lie over the board; the section line is then moved by its ends only. */
  hands?: ReactNode;
}

/** Findings where they lie. */
function FindingMarks({ findings, picked, onPick, px, py }: OnScreen & Pick<Props, 'findings' | 'picked' | 'onPick'>) {
  const shown = findings.flatMap((f) => (f.severity !== 'note' && f.place ? [{ f, at: f.place }] : []));
  return (
    <>
      {shown.map(({ f, at }) => (
        // biome-ignore lint/a11y/useSemanticElements: a mark on a drawing
        <g
          key={f.id}
          role="button"
          tabIndex={0}
          aria-label={`${f.severity}: ${textOf(f).message}`}
          className="cursor-pointer"
          onClick={() => onPick(f)}
          onKeyDown={(e) => e.key === 'Enter' && onPick(f)}
        >
          <circle
            cx={px(at.x)}
            cy={py(at.y)}
            r={picked?.id === f.id ? 11 : 8}
            fill="var(--color-accent)"
            stroke="#fffefa"
            strokeWidth={2}
          />
          <text
            x={px(at.x)}
            y={py(at.y) + 4}
            textAnchor="middle"
            fontSize={12}
            fontWeight={700}
            fill="var(--color-accent-content)"
            pointerEvents="none"
          >
            !
          </text>
        </g>
      ))}
    </>
  );
}

/** What is drawn of a surface is drawn again only with another one. */
const CalmCanvas = memo(BoardCanvas);

/** The place that is pointed at, here or on the depth strip. */
function PointerMark({ pointer, px, py }: OnScreen & { pointer: PointerPlace }) {
  const at = usePointer(pointer);
  if (!at) return null;
  return (
    <circle
      cx={px(at.x)}
      cy={py(at.y)}
      r={3}
      fill="none"
      stroke="var(--color-primary)"
      strokeWidth={1.5}
      pointerEvents="none"
    />
  );
}

/** Board seen from above, with the section line that the depth strip cuts along. */
export function BoardPlan({
  job,
  surface,
  part,
  ways,
  mode,
  layout,
  width,
  height,
  section,
  onSection,
  pointer,
  findings,
  picked,
  onPick,
  marked,
  hands,
}: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [grip, setGrip] = useState<{ kind: Grip; from: SectionLine; x: number; y: number } | null>(null);
  const { scale } = layout;
  const { board } = job;
  const { px, py, ...on } = onScreen(layout);
  const place = (e: ReactPointerEvent) => on.place(...pointerOn(svg.current!, e));
  const take = (kind: Grip) => (e: ReactPointerEvent) => {
    e.preventDefault();
    e.stopPropagation();
    svg.current?.setPointerCapture(e.pointerId);
    setGrip({ kind, from: section, ...place(e) });
  };
  const move = (e: ReactPointerEvent) => {
    const p = place(e);
    pointer.put(p.x >= 0 && p.y >= 0 && p.x <= board.x && p.y <= board.y ? p : null);
    if (!grip) return;
    const { from } = grip;
    if (grip.kind === 'line') onSection(shifted(board, from, p.x - grip.x, p.y - grip.y));
    else if (grip.kind === 'start') onSection(kept(board, { ...from, x0: p.x, y0: p.y }));
    else onSection(kept(board, { ...from, x1: p.x, y1: p.y }));
  };

  const zero = zeroOf(board, job.setup);
  return (
    <>
      <CalmCanvas
        {...{ surface, part, mode, layout, width, height, marked }}
        long={board.x}
        wide={board.y}
        thickness={board.thickness}
        web={board.web}
      />
      {ways && <WaysCanvas {...{ ways, layout, width, height }} />}
      {/* biome-ignore lint/a11y/useSemanticElements: a drawing with handles on it */}
      <svg
        ref={svg}
        width={width}
        height={height}
        className="absolute inset-0 touch-none"
        role="group"
        aria-label={`The board from above, ${sayLength(board.x)} by ${sayLength(board.y)}`}
        onPointerMove={move}
        onPointerUp={() => setGrip(null)}
        onPointerLeave={() => pointer.put(null)}
      >
        <rect
          x={Math.min(px(0), px(board.x))}
          y={Math.min(py(0), py(board.y))}
          width={board.x * scale}
          height={board.y * scale}
          fill="none"
          stroke="var(--wood-line)"
          strokeWidth={1.5}
        />
        <g stroke="var(--color-primary)" fill="none" strokeWidth={1.5} aria-hidden>
          <circle cx={px(zero.x)} cy={py(zero.y)} r={5} />
          <path d={`M${px(zero.x) - 9} ${py(zero.y)}h18M${px(zero.x)} ${py(zero.y) - 9}v18`} />
        </g>
        <SectionRule section={section} px={px} py={py} />
        {hands}
        <SectionGrips {...{ board, section, px, py, onSection, onTake: take }} endsOnly={hands !== undefined} />
        <PointerMark {...{ pointer, px, py }} />
        <ScaleBar scale={scale} height={height} />
        <FindingMarks {...{ findings, picked, onPick, px, py }} />
      </svg>
    </>
  );
}
