'use client';
import type { FlatPass } from '@/core/passes/flat/schema';
import type { RoughPass } from '@/core/passes/rough/schema';
import { formatDuration } from '@/core/units/length';
import { sayLength } from '@/core/units/say';
import { Choice, LengthField } from '../controls/fields';
import { AreaFields } from './area-fields';
import { Direction, DownAndOver, MillingChoice, Ramp } from './down-and-over';
import type { Edited, KindCard, Told } from './kind-card';
import { Took } from './took';

/** What a roughing pass does and takes. */
function RoughSentence({ pass, done }: Told<RoughPass>) {
  return (
    <>
      Clears in levels of at most <b>{sayLength(pass.stepdown)}</b> and leaves <b>{sayLength(pass.stockToLeave)}</b> on
      all sides
      <Took done={done} />.
    </>
  );
}

/** The numbers of a roughing pass. */
function RoughFields(props: Edited<RoughPass>) {
  const { pass, cutter, set } = props;
  return (
    <>
      <Choice
        label="Clears by"
        value={pass.strategy}
        options={[
          ['rings', 'rings, walls first'],
          ['raster', 'rows and one wall lap'],
        ]}
        onChange={(v) => set((p) => (p.strategy = v))}
      />
      <DownAndOver pass={pass} cutter={cutter} set={set} />
      <LengthField
        label="Stock to leave"
        value={pass.stockToLeave}
        min={0}
        max={20}
        onChange={(v) => set((p) => (p.stockToLeave = v))}
      />
      {pass.strategy === 'raster' && <Direction pass={pass} set={(v) => set((p) => (p.angle = v))} />}
      <AreaFields {...props} />
    </>
  );
}

/** How a pass sinks into solid wood, and which way it mills. */
function ClearingMore({ pass, cutter, set }: Edited<RoughPass> | Edited<FlatPass>) {
  return (
    <>
      <Ramp {...{ pass, cutter, set }} down={pass.stepdown} note="into solid wood" />
      <MillingChoice {...{ pass, set }} either="as it comes" />
    </>
  );
}

/** What clearing the level fields does and saves. */
function FlatSentence({ done, summary, otherwise }: Told<FlatPass>) {
  const saves = summary && otherwise !== null ? otherwise - summary.seconds : null;
  return (
    <>
      Clears level fields at exactly their height
      <Took done={done} />.
      {saves !== null && (
        <>
          {' '}
          {saves > 0 ? (
            <>
              That saves <b>{formatDuration(saves)}</b> against the ball alone.
            </>
          ) : (
            'Here it saves no time, but the fields come out without ridges.'
          )}
        </>
      )}
    </>
  );
}

/** The numbers of a pass over level fields. */
function FlatFields(props: Edited<FlatPass>) {
  const { pass, cutter, set } = props;
  return (
    <>
      <DownAndOver pass={pass} cutter={cutter} set={set} />
      <LengthField
        label="Overlap"
        value={pass.overlap}
        min={0}
        max={50}
        onChange={(v) => set((p) => (p.overlap = v))}
        note="the ball goes this much over a field's edge"
      />
      <AreaFields {...props} />
    </>
  );
}

export const roughCard: KindCard<'rough'> = {
  label: 'Roughing',
  Sentence: RoughSentence,
  Fields: RoughFields,
  More: ClearingMore,
};
export const flatCard: KindCard<'flat'> = {
  label: 'Flats',
  Sentence: FlatSentence,
  Fields: FlatFields,
  More: ClearingMore,
};
