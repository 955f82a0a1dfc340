import { test } from 'vitest';
import type { SetupView } from '../setup/view';
import { bit, expectClean, raised } from './variants-test-kit';

test.each<[string, (j: SetupView) => void]>([
  [
    'raised under a skin',
    (j) => {
      raised(j);
      j.seat.skin = 1;
    },
  ],
  [
    'over the whole face',
    (j) => {
      raised(j);
      for (const p of j.passes) if ('area' in p) p.area = { kind: 'face' };
    },
  ],
  [
    'sunk, roughed in rows',
    (j) => {
      const p = j.passes[0];
      if (p.kind === 'rough') p.strategy = 'raster';
    },
  ],
  [
    'finished across',
    (j) => {
      j.passes[1].kind === 'finish' && (j.passes[1].angle = 90);
    },
  ],
  [
    'roughed with a ball',
    (j) => {
      raised(j);
      bit(j, 0, 'ball6', 2.5);
    },
  ],
  [
    'with one ball for both',
    (j) => {
      raised(j);
      bit(j, 0, 'ball3', 1.27);
    },
  ],
])('%s: nothing to warn of', (_, edit) => expectClean(edit));
