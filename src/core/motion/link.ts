import type { Cutter } from '../cutter/cutter';
import type { Machine } from '../doc/machine';
import { Path } from './path';
import { motionTime } from './time';

/** How a machine moves. */
export type Moving = Pick<Machine, 'maxFeed' | 'acceleration' | 'junctionDeviation'>;

/** Longest way that is tried, mm: a hop that does not pay here is not made. */
const LONGEST = 200;
/** To so much is it found, mm. */
const FINE = 0.5;

/**
 * The shortest way at feed that takes longer than a hop over it: up, across, down again and the last bit at the plunge feed, by the look-ahead
 * model, with cutting before and after it.
 * @param up how high the hop goes, mm @param slow how much of the way down is at the plunge feed, mm
 * @returns mm; Infinity where no hop pays on the machine
 */
export function shortestHop(
  machine: Moving,
  { feed, plunge }: Pick<Cutter, 'feed' | 'plunge'>,
  up: number,
  slow: number,
): number {
  const run = 20;
  const seconds = (l: number, hops: boolean) => {
    const path = new Path();
    path.rapid(0, 0, 0);
    path.feed(run, 0, 0, feed);
    if (hops) {
      path.rapid(run, 0, up);
      path.rapid(run + l, 0, up);
      path.rapid(run + l, 0, slow);
      path.feed(run + l, 0, 0, plunge);
    } else path.feed(run + l, 0, 0, feed);
    path.feed(run + l + run, 0, 0, feed);
    return motionTime(path.data, machine).seconds;
  };
  const pays = (l: number) => seconds(l, true) < seconds(l, false);
  if (!pays(LONGEST)) return Infinity;
  let [short, long] = [0, LONGEST];
  while (long - short > FINE) {
    const l = (short + long) / 2;
    if (pays(l)) long = l;
    else short = l;
  }
  return long;
}
