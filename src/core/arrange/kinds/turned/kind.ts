import { AIR, makeField } from '../../../field/height-field';
import { outlinePolygon } from '../../../outline/shapes';
import { windowGrid, windowOf } from '../../window';
import { NO_FACTS, type PieceAt, type SourceKind } from '../kind';
import { turnedForm } from './forms';

/** Places this near to a form's edge belong to it, mm. */
const EDGE = 1e-6;

/** A form of turned work on the rays of a drum; nothing on a board that lies flat, which is a problem of its own. All but flats go all round. */
function piece({ layer, frame, grid }: PieceAt<'turned'>) {
  const { form } = layer.source;
  const { x } = layer.size;
  const y = form.kind === 'flat' ? layer.size.y : Infinity;
  const [cx, cy] = [frame[4], frame[5]];
  const whole = { low: grid.originY, high: grid.originY + grid.height * grid.cell };
  const window = windowOf(
    grid,
    cx - x / 2,
    Math.max(whole.low, cy - y / 2),
    cx + x / 2,
    Math.min(whole.high, cy + y / 2),
  );
  const g = windowGrid(grid, window);
  const heights = makeField(g, AIR).data;
  if (grid.drum) {
    const depth = turnedForm(form, { radius: grid.drum.radius, x, rise: layer.rise });
    const way = layer.mirror ? -1 : 1;
    for (let j = 0; j < g.height; j++) {
      const dy = g.originY + j * g.cell - cy;
      if (Math.abs(dy) > y / 2 + EDGE) continue;
      for (let i = 0; i < g.width; i++) {
        const dx = g.originX + i * g.cell - cx;
        if (Math.abs(dx) > x / 2 + EDGE) continue;
        const deep = depth(way * dx, dy);
        if (deep !== null) heights[j * g.width + i] = deep;
      }
    }
  }
  return { window, heights, below: null, thinCells: 0, edge: null };
}

/** Forms of turned work: tenons, contours, beads, flats, flutes and knurls, exact round a drum. */
export const turned: SourceKind<'turned'> = {
  kind: 'turned',
  name: 'turned form',
  described: 'turned form',
  alongAxis: true,
  files: () => [],
  contentKey: () => 'turned',
  passing: false,
  load: async () => ({}),
  facts: async () => NO_FACTS,
  outline: ({ size }) => outlinePolygon({ kind: 'rectangle' }, size.x, size.y),
  piece,
};
