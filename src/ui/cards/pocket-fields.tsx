'use client';
import type { PocketPass } from '@/core/passes/pocket/schema';
import { insetAt } from '@/core/passes/pocket/shape';
import { sayLength } from '@/core/units/say';
import { Folded, LengthField } from '../controls/fields';
import { DepthField, DownAndOver, MillingChoice, Ramp } from './down-and-over';
import type { Edited, KindCard, Told } from './kind-card';
import { OutlineFields } from './outline-fields';
import { Took } from './took';

/** What a pocket leaves: its depth, its width against its outline, and its foot. */
function PocketSentence({ pass, cutter, done }: Told<PocketPass>) {
  const foot =
    cutter.shape === 'endmill' ? 0 : Math.min(insetAt(cutter, pass.depth), cutter.cornerRadius || cutter.diameter / 2);
  return (
    <>
      A level floor <b>{sayLength(pass.depth)}</b> deep, its wall{' '}
      {pass.allowance === 0 ? (
        'exactly on the outline'
      ) : (
        <>
          <b>{sayLength(Math.abs(pass.allowance), 3)}</b> {pass.allowance > 0 ? 'outside' : 'inside'} of the outline
        </>
      )}
      {foot > 0 && <> at the board's top, with the bit's own radius at its foot</>}
      <Took done={done} />.
    </>
  );
}

/** The numbers of a pocket. */
function PocketFields(props: Edited<PocketPass>) {
  const { job, pass, cutter, set } = props;
  return (
    <>
      <OutlineFields job={job} outline={pass.outline} larger={false} set={(f) => set((p) => f(p.outline))} />
      <DepthField depth={pass.depth} set={(v) => set((p) => (p.depth = v))} note="of its floor, from the board's top" />
      <LengthField
        label="Larger by"
        value={pass.allowance}
        min={-20}
        max={50}
        onChange={(v) => set((p) => (p.allowance = v))}
        note="all around: room for an inlay, or over an open edge; smaller with a number below 0"
      />
      <DownAndOver pass={pass} cutter={cutter} set={set} />
      <Folded title="Finishing lap, ramp and milling">
        <LengthField
          label="Left at the wall"
          value={pass.last}
          min={0}
          max={5}
          onChange={(v) => set((p) => (p.last = v))}
          note="for one light lap at full depth"
        />
        <Ramp {...{ pass, cutter, set }} down={pass.stepdown} note="into solid wood" />
        <MillingChoice {...{ pass, set }} either="as it comes" />
      </Folded>
    </>
  );
}

export const pocketCard: KindCard<'pocket'> = { label: 'Pocket', Sentence: PocketSentence, Fields: PocketFields };
