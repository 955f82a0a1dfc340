import { inSetup } from '../../doc/edits';
import { heldUnder } from '../../setup/holding';
import type { Rule } from './rule';

/** A piece that comes loose in its last lap. */
export const noTabs: Rule = {
  id: 'no-tabs',
  cut({ view, cutouts }) {
    if (heldUnder(view.setup.holding)) return [];
    return cutouts
      .filter((c) => c.tabs.length === 0)
      .map((c) => ({
        rule: 'no-tabs',
        severity: 'warning' as const,
        subject: { setup: view.setup.id, pass: c.pass },
        place: null,
        fixes: [
          {
            id: 'set-tabs',
            figures: { count: 4 },
            edits: [
              { set: inSetup(view, 'passes', { id: c.pass }, 'tabs', 'at'), to: null },
              { set: inSetup(view, 'passes', { id: c.pass }, 'tabs', 'count'), to: 4 },
            ],
          },
        ],
      }));
  },
};
