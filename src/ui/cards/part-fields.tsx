'use client';
import { Plus, X } from 'lucide-react';
import type { PartPass } from '@/core/passes/part/schema';
import { clean } from '@/core/units/round';
import { sayLength } from '@/core/units/say';
import { LengthField } from '../controls/fields';
import { Stepdown } from './down-and-over';
import type { Edited, KindCard, Told } from './kind-card';
import { Took } from './took';

/** What is left in how many grooves. */
function PartSentence({ pass, done }: Told<PartPass>) {
  const n = pass.along.length;
  return (
    <>
      {n} {n === 1 ? 'groove' : 'grooves'}, <b>{sayLength(pass.width)}</b> wide, in which <b>{sayLength(pass.left)}</b>{' '}
      {n === 1 ? 'is' : 'are'} left to saw through
      <Took done={done} />; from the far end towards the chuck, after all other work. Saw with everything at rest.
    </>
  );
}

/** The numbers of a cut-off. */
function PartFields({ job, pass, cutter, set }: Edited<PartPass>) {
  return (
    <>
      <LengthField
        label="Left in the middle"
        value={pass.left}
        min={0}
        open
        max={500}
        onChange={(v) => set((p) => (p.left = v))}
        note="the diameter that carries the work until it is sawn off"
      />
      <LengthField
        label="Width"
        value={pass.width}
        min={0}
        open
        max={200}
        onChange={(v) => set((p) => (p.width = v))}
      />
      <Stepdown pass={pass} cutter={cutter} set={(v) => set((p) => (p.stepdown = v))} note="deeper in each turn" />
      <ul className="pt-1">
        {pass.along.map((x, n) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: grooves have no other name than their place in the list
          <li key={n} className="flex items-center gap-1">
            <div className="flex-1">
              <LengthField
                label={`Groove ${n + 1}, x`}
                value={x}
                min={0}
                max={job.board.x}
                onChange={(v) => set((p) => (p.along[n] = v))}
              />
            </div>
            <button
              type="button"
              className="btn btn-ghost btn-xs btn-square"
              aria-label={`Remove groove ${n + 1}`}
              disabled={pass.along.length <= 1}
              onClick={() => set((p) => p.along.splice(n, 1))}
            >
              <X size={14} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="btn btn-sm mt-1.5 w-full"
        disabled={pass.along.length >= 20}
        onClick={() => set((p) => p.along.push(clean(job.board.x / 2)))}
      >
        <Plus size={14} aria-hidden /> Add one
      </button>
    </>
  );
}

export const partCard: KindCard<'part'> = { label: 'Cut off', Sentence: PartSentence, Fields: PartFields };
