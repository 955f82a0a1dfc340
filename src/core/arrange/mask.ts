import type { Layer } from '../doc/layer';
import { distanceInside, distanceOutside } from '../field/distance';
import { AIR, type Grid } from '../field/height-field';
import { applyAffine } from '../outline/polygon';
import { outlinePolygon } from '../outline/shapes';
import { cellsWithin } from './cells-within';
import type { Rendered } from './rendered';
import { frameOf, type Window, windowGrid } from './window';

/** What a mask keeps of a window, 1 or 0. `other` is the rendered layer that a mask of a layer names. */
export function maskOf(l: Layer, grid: Grid, window: Window, other: Rendered | null): Uint8Array | null {
  const m = l.mask;
  if (m.kind === 'none' || window.width === 0) return null;
  const g = windowGrid(grid, window);
  const out = new Uint8Array(g.width * g.height);
  if (m.kind === 'outline') {
    const [a, b, c, d, e, f] = frameOf(l, { dx: 0, dy: 0, turn: 0 });
    const p = applyAffine(outlinePolygon(m.outline, m.x, m.y), [
      a,
      b,
      c,
      d,
      e + a * m.dx + c * m.dy,
      f + b * m.dx + d * m.dy,
    ]);
    out.set(cellsWithin(p, g).cells);
  } else {
    if (other) {
      for (let j = 0; j < g.height; j++) {
        const v = window.j + j - other.window.j;
        if (v < 0 || v >= other.window.height) continue;
        for (let i = 0; i < g.width; i++) {
          const u = window.i + i - other.window.i;
          if (u >= 0 && u < other.window.width && other.heights[v * other.window.width + u] !== AIR)
            out[j * g.width + i] = 1;
        }
      }
    }
    if (m.grow !== 0) {
      const d = m.grow > 0 ? distanceOutside(out, g.width, g.height) : distanceInside(out, g.width, g.height);
      const far = Math.abs(m.grow) / g.cell;
      for (let k = 0; k < out.length; k++) out[k] = (m.grow > 0 ? d[k] <= far : d[k] > far) ? 1 : 0;
    }
  }
  if (m.outside) for (let k = 0; k < out.length; k++) out[k] = 1 - out[k];
  return out;
}
