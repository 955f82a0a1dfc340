import type { PlanWays } from '@/contract/wire';
import { WAYS, type WayKind } from '@/core/proof/way-parts';

/** How a kind of way is drawn: told apart by its line as well as its colour. Pixels. */
export interface WayLine {
  name: string;
  colour: string;
  width: number;
  dash: number[];
}

export const WAY_LINES: Record<Exclude<WayKind, 'start'>, WayLine> = {
  rapid: { name: 'rapid', colour: '--color-neutral', width: 1, dash: [9, 3, 1.5, 3] },
  air: { name: 'feed in the air', colour: '--color-info', width: 1.25, dash: [5, 4] },
  cut: { name: 'cutting', colour: '--color-primary', width: 1.25, dash: [] },
  entry: { name: 'going in', colour: '--color-accent', width: 3, dash: [0.1, 4.5] },
};

const START = WAYS.indexOf('start');

/** What the bit does on the way that is nearest to a place of the board. */
export interface WayHere {
  kind: Exclude<WayKind, 'start'>;
  /** Line of its program; feed, mm/min; wood a mm of way, mm2; wood met over the tip, mm; height of the tip, mm. */
  line: number;
  feed: number;
  chip: number;
  bite: number;
  z: number;
}

/** The way that passes nearest to a place, within so many mm; rapids only where nothing else passes. */
export function wayAt({ kind, places }: PlanWays, at: { x: number; y: number }, within: number): WayHere | null {
  const { x, y } = places;
  let best = -1;
  let least = within ** 2;
  let fed = false;
  for (let i = 1; i < kind.length; i++) {
    if (kind[i] === START) continue;
    const feeds = WAYS[kind[i]] !== 'rapid';
    if (fed && !feeds) continue;
    const [ax, ay] = [x[i - 1], y[i - 1]];
    const [dx, dy] = [x[i] - ax, y[i] - ay];
    const long = dx * dx + dy * dy;
    const t = long > 0 ? Math.min(1, Math.max(0, ((at.x - ax) * dx + (at.y - ay) * dy) / long)) : 0;
    const d = (ax + t * dx - at.x) ** 2 + (ay + t * dy - at.y) ** 2;
    // Of ways one over the other the later one counts: it leaves what is there in the end.
    if (d < least || (d === least && feeds) || (feeds && !fed && d <= within ** 2)) {
      best = i;
      least = d;
      fed ||= feeds;
    }
  }
  if (best < 0) return null;
  const { line, feed, chip, bite, z } = places;
  return {
    kind: WAYS[kind[best]] as WayHere['kind'],
    line: line[best],
    feed: feed[best],
    chip: chip[best],
    bite: bite[best],
    z: z[best],
  };
}

/** Draws ways, one kind after the other, so that what is gone into lies on top. */
export function drawWays(
  g: CanvasRenderingContext2D,
  { kind, places: { x, y } }: PlanWays,
  px: (x: number) => number,
  py: (y: number) => number,
  colour: (name: string) => string,
): void {
  g.lineCap = 'round';
  g.lineJoin = 'round';
  for (const [name, line] of Object.entries(WAY_LINES)) {
    const code = WAYS.indexOf(name as WayKind);
    g.strokeStyle = colour(line.colour);
    g.lineWidth = line.width;
    g.setLineDash(line.dash);
    g.beginPath();
    let on = -1;
    for (let i = 1; i < kind.length; i++) {
      if (kind[i] !== code) continue;
      if (on !== i - 1) g.moveTo(px(x[i - 1]), py(y[i - 1]));
      g.lineTo(px(x[i]), py(y[i]));
      on = i;
    }
    g.stroke();
  }
  g.setLineDash([]);
}
