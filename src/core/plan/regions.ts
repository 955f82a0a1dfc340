import { cellsWithin } from '../arrange/cells-within';
import type { Region } from '../arrange/target';
import type { Board } from '../doc/board';
import type { OutlineRef } from '../doc/outline-ref';
import type { Area } from '../doc/pass-parts';
import type { Grid } from '../field/height-field';
import type { Polygon } from '../outline/polygon';
import { resolveTrenches } from '../passes/trenches';
import type { SetupView } from '../setup/view';

/** An area with its trench, and the outline that it names as a polygon. */
export interface ResolvedArea {
  area: Area;
  trench: number;
  polygon: Polygon | null;
}

/** The areas of a setup's passes; null for passes that have none. */
export async function resolveAreas(
  view: Pick<SetupView, 'passes' | 'cutters' | 'seat'> & { board: Pick<Board, 'thickness'> },
  outline: (ref: OutlineRef) => Polygon | Promise<Polygon>,
): Promise<(ResolvedArea | null)[]> {
  const trenches = resolveTrenches(view);
  return Promise.all(
    view.passes.map(async (p, i) => {
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
