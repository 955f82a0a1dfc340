'use client';
import { scallop, stepoverBase, stepoverFor, tipRadius } from '@/core/cutter/cutter';
import { withGrain } from '@/core/doc/grain';
import type { FinishPass } from '@/core/passes/finish/schema';
import type { LetterPass } from '@/core/passes/letter/schema';
import { formatLength, trimNumber } from '@/core/units/length';
import { clean } from '@/core/units/round';
import { LengthField } from '../controls/fields';
import { AreaFields } from './area-fields';
import { Direction, Stepdown } from './down-and-over';
import type { Edited, KindCard, Told } from './kind-card';
import { Took } from './took';

/** What a finishing pass leaves and takes. */
function FinishSentence({ pass, cutter, done }: Told<FinishPass>) {
  const R = tipRadius(cutter);
  return (
    <>
      {R > 0 ? (
        <>
          Leaves ridges of <b>{formatLength(scallop(R, pass.stepover), 'mm', 4)}</b> on a flat
        </>
      ) : (
        <>A bit without a round tip leaves steps on slopes</>
      )}
      <Took done={done} />.
    </>
  );
}

/** How near a finishing path keeps to its surface. */
function FinishMore({ pass, set }: Edited<FinishPass>) {
  return (
    <LengthField
      label="Tolerance"
      value={pass.tolerance}
      min={0.001}
      max={0.2}
      onChange={(v) => set((p) => (p.tolerance = v))}
      note="the path lies this much above the surface at most, never below"
    />
  );
}

/** The numbers of a finishing pass. */
function FinishFields(props: Edited<FinishPass>) {
  const { pass, cutter, set, job } = props;
  const R = tipRadius(cutter);
  const along = withGrain(pass.angle, job.board.grain);
  return (
    <>
      <LengthField
        label="Stepover"
        value={pass.stepover}
        min={0}
        open
        max={cutter.diameter}
        onChange={(v) => set((p) => (p.stepover = v))}
        note={`${trimNumber((100 * pass.stepover) / stepoverBase(cutter), 1)} % of the ${cutter.shape === 'tapered-ball' ? 'tip' : 'diameter'}`}
      />
      {R > 0 && (
        <LengthField
          label="Ridge height"
          value={Number(scallop(R, pass.stepover).toFixed(5))}
          min={0}
          open
          max={R}
          onChange={(h) => set((p) => (p.stepover = clean(stepoverFor(R, h))))}
          note="sets the stepover"
        />
      )}
      <Direction
        pass={pass}
        set={(v) => set((p) => (p.angle = v))}
        note={along === null ? undefined : along ? 'with the grain' : 'across or against the grain'}
      />
      <AreaFields {...props} />
    </>
  );
}

/** What a pass over letters does and takes. */
function LetterSentence({ cutter, done }: Told<LetterPass>) {
  return (
    <>
      Cuts the V grooves of <b>{trimNumber(cutter.includedAngle, 1)}°</b> along their middles, up into every point
      <Took done={done} />.
    </>
  );
}

/** The numbers of a pass over letters. */
function LetterFields({ pass, cutter, set }: Edited<LetterPass>) {
  return (
    <Stepdown
      pass={pass}
      cutter={cutter}
      set={(v) => set((p) => (p.stepdown = v))}
      note="deeper letters are cut in several goes"
    />
  );
}

export const finishCard: KindCard<'finish'> = {
  label: 'Finishing',
  Sentence: FinishSentence,
  Fields: FinishFields,
  More: FinishMore,
};
export const letterCard: KindCard<'letter'> = { label: 'Letters', Sentence: LetterSentence, Fields: LetterFields };
