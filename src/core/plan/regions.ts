import { cellsWithin } from '../arrange/cells-within';
import type { OutlineRef } from '../arrange/silhouette';
import type { Region } from '../arrange/target';
import type { Grid } from '../field/height-field';
import type { Polygon } from '../outline/polygon';
import type { Job } from './job';
import type { Area } from './pass';
import { resolveTrenches } from './trenches';

/** An area with its trench, and the outline that it names as a polygon. */
export interface ResolvedArea {
  area: Area;
  trench: number;
  polygon: Polygon | null;
}

/** The areas of a job's passes; null for passes that have none. */
export async function resolveAreas(
  job: Pick<Job, 'passes' | 'cutters' | 'seat'>,
  outline: (ref: OutlineRef) => Polygon | Promise<Polygon>,
): Promise<(ResolvedArea | null)[]> {
  const trenches = resolveTrenches(job);
  return Promise.all(
    job.passes.map(async (p, i) => {
      if (!('area' in p)) return null;
      const polygon = p.area.kind === 'outline' ? await outline(p.area.outline) : null;
      return { area: p.area, trench: trenches[i], polygon };
    }),
  );
}

/** A resolved area on a grid. */
export function regionOf(a: ResolvedArea, grid: Grid): Region {
  return { area: a.area, trench: a.trench, within: a.polygon && cellsWithin(a.polygon, grid) };
}
