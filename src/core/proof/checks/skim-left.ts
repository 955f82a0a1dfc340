import { cellPlace } from '../../field/height-field';
import type { Rule } from './rule';

/** What is left standing of an uneven board after its skim. */
export const skimLeft: Rule = {
  id: 'skim-left',
  cut({ view, cut }) {
    const skim = view.passes.find((p) => p.kind === 'skim');
    if (!skim) return [];
    let most = 0;
    let at = 0;
    cut.data.forEach((v, k) => {
      if (v > most) [most, at] = [v, k];
    });
    if (most < 0.001) return [];
    return [
      {
        rule: 'skim-left',
        severity: 'error',
        subject: { setup: view.setup.id, pass: skim.id },
        place: cellPlace(cut, at),
        figures: { height: most },
      },
    ];
  },
};
