import { cellAt } from '../../field/height-field';
import type { Tool } from '../context';
import { type Level, loopsOf, RIM } from '../loops';
import { cutLoops, dropTo, passable } from '../rings';
import type { Clearing } from './schema';

/** Clears a level by following its walls once and then by rows between them. */
export function clearByRows(tool: Tool, level: Level, pass: Clearing, tolerance: number): void {
  cutLoops(tool, level, loopsOf(level, pass.stepover, tolerance, 1).flat(), pass);
  const { grid, depth } = level;
  const a = (pass.angle * Math.PI) / 180;
  const [ux, uy] = [Math.cos(a), Math.sin(a)];
  const cx = grid.originX + (grid.width * grid.cell) / 2;
  const cy = grid.originY + (grid.height * grid.cell) / 2;
  const reach = Math.hypot(grid.width, grid.height) * grid.cell * 0.5;
  const rows: [number, number, number, number][][] = [];
  const open = (x: number, y: number) => depth[cellAt(grid, x, y)] >= RIM + 0.5;
  const step = grid.cell / 2;
  for (let v = -reach; v <= reach; v += pass.stepover) {
    const row: [number, number, number, number][] = [];
    let start: number | undefined;
    let last = 0;
    for (let u = -reach; u <= reach + step; u += step) {
      if (u <= reach && open(cx + u * ux - v * uy, cy + u * uy + v * ux)) {
        start ??= u;
        last = u;
      } else if (start !== undefined) {
        row.push([
          cx + start * ux - v * uy,
          cy + start * uy + v * ux,
          cx + last * ux - v * uy,
          cy + last * uy + v * ux,
        ]);
        start = undefined;
      }
    }
    if (row.length > 0) rows.push(row);
  }
  cutRows(tool, level, rows, pass);
}

/**
 * Rows in serpentines, region by region, or all one way. Their ends lie on the walls that were followed, so that each is entered open. Rows are
 * numbered to the left of their own direction, so that what is left of the wood lies there.
 */
function cutRows(tool: Tool, level: Level, rows: [number, number, number, number][][], pass: Clearing): void {
  const { path, cutter } = tool;
  const left = rows.map((r) => r.slice());
  const total = left.reduce((n, r) => n + r.length, 0);
  const { milling } = pass;
  const ways = milling === 'either' ? [false, true] : [milling === 'climb'];
  // One way the next row begins beside where the last one began; it is not beside where that one ended.
  let from: { x: number; y: number } = path;
  let at = 0;
  for (let cut = 0; cut < total; cut++) {
    const find = (row: number, limit: number) => {
      let best = -1;
      let turned = false;
      let least = limit;
      (left[row] ?? []).forEach((s, i) => {
        for (const back of ways) {
          const d = Math.hypot(s[back ? 2 : 0] - from.x, s[back ? 3 : 1] - from.y);
          if (d < least) {
            least = d;
            best = i;
            turned = back;
          }
        }
      });
      return best < 0 ? undefined : { row, i: best, turned, d: least };
    };
    const findAnywhere = () => {
      let best = find(0, Infinity);
      // One way no row may be left behind: the wood would lie on its other side.
      for (let r = 1; r < left.length && !(best && milling !== 'either'); r++)
        best = find(r, best?.d ?? Infinity) ?? best;
      return best;
    };
    const pick = find(at + 1, 3 * pass.stepover) ?? find(at, 3 * pass.stepover) ?? findAnywhere();
    if (!pick) break;
    const [s] = left[pick.row].splice(pick.i, 1);
    const [x0, y0, x1, y1] = pick.turned ? [s[2], s[3], s[0], s[1]] : s;
    if (
      path.z === level.z &&
      Math.hypot(x0 - path.x, y0 - path.y) <= 3 * pass.stepover &&
      passable(level, path.x, path.y, x0, y0)
    ) {
      path.feed(x0, y0, level.z, cutter.feed, 'link');
    } else dropTo(tool, level, x0, y0, false);
    path.feed(x1, y1, level.z, cutter.feed);
    if (milling !== 'either') from = { x: x0, y: y0 };
    at = pick.row;
  }
}
