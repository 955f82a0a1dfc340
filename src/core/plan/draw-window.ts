import { compose, emptySurface, opOf } from '../arrange/compose';
import type { Drawn } from '../arrange/edges';
import type { Content } from '../arrange/kinds/kind';
import { type Placed, placedOf, renderLayer } from '../arrange/render';
import type { Rendered } from '../arrange/rendered';
import type { DrawingGrid } from '../arrange/window';
import type { SeenLayer } from '../doc/layer';
import type { Grid } from '../field/height-field';
import { seenLayers } from '../setup/view';
import { type Composing, type LoadContent, maskedBy } from './composing';

/** What is drawn of a setup's layers window by window: plain data, so that other threads can draw too. */
export interface Drawing {
  view: Omit<Composing, 'passes'>;
  /** The board's grid. */
  grid: Grid;
  /** What the layers hold that are drawn, by their ids. */
  contents: Map<string, Content>;
}

/** What of a setup is drawn, its contents read. */
export async function drawingOf(view: Composing, grid: Grid, load: LoadContent): Promise<Drawing> {
  const all = seenLayers(view);
  const contents: Drawing['contents'] = new Map();
  const read = async (l: SeenLayer, depth: number) => {
    if (!contents.has(l.id)) contents.set(l.id, (await load(l)).content);
    const mask = maskedBy(l, all, depth);
    if (mask) await read(mask, depth + 1);
  };
  for (const l of all) if (!l.hidden) await read(l, 0);
  const { layers, seat, board, setup } = view;
  return { view: { layers, seat, board, setup }, grid, contents };
}

/** Room that layers need around a window to look in it as they do on the whole board, mm: what thins them and grows their masks. */
function roomOf(layers: SeenLayer[]): number {
  return Math.max(0, ...layers.map((l) => l.thin + ('grow' in l.mask ? Math.abs(l.mask.grow) : 0)));
}

/** Draws the composite of a setup on other grids than the board's, each with as much room around it as its layers need, within the board. */
export function drawerOf({ view, grid, contents }: Drawing): (g: DrawingGrid) => Drawn {
  const all = seenLayers(view);
  const placed = new Map<string, Placed[]>();
  const rendered = (l: SeenLayer, g: DrawingGrid, depth: number): Rendered => {
    const mask = maskedBy(l, all, depth);
    const content = contents.get(l.id)!;
    const copies = placed.get(l.id) ?? placedOf(l, content);
    placed.set(l.id, copies);
    return renderLayer(l, content, g, mask && rendered(mask, g, depth + 1), copies);
  };
  const draw = (g: DrawingGrid): Drawn => {
    const s = emptySurface(g);
    const ops = all.filter((l) => !l.hidden).map((l) => opOf(l, rendered(l, g, 0)));
    compose(s, ops, view.seat, { i: 0, j: 0, width: g.width, height: g.height });
    return s;
  };
  const most = roomOf(view.layers);
  return (g) => {
    const room = Math.ceil(most / g.cell);
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
    const { z, cover } = draw(wide);
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
