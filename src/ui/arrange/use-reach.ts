import { useRef, useState } from 'react';
import type { Cutter } from '@/core/cutter/cutter';
import { type SetupView, setupView } from '@/core/setup/view';
import { arranged, arrangeInput } from './use-arrangement';

/** What a bit may leave before it counts as missed, mm. */
export const MISSED = 0.05;

/** What the finest finishing bit of a piece misses of it, as shares of its plan: before it was made of another size, and after. */
export interface Reach {
  bit: string;
  before: number;
  after: number;
}

/** The bit that goes over a piece last. */
function lastBit(job: SetupView): Cutter | null {
  const id = job.passes.findLast((p) => p.kind === 'finish')?.cutter;
  return job.cutters.find((c) => c.id === id) ?? null;
}

const missedOf = (job: SetupView, bit: Cutter) =>
  arranged('thorough', (a) => a.detail(arrangeInput(job), [bit], MISSED, '')).then(({ shares }) => shares[bit.id]);

/** Makes a change of size, and looks at what its last bit then still reaches. */
export function useReach(job: SetupView, change: (edit: (j: SetupView) => void) => void) {
  const [reach, setReach] = useState<Reach | 'looking' | null>(null);
  const turn = useRef(0);
  const resize = (edit: (j: SetupView) => void) => {
    const made = setupView(structuredClone(job.document), job.setup.id);
    edit(made);
    change(edit);
    const bit = lastBit(job);
    const mine = ++turn.current;
    if (!bit || job.layers.length === 0) return;
    setReach('looking');
    Promise.all([missedOf(job, bit), missedOf(made, bit)])
      .then(([before, after]) => ({ bit: bit.name, before, after }))
      // What could not be looked at is not said: the layers' own cards say why.
      .catch(() => null)
      .then((found) => mine === turn.current && setReach(found));
  };
  return { reach, resize };
}
