import { type Cutter, chipLoad } from './cutter';

/** Chip loads at which hardly any bit is run, whatever it cuts: below it rubs, above it breaks, mm a tooth (common practice, no source). */
const USUAL = { least: 0.004, most: 0.5 };

/** Other units that a feed may have been meant in, and what one of each is in mm/min. */
const UNITS = [
  ['mm/s', 60],
  ['in/min', 25.4],
] as const;

/** A feed that was meant in another unit, as it seems: its figure in mm/min if so. */
export interface FeedDoubt {
  meant: (typeof UNITS)[number][0];
  feed: number;
}

/**
 * What a bit's feed may have been meant to be, where its chip load is out of all proportion and would be usual if the figure were mm/s or in/min, or
 * if it had been mm/min where one of those was understood; none where it is usual, or no unit explains it.
 */
export function feedDoubts({ feed, rpm, flutes }: Pick<Cutter, 'feed' | 'rpm' | 'flutes'>): FeedDoubt[] {
  const chip = (f: number) => chipLoad(f, rpm, flutes);
  const usual = (f: number) => chip(f) >= USUAL.least && chip(f) <= USUAL.most;
  if (usual(feed)) return [];
  const few = chip(feed) < USUAL.least;
  return UNITS.map(([meant, factor]) => ({
    meant,
    feed: Number((few ? feed * factor : feed / factor).toFixed(1)),
  })).filter((d) => usual(d.feed));
}
