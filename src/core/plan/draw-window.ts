import type { Drawn } from '../arrange/edges';
import type { DrawingGrid } from '../arrange/window';
import type { Grid } from '../field/height-field';
import { type Composing, drawLayers, type LoadContent } from './compose-job';

/** Room that layers need around a window to look in it as they do on the whole board, mm: what thins them and grows their masks. */
function roomOf({ layers }: Composing): number {
  return Math.max(0, ...layers.map((l) => l.thin + ('grow' in l.mask ? Math.abs(l.mask.grow) : 0)));
}

/**
 * Draws the composite of a setup on other grids than the board's, each with as much room around it as its layers need, within the board.
 * @param grid the board's
 */
export function drawerOf(view: Composing, grid: Grid, load: LoadContent): (g: DrawingGrid) => Promise<Drawn> {
  const contents = new Map<string, ReturnType<LoadContent>>();
  const once: LoadContent = (l) => {
    const had = contents.get(l.id) ?? load(l);
    contents.set(l.id, had);
    return had;
  };
  return async (g) => {
    const room = Math.ceil(roomOf(view) / g.cell);
    /** Cells of the window's that lie between two places, no more than there is need of room. */
    const cells = (from: number, to: number) => Math.min(room, Math.max(0, Math.floor((to - from) / g.cell)));
    const [west, south] = [cells(grid.originX, g.originX), cells(grid.originY, g.originY)];
    const east = cells(g.originX + (g.width - 1) * g.cell, grid.originX + (grid.width - 1) * grid.cell);
    const north = cells(g.originY + (g.height - 1) * g.cell, grid.originY + (grid.height - 1) * grid.cell);
    const wide: DrawingGrid = {
      ...g,
      width: g.width + west + east,
      height: g.height + south + north,
      originX: g.originX - west * g.cell,
      originY: g.originY - south * g.cell,
    };
    const { z, cover } = await drawLayers(view, wide, once);
    if (wide.width === g.width && wide.height === g.height) return { z, cover };
    const out = { z: new Float32Array(g.width * g.height), cover: new Uint8Array(g.width * g.height) };
    for (let r = 0; r < g.height; r++) {
      const from = (r + south) * wide.width + west;
      out.z.set(z.subarray(from, from + g.width), r * g.width);
      out.cover.set(cover.subarray(from, from + g.width), r * g.width);
    }
    return out;
  };
}
