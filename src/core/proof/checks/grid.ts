import type { Rule } from './rule';

/** A board so large that it is planned on coarser cells than its bits ask for. */
export const grid: Rule = {
  id: 'grid',
  before({ view, cell, wanted }) {
    if (cell <= wanted * 1.001) return [];
    return [
      { rule: 'grid', severity: 'note', subject: { setup: view.setup.id }, place: null, figures: { cell, wanted } },
    ];
  },
};
