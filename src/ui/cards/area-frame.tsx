import type { Pass } from '@/core/doc/pass';
import type { SetupView } from '@/core/setup/view';
import { Label } from '../arrange/margins';
import { type Layout, onScreen } from '../board-view/layout';
import { countsTo } from './area-fields';

/** The frame that a pass works in, drawn on the board: the wall that it leaves, and the line that the middle of its bit keeps to. */
export function AreaFrame({ job, pass, layout }: { job: SetupView; pass: Pass; layout: Layout }) {
  if (!('area' in pass) || pass.area.kind !== 'frame') return null;
  const radius = (job.cutters.find((c) => c.id === pass.cutter)?.diameter ?? 0) / 2;
  const { x0, y0, x1, y1 } = pass.area;
  const wall = countsTo(pass.kind) === 'wall' ? 0 : -radius;
  const { px, py } = onScreen(layout);
  const box = (by: number) => {
    const [a, b, c, d] = [px(x0 + by), px(x1 - by), py(y0 + by), py(y1 - by)];
    return { x: Math.min(a, b), y: Math.min(c, d), width: Math.abs(b - a), height: Math.abs(d - c) };
  };
  const [outer, inner] = [box(wall), box(wall + radius)];
  return (
    <g pointerEvents="none" data-testid="area-frame">
      <rect {...outer} fill="none" stroke="var(--color-primary)" strokeWidth={1.5} />
      {x1 - x0 > 2 * radius && y1 - y0 > 2 * radius && (
        <rect {...inner} fill="none" stroke="var(--color-primary)" strokeWidth={1} strokeDasharray="6 3 1 3" />
      )}
      <Label x={outer.x + outer.width / 2} y={outer.y - 5} text="wall" />
      <Label x={inner.x + inner.width / 2} y={inner.y + 15} text="the bit's middle" />
    </g>
  );
}
