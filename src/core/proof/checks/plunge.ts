import { profileOf } from '../../cutter/cutter';
import { straightDepth } from '../../cutter/descent';
import { SOLID, STRAIGHT } from '../../cutter/limits';
import { AREA, ENGAGED, VOLUME } from '../../kernels/engagement';
import type { Run } from '../simulate';
import { aboutRun, type Rule } from './rule';
import { cuts, endOf, isRapid, wayOf, worstMove } from './run-places';

/** Depths and feeds that differ by so much are rounding: mm, and a share. */
const ROUNDING = 0.02;
/** What the rounding of its ends can add to a move's drop, mm. */
const ENDS = 0.003;

/** Whether move i goes straight down. */
function straight(run: Run, i: number): boolean {
  const { drop, aside } = wayOf(run, i);
  return !isRapid(run, i) && drop > 0 && aside <= STRAIGHT * drop;
}

/**
 * How deep each move has gone straight down into solid wood when it ends, mm, what the moves just before it have done counted with it.
 * Wood under less than a quarter of the disc is a wall that is brushed past. Where there is more of it, but not over its height, it counts as deep
 * as it would be if it lay level under the disc: a hair of a wall all around is no plunge.
 */
function plunges(run: Run): Float64Array {
  const profile = profileOf(run.cutter);
  const disc = Math.PI * (run.cutter.diameter / 2) ** 2;
  const deep = new Float64Array(run.bites.length);
  for (let i = 0; i < deep.length; i++) {
    if (!straight(run, i)) continue;
    const [area, volume] = [AREA, VOLUME].map((what) => run.engaged[i * ENGAGED + what]);
    const solid = cuts(run, i) && area > SOLID * disc;
    const had = i > 0 && straight(run, i - 1) ? deep[i - 1] : 0;
    deep[i] = had + (solid ? straightDepth(profile, { drop: wayOf(run, i).drop, bite: run.bites[i], volume }) : 0);
  }
  return deep;
}

/** Straight down into more wood than the bit may: most bits cut badly at their middle, or not at all. */
export const plungeDeep: Rule = {
  id: 'plunge-deep',
  run(at) {
    const { run } = at;
    const { name, maxPlungeDepth } = run.cutter;
    const depths = plunges(run);
    const [worst, deep] = worstMove(run, (i) => depths[i]);
    if (deep <= maxPlungeDepth + ROUNDING) return [];
    return [
      {
        rule: 'plunge-deep',
        severity: 'error',
        subject: aboutRun(at, worst),
        place: endOf(run, worst),
        figures: { bit: name, deep, most: maxPlungeDepth },
      },
    ];
  },
};

/**
 * How fast a move goes down, and how fast its bit bears it, mm/min: down a wall the plunge feed, down a slope as many times more as it is flatter
 * than 45 degrees, for there less of the cut lies under the middle, where a bit cuts worst. Common practice, no source.
 */
function downwards(run: Run, i: number): { down: number; most: number } {
  const { drop, aside, long } = wayOf(run, i);
  const sure = drop - ENDS;
  if (sure <= 0 || !cuts(run, i)) return { down: 0, most: Infinity };
  return { down: (run.feeds[i] * sure) / long, most: run.cutter.plunge * Math.max(1, aside / sure) };
}

/** Down into wood faster than the bit's tip bears: straight, down a ramp, a wall or a slope. */
export const plungeFast: Rule = {
  id: 'plunge-fast',
  run(at) {
    const { run } = at;
    const [worst] = worstMove(run, (i) => {
      const { down, most } = downwards(run, i);
      return down / most;
    });
    if (worst < 0) return [];
    const { down, most } = downwards(run, worst);
    if (down <= most * (1 + ROUNDING) + 1) return [];
    return [
      {
        rule: 'plunge-fast',
        severity: 'error',
        subject: aboutRun(at, worst),
        place: endOf(run, worst),
        figures: { bit: run.cutter.name, down, most },
      },
    ];
  },
};
