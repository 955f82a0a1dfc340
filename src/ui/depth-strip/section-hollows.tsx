import { isOver, type Undercut } from '@/core/proof/hollow';
import type { SectionLine } from '../board-view/layout';
import type { SectionPlace } from './section-solid';

/** Steps of a section that lie over an undercut with wood over it one after the other, the first and the last. */
function stretches(u: Undercut, { x0, y0, x1, y1 }: SectionLine, surface: ArrayLike<number>): [number, number][] {
  const n = surface.length;
  const out: [number, number][] = [];
  for (let i = 0; i < n; i++) {
    const t = i / (n - 1);
    if (surface[i] <= u.ceiling || !isOver(u, { x: x0 + (x1 - x0) * t, y: y0 + (y1 - y0) * t })) continue;
    const last = out.at(-1);
    if (last && last[1] === i - 1) last[1] = i;
    else out.push([i, i]);
  }
  return out;
}

interface Props {
  /** In the setup's own coordinates. */
  undercuts: Undercut[];
  section: SectionLine;
  /** Heights of what stands along it. */
  surface: ArrayLike<number>;
  place: SectionPlace;
}

/** What slot bits have hollowed out beneath the wood, along a section. */
export function SectionHollows({ undercuts, section, surface, place: { at, py } }: Props) {
  return undercuts.flatMap((u) =>
    stretches(u, section, surface).map(([from, to]) => (
      <rect
        key={`${u.x0} ${u.y0} ${u.floor} ${from}`}
        data-testid="hollow"
        x={Math.min(at(from), at(to))}
        y={py(u.ceiling)}
        width={Math.abs(at(to) - at(from))}
        height={py(u.floor) - py(u.ceiling)}
        fill="var(--color-base-100)"
        stroke="var(--color-base-content)"
        strokeWidth={1}
      />
    )),
  );
}
