import { SEGMENT } from '../../kernels/stock-removal';
import type { Run } from '../simulate';

/** Where the i-th move of a run ends, setup coordinates, mm. */
export function endOf(run: Run, i: number): { x: number; y: number; z: number } {
  const s = i * SEGMENT;
  return { x: run.segments[s + 3], y: run.segments[s + 4], z: run.segments[s + 5] };
}

export const isRapid = (run: Run, i: number) => run.segments[i * SEGMENT + 6] === 1;

/** Lowest and highest place of a run on each axis. */
export function spanOf(run: Run) {
  const low = { x: Infinity, y: Infinity, z: Infinity };
  const high = { x: -Infinity, y: -Infinity, z: -Infinity };
  for (let i = 0; i < run.bites.length; i++) {
    const p = endOf(run, i);
    for (const a of ['x', 'y', 'z'] as const) {
      if (p[a] < low[a]) low[a] = p[a];
      if (p[a] > high[a]) high[a] = p[a];
    }
  }
  return { low, high };
}
