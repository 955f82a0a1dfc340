import { crossings } from '../../outline/polygon';
import { type CutLine, pointAt } from './line';
import type { CutoutPass } from './schema';

/** Whether a place lies on the waste's side of all lines. */
function inWaste(lines: CutLine[], pass: CutoutPass, x: number, y: number): boolean {
  let inside = false;
  for (const c of crossings(
    lines.map((l) => l.ring),
    y,
  ))
    if (c <= x) inside = !inside;
  return pass.side === 'inside' ? inside : !inside;
}

/** Where the way in begins: at 45 degrees behind the line's first point and off it into the waste, as far as there is room. */
export function leadFrom(line: CutLine, all: CutLine[], pass: CutoutPass): [number, number] {
  const [x, y] = line.ring;
  const ahead = pointAt(line, Math.min(0.5, line.total / 8));
  const long = Math.hypot(ahead.x - x, ahead.y - y) || 1;
  const [tx, ty] = [(ahead.x - x) / long, (ahead.y - y) / long];
  for (let l = pass.lead * Math.SQRT1_2; l > 0.3; l *= 0.7) {
    const free = [0.25, 0.5, 0.75, 1].every((q) =>
      inWaste(all, pass, x - l * q * tx - l * q * ty, y - l * q * ty + l * q * tx),
    );
    if (free) return [x - l * tx - l * ty, y - l * ty + l * tx];
  }
  return [x, y];
}
