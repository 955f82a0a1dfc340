import type { Cutter } from '../cutter/cutter';
import { cutterOf } from '../doc/job';
import { isReserve, type Pass } from '../doc/pass';
import type { MotionTime } from '../motion/time';
import { bearable } from '../passes/bearable';
import type { SetupView } from '../setup/view';

/** What a plan found out about the time of one of its passes. */
export type PassTime = { id: string } & Pick<MotionTime, 'seconds' | 'cutSeconds' | 'cutLength'>;

/** A plan whose passes' times are known, and what it was planned from. */
export interface Known {
  view: SetupView;
  passes: readonly PassTime[];
  /** How deep it goes into the board, mm. */
  deepest: number;
}

/** Hours of a setup as they will come out, more or less. */
export interface Estimate {
  seconds: number;
  /** By pass; those that are not touched are as planned. */
  passes: Record<string, { seconds: number; about: boolean }>;
}

/** What a pass and its bit come to, as it would be planned. */
interface Way {
  pass: Pass;
  cutter: Cutter;
}

const wayOf = (view: SetupView, pass: Pass | undefined): Way | null => {
  const cutter = pass && cutterOf(view, pass);
  return pass && cutter ? { pass: bearable(pass, cutter), cutter } : null;
};

/** How many levels of a stepdown reach a depth. */
const levels = (deep: number, stepdown: number): number =>
  Math.max(1, Math.ceil(deep / Math.max(stepdown, 1e-3) - 1e-6));

/** How many times as long a way is: rows and rings lie a stepover apart, levels a stepdown. */
function longer(before: Way, now: Way, deep: number): number {
  const [a, b] = [before.pass, now.pass];
  const rows = 'stepover' in a && 'stepover' in b && b.stepover > 0 ? a.stepover / b.stepover : 1;
  const down = 'stepdown' in a && 'stepdown' in b ? levels(deep, b.stepdown) / levels(deep, a.stepdown) : 1;
  return rows * down;
}

/**
 * Seconds of a pass after a change. Its way is as many times as long as its rows and levels are more; what it takes at the feed goes with the feed, and
 * what the machine loses at corners grows with it, for a corner's time is about the speed that is lost there over the acceleration.
 */
function scaled(time: PassTime, before: Way, now: Way, deep: number): number {
  const much = longer(before, now, deep);
  const faster = now.cutter.feed / before.cutter.feed;
  const atFeed = Math.min(time.cutSeconds, (60 * time.cutLength) / before.cutter.feed);
  const corners = time.cutSeconds - atFeed;
  return much * (time.seconds - time.cutSeconds + atFeed / faster + corners * faster);
}

/** How deep a pass goes: through the board where it cuts out, else as the relief does. */
const depthOf = (pass: Pass, { board }: SetupView, deepest: number): number =>
  pass.kind === 'cutout' ? board.thickness : deepest;

/** Whether a pass is as it was, with its bit. */
const isSame = (a: Way, b: Way): boolean =>
  JSON.stringify(a.pass) === JSON.stringify(b.pass) && JSON.stringify(a.cutter) === JSON.stringify(b.cutter);

/** What decides on the surface that is cut. */
function arrangement({ layers, board, seat }: SetupView): string {
  const { setups: _, ...blank } = board;
  return JSON.stringify([layers, blank, seat]);
}

/**
 * The hours of a setup at once, from its last plan and what has changed since in stepover, stepdown, bit and feed; null where a pass has come that no plan
 * knows. A new arrangement counts as the old one: what it takes is known when it is planned.
 */
export function estimate(known: Known, now: SetupView): Estimate | null {
  const passes: Estimate['passes'] = {};
  const alike = arrangement(known.view) === arrangement(now);
  let seconds = 0;
  for (const pass of now.passes) {
    const time = known.passes.find((p) => p.id === pass.id);
    const before = wayOf(
      known.view,
      known.view.passes.find((p) => p.id === pass.id),
    );
    const after = wayOf(now, pass);
    if (!time || !before || !after) return null;
    const touched = !isSame(before, after);
    const took = touched ? scaled(time, before, after, depthOf(pass, now, known.deepest)) : time.seconds;
    passes[pass.id] = { seconds: took, about: touched || !alike };
    if (!isReserve(pass)) seconds += took;
  }
  return { seconds, passes };
}
