import { compose, emptySurface } from '../arrange/compose';
import type { Drawn } from '../arrange/edges';
import type { Content } from '../arrange/kinds/kind';
import { type Placed, placedOf, renderLayer } from '../arrange/render';
import type { Rendered } from '../arrange/rendered';
import { drawnWalls, reachOfWalls, wallsOf } from '../arrange/vee-walls';
import type { DrawingGrid } from '../arrange/window';
import type { SeenLayer } from '../doc/layer';
import type { Grid } from '../field/height-field';
import { seenLayers } from '../setup/view';
import { type Composing, type LoadContent, maskedBy } from './composing';
import { plannedOp } from './planned-op';

/** What is drawn of a setup's layers window by window: plain data, so that other threads can draw too. */
export interface Drawing {
  view: Omit<Composing, 'passes'>;
  /** The board's grid. */
  grid: Grid;
  /** What the layers hold that are drawn, by their ids. */
  contents: Map<string, Content>;
  /** Layers of V grooves on ground that is not level, by their ids. */
  sloping: string[];
}

/** What of a setup is drawn, its contents read. */
export async function drawingOf(
  view: Composing,
  { grid, sloping }: Pick<Drawing, 'grid' | 'sloping'>,
  load: LoadContent,
): Promise<Drawing> {
  const all = seenLayers(view);
  const contents: Drawing['contents'] = new Map();
  const read = async (l: SeenLayer, depth: number) => {
    if (!contents.has(l.id)) contents.set(l.id, (await load(l)).content);
    const mask = maskedBy(l, all, depth);
    if (mask) await read(mask, depth + 1);
  };
  for (const l of all) if (!l.hidden) await read(l, 0);
  const { layers, seat, board, setup } = view;
  return { view: { layers, seat, board, setup }, grid, contents, sloping };
}

/** Room that layers need around a window to look in it as they do on the whole board, mm: what thins them and grows their masks. */
function roomOf(layers: SeenLayer[]): number {
  return Math.max(0, ...layers.map((l) => l.thin + ('grow' in l.mask ? Math.abs(l.mask.grow) : 0)));
}

/** Draws the composite of a setup on other grids than the board's, each with as much room around it as its layers need, within the board. */
export function drawerOf({ view, grid, contents, sloping }: Drawing): (g: DrawingGrid) => Drawn {
  const all = seenLayers(view);
  const placed = new Map<string, Placed[]>();
  const shown = all.filter((l) => !l.hidden);
  const walls = shown.map((l) => (sloping.includes(l.id) ? wallsOf(l, contents.get(l.id)!) : null));
  const rendered = (l: SeenLayer, g: DrawingGrid, depth: number): Rendered => {
    const mask = maskedBy(l, all, depth);
    const content = contents.get(l.id)!;
    const copies = placed.get(l.id) ?? placedOf(l, content);
    placed.set(l.id, copies);
    return renderLayer(l, content, g, mask && rendered(mask, g, depth + 1), copies);
  };
  const most = roomOf(view.layers);
  /** How far around a window the ground counts for the walls of grooves in it, mm. */
  const reachIn = (g: DrawingGrid): number =>
    reachOfWalls(shown.map((l, n) => walls[n] && drawnWalls(walls[n], rendered(l, g, 0))));
  return (g) => {
    const room = Math.ceil((most + reachIn(g)) / g.cell);
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
    const s = emptySurface(wide);
    const ops = shown.map((l, n) => plannedOp(l, rendered(l, wide, 0), walls[n], wide));
    compose(s, ops, view.seat, { i: west, j: south, width: g.width, height: g.height });
    const { z, cover } = s;
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
