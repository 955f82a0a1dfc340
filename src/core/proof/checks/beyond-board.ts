import { smaller } from '../../arrange/fit';
import { aboutRun, type Rule } from './rule';
import { endOf } from './run-places';

/** A bit that runs further beyond the board's edge than it needs to clear it. */
export const beyondBoard: Rule = {
  id: 'beyond-board',
  run(at) {
    const { run, view } = at;
    const { board } = view;
    let far = -1;
    let beyond = 0;
    for (let i = 0; i < run.bites.length; i++) {
      const p = endOf(run, i);
      const aside = board.drum ? 0 : Math.max(-p.y, p.y - board.y);
      const d = Math.max(-p.x, p.x - board.x, aside);
      if (d > beyond) {
        beyond = d;
        far = i;
      }
    }
    if (beyond <= run.cutter.diameter / 2 + 2) return [];
    return [
      {
        rule: 'beyond-board',
        severity: 'warning',
        subject: aboutRun(at, far),
        place: endOf(run, far),
        figures: { beyond },
        fixes: smaller(view, 2 * beyond),
      },
    ];
  },
};
