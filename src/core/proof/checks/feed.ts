import { plannedCutter } from '../../doc/job';
import type { Rule } from './rule';

/** Feeds that the machine does not reach. */
export const feed: Rule = {
  id: 'feed',
  before({ view }) {
    const { maxFeed, name } = view.machine;
    const [most, mostDown] = [Math.min(maxFeed.x, maxFeed.y), maxFeed.z];
    const bits = new Set(view.passes.map((p) => plannedCutter(view, p)));
    return [...bits]
      .filter((c) => c.feed > most || c.plunge > mostDown)
      .map((c) => ({
        rule: 'feed',
        severity: 'warning',
        subject: { setup: view.setup.id, bit: c.id },
        place: null,
        figures: { bit: c.name, feed: c.feed, plunge: c.plunge, machine: name, most, mostDown },
        fixes: [
          {
            id: 'use-feeds',
            figures: { feed: Math.min(c.feed, most), plunge: Math.min(c.plunge, mostDown) },
            edits: [
              { set: ['cutters', { id: c.id }, 'feed'], to: Math.min(c.feed, most) },
              { set: ['cutters', { id: c.id }, 'plunge'], to: Math.min(c.plunge, mostDown) },
            ],
          },
        ],
      }));
  },
};
