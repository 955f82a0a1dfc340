import { AIR, STRAIGHT } from '../../cutter/limits';
import { ENGAGED, VOLUME } from '../../kernels/engagement';
import { SEGMENT } from '../../kernels/segment';
import type { Run } from '../simulate';

/** Where the i-th move of a run ends, setup coordinates, mm. */
export function endOf(run: Run, i: number): { x: number; y: number; z: number } {
  const s = i * SEGMENT;
  return { x: run.segments[s + 3], y: run.segments[s + 4], z: run.segments[s + 5] };
}

export const isRapid = (run: Run, i: number) => run.segments[i * SEGMENT + 6] === 1;

/** How far a move goes down (negative: up), aside, and along its way, mm. */
export function wayOf(run: Run, i: number): { drop: number; aside: number; long: number } {
  const s = i * SEGMENT;
  const d = run.ways ?? run.segments;
  const drop = d[s + 2] - d[s + 5];
  const dx = d[s + 3] - d[s];
  const dy = d[s + 4] - d[s + 1];
  // Asked for every move by every rule: a plain root is far quicker than Math.hypot, and lengths in mm need no more.
  const flat = dx * dx + dy * dy;
  return { drop, aside: Math.sqrt(flat), long: Math.sqrt(flat + drop * drop) };
}

/** Whether a move cuts wood; less than rounding takes is air. */
export const cuts = (run: Run, i: number) =>
  !isRapid(run, i) && run.engaged[i * ENGAGED + VOLUME] > AIR * wayOf(run, i).long;

/** Whether move i cuts along: straight descents are judged as plunges. */
export function along(run: Run, i: number): boolean {
  const { drop, aside } = wayOf(run, i);
  return cuts(run, i) && aside > STRAIGHT * drop;
}

/** Some of a run's moves: from the first to before the last. */
export type Stretch = [from: number, to: number];
const wholeOf = (run: Run): Stretch => [0, run.bites.length];

/** The move with the highest figure, and the figure; -1 and 0 where none has one above 0. */
export function worstMove(run: Run, figure: (i: number) => number, [from, to] = wholeOf(run)): [number, number] {
  let [worst, most] = [-1, 0];
  for (let i = from; i < to; i++) {
    const v = figure(i);
    if (v > most) [worst, most] = [i, v];
  }
  return [worst, most];
}

/** Lowest and highest place of a run on each axis. */
export function spanOf(run: Run) {
  const low = { x: Infinity, y: Infinity, z: Infinity };
  const high = { x: -Infinity, y: -Infinity, z: -Infinity };
  for (let i = 0; i < run.bites.length; i++) {
    const p = endOf(run, i);
    for (const a of ['x', 'y', 'z'] as const) {
      if (p[a] < low[a]) low[a] = p[a];
      if (p[a] > high[a]) high[a] = p[a];
    }
  }
  return { low, high };
}
