import { chipLoad } from '../../cutter/cutter';
import type { Found } from '../../findings/finding';
import { SEGMENT } from '../../kernels/segment';
import { lengthRound } from '../../program/round';
import { type AfterRun, aboutRun, type Rule } from './rule';
import { endOf, isRapid } from './run-places';

/** A feed below this is a slip of the pen: nothing is cut so slowly, mm/min. */
const CRAWL = 10;
/** Shorter moves never reach their feed, mm. */
const SHORT = 0.5;
/** What of a feed over a machine's is rounding, mm/min. */
const ROUNDING = 1;

/** What a machine's axes would have to do for the feed of a move: how many times as much as they can. */
function strain({ view, run }: AfterRun, i: number): number {
  const s = run.segments.subarray(i * SEGMENT, (i + 1) * SEGMENT);
  const d = { x: Math.abs(s[3] - s[0]), y: Math.abs(s[4] - s[1]), z: Math.abs(s[5] - s[2]) };
  const length = Math.hypot(d.x, d.y, d.z);
  if (!view.board.drum && length < SHORT) return 0;
  const { maxFeed, rotary } = view.machine;
  if (view.board.drum) {
    // Its way round is the tip's own at the radius where it is; what the axis does for it is asked in degrees.
    const { thickness } = view.board;
    const turn = d.y / thickness;
    const long = lengthRound(thickness, d.x, turn, s[2], s[5]);
    if (long < SHORT || !rotary) return 0;
    const minutes = long / Math.max(1, run.feeds[i] - ROUNDING);
    const [along, down] = [d.x / maxFeed[rotary.along], d.z / maxFeed.z];
    return Math.max(along, down, (turn * 180) / Math.PI / rotary.maxSpeed) / minutes;
  }
  return Math.max(...(['x', 'y', 'z'] as const).map((a) => ((run.feeds[i] - ROUNDING) * d[a]) / length / maxFeed[a]));
}

/** Feeds as they are written that the machine does not reach, or that are absurdly small. */
export const feedWritten: Rule = {
  id: 'feed-written',
  run(at) {
    const { view, run } = at;
    const told = (i: number, most: number): Found[] => [
      {
        rule: 'feed-written',
        // A machine holds back what it does not reach; a slip of the pen burns the wood.
        severity: run.feeds[i] < CRAWL ? 'error' : 'warning',
        subject: aboutRun(at, i),
        place: endOf(run, i),
        figures: { feed: run.feeds[i], most, crawl: run.feeds[i] < CRAWL, machine: view.machine.name },
      },
    ];
    let [worst, most] = [-1, 1];
    for (let i = 0; i < run.feeds.length; i++) {
      if (isRapid(run, i)) continue;
      if (run.feeds[i] < CRAWL) return told(i, CRAWL);
      const v = strain(at, i);
      if (v > most) [worst, most] = [i, v];
    }
    return worst < 0 ? [] : told(worst, run.feeds[worst] / most);
  },
};

/** Chips thinner than a bit cuts, or thicker than is safe in this material. */
export const chips: Rule = {
  id: 'chip-load',
  run(at) {
    const { view, run } = at;
    const { least, most } = view.board.material.chipLoad;
    const { cutter } = run;
    const load = (i: number) => chipLoad(run.feeds[i], run.spindle[i], cutter.flutes);
    let [thick, thin] = [-1, -1];
    for (let i = 0; i < run.feeds.length; i++) {
      if (isRapid(run, i) || run.bites[i] <= 0 || run.spindle[i] <= 0) continue;
      if (load(i) > most && (thick < 0 || load(i) > load(thick))) thick = i;
      if (thin < 0 || load(i) > load(thin)) thin = i;
    }
    // Too thin only where no move of the run is thicker: descents and corners are slow for other reasons.
    const off = thick >= 0 ? thick : thin >= 0 && load(thin) < least ? thin : -1;
    if (off < 0) return [];
    return [
      {
        rule: 'chip-load',
        severity: 'warning',
        subject: aboutRun(at, off),
        place: endOf(run, off),
        figures: { bit: cutter.name, load: load(off), least, most, material: view.board.material.name },
      },
    ];
  },
};
