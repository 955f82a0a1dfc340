import type { Pass, PassKindName } from '@/core/doc/pass';
import { cutoutCard } from './cutout-fields';
import { finishCard, letterCard } from './finish-fields';
import { hangCard } from './hang-fields';
import { holeCard } from './hole-fields';
import type { KindCard } from './kind-card';
import { partCard } from './part-fields';
import { pocketCard } from './pocket-fields';
import { flatCard, roughCard } from './rough-fields';
import { skimCard } from './skim-fields';
import { turnCard } from './turn-fields';

/** The cards of all kinds of passes. */
const CARDS: { [K in PassKindName]: KindCard<K> } = {
  skim: skimCard,
  rough: roughCard,
  flat: flatCard,
  finish: finishCard,
  letter: letterCard,
  pocket: pocketCard,
  hang: hangCard,
  hole: holeCard,
  cutout: cutoutCard,
  turn: turnCard,
  part: partCard,
};

/** The card of a kind of pass. */
export function cardOf(p: Pick<Pass, 'kind'>): KindCard {
  return CARDS[p.kind] as unknown as KindCard;
}
