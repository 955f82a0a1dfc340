import { cellPlace } from '../../field/height-field';
import { kindOf } from '../../passes/registry';
import type { Rule } from './rule';

/** What is left standing of an uneven board after its skim, or of a blank after it has been turned round, between what holds it. */
export const skimLeft: Rule = {
  id: 'skim-left',
  cut({ view, cut }) {
    const skim = view.passes.find((p) => kindOf(p).tops);
    if (!skim) return [];
    const { chuck, tailStock } = view.board.drum ?? { chuck: 0, tailStock: 0 };
    const held = ({ x }: { x: number }) =>
      (chuck > 0 && x < chuck + cut.cell) || (tailStock > 0 && x > view.board.x - tailStock - cut.cell);
    let most = 0;
    let at = 0;
    cut.data.forEach((v, k) => {
      if (v > most && !held(cellPlace(cut, k))) [most, at] = [v, k];
    });
    if (most < 0.001) return [];
    return [
      {
        rule: 'skim-left',
        severity: 'error',
        subject: { setup: view.setup.id, pass: skim.id },
        place: cellPlace(cut, at),
        figures: { height: most, round: view.board.drum !== null },
      },
    ];
  },
};
