import type { Holding } from '../../doc/setup';
import { SEGMENT } from '../../kernels/segment';
import { type Nearest, NearestOutline } from '../../outline/nearest';
import { crossings, type Polygon } from '../../outline/polygon';
import { holdingBox } from '../../setup/holding';
import { type AfterRun, aboutRun, type Rule } from './rule';
import { endOf } from './run-places';

/** What stands on the board; tape, film and vacuum lie under it or flat on it, and are no obstacle. */
const STANDING: Holding['kind'][] = ['clamp', 'screw'];

/** Steps along a move at which its distance is looked at, mm. */
const STEP = 0.5;
/** Nearer by less than this is rounding, mm. */
const ROUNDING = 0.01;

const ringOf = (h: Holding): Polygon => [Float64Array.from(h.outline.flatMap((p) => [p.x, p.y]))];

/** The first move whose bit comes nearer to a holding than is to be kept free, below its top; -1 when none does. */
function meets({ run }: AfterRun, h: Holding): number {
  const reach = run.cutter.diameter / 2 + h.keptFree;
  const box = holdingBox(h);
  const ring = ringOf(h);
  const outline = new NearestOutline(ring, reach);
  const nearest: Nearest = { distance: 0, along: 0, ring: 0 };
  const within = (x: number, y: number) => crossings(ring, y).filter((c) => c < x).length % 2 === 1;
  for (let i = 0; i < run.bites.length; i++) {
    const [x0, y0, z0, x1, y1, z1] = run.segments.subarray(i * SEGMENT, i * SEGMENT + 6);
    if (Math.min(z0, z1) >= h.height) continue;
    if (Math.max(x0, x1) < box.x - reach || Math.min(x0, x1) > box.x + box.width + reach) continue;
    if (Math.max(y0, y1) < box.y - reach || Math.min(y0, y1) > box.y + box.depth + reach) continue;
    const steps = Math.max(1, Math.ceil(Math.hypot(x1 - x0, y1 - y0) / STEP));
    for (let n = 0; n <= steps; n++) {
      const t = n / steps;
      if (z0 + (z1 - z0) * t >= h.height) continue;
      const [x, y] = [x0 + (x1 - x0) * t, y0 + (y1 - y0) * t];
      if (outline.find(x, y, nearest, reach).distance < reach - ROUNDING || within(x, y)) return i;
    }
  }
  return -1;
}

/** A bit that runs into what stands on the board to hold it. */
export const holding: Rule = {
  id: 'holding',
  run(at) {
    const { view, run } = at;
    return view.setup.holding.flatMap((h, n) => {
      const i = STANDING.includes(h.kind) ? meets(at, h) : -1;
      if (i < 0) return [];
      return [
        {
          rule: 'holding',
          severity: 'error' as const,
          subject: aboutRun(at, i),
          place: endOf(run, i),
          figures: { kind: h.kind, number: n + 1, free: h.keptFree },
        },
      ];
    });
  },
};
