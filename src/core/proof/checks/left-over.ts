import type { Rule } from './rule';

/** Wood that no bit of the job took away. */
export const leftOver: Rule = {
  id: 'left-over',
  cut({ view, deviation }) {
    if (deviation.leftShare <= 0.05) return [];
    return [
      {
        rule: 'left-over',
        severity: 'note',
        subject: { setup: view.setup.id },
        place: null,
        figures: { share: deviation.leftShare * 100, height: deviation.notable },
      },
    ];
  },
};
