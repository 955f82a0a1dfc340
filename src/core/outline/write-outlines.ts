import { DxfWriter, LWPolylineFlags, point2d, Units } from '@tarikjabiri/dxf';
import { BLOCK } from './arcs';
import { clean, pathData, ringBlocks } from './path-data';
import type { Polygon } from './polygon';

/** Outlines under a name, board coordinates, mm. */
export interface NamedOutline {
  name: string;
  polygon: Polygon;
}

const xmlText = (s: string) => s.replace(/[^\x20-\x7e]/g, '').replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** Outlines as an SVG 1.1 drawing in mm, a group each, the board's upper left corner at 0, 0. */
export function writeSvg(outlines: NamedOutline[], board: { x: number; y: number }, tolerance: number): string {
  const groups = outlines.map(
    (o) =>
      `  <g id="${xmlText(o.name)}"><path fill="none" stroke="black" stroke-width="0.1" fill-rule="evenodd" d="${pathData(o.polygon, tolerance, board.y)}"/></g>`,
  );
  const [w, h] = [clean(board.x), clean(board.y)];
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">`,
    ...groups,
    '</svg>',
    '',
  ].join('\n');
}

/** Outlines as a DXF drawing in mm, a layer each: closed polylines whose arcs are bulges (the tangent of a quarter of the arc's angle). */
export function writeDxf(outlines: NamedOutline[], tolerance: number): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  const layers = new Set<string>();
  outlines.forEach((o, n) => {
    const layer = o.name.replace(/[^A-Za-z0-9 _-]/g, '_').slice(0, 60) || `outline ${n + 1}`;
    if (!layers.has(layer)) dxf.addLayer(layer, (n % 6) + 1, 'CONTINUOUS');
    layers.add(layer);
    for (const ring of o.polygon) {
      const b = ringBlocks(ring, tolerance);
      const points = [];
      // The last block ends where the first begins.
      for (let k = 0; k + BLOCK < b.length; k += BLOCK) {
        const next = b.subarray(k + BLOCK, k + 2 * BLOCK);
        points.push({ point: point2d(b[k], b[k + 1]), bulge: bulgeOf(b[k], b[k + 1], next) });
      }
      dxf.addLWPolyline(points, { flags: LWPolylineFlags.Closed, layerName: layer });
    }
  });
  return dxf.stringify();
}

function bulgeOf(x: number, y: number, [nx, ny, , , turn, cx, cy]: Float64Array): number {
  if (turn === 0) return 0;
  const [ax, ay, bx, by] = [x - cx, y - cy, nx - cx, ny - cy];
  const angle = Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
  return (turn === 3 ? 1 : -1) * Math.tan(angle / 4);
}
