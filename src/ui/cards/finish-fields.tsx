'use client';
import { ridgeOf, stepOn, stepoverBase, stepoverFor } from '@/core/cutter/cutter';
import { withGrain } from '@/core/doc/grain';
import type { FinishPass } from '@/core/passes/finish/schema';
import type { LetterPass } from '@/core/passes/letter/schema';
import { trimNumber } from '@/core/units/length';
import { clean } from '@/core/units/round';
import { sayLength } from '@/core/units/say';
import { Choice, LengthField } from '../controls/fields';
import { AreaFields } from './area-fields';
import { Direction, MillingChoice, Stepdown } from './down-and-over';
import type { Edited, KindCard, Told } from './kind-card';
import { Took } from './took';

/** The slope that steps of a flat end are told for, degrees. */
const SLOPE = 30;

/** What is to be known of each way to finish (trade handbook, direction; common practice, no source). */
const LINES_NOTE: Record<FinishPass['lines'], string> = {
  fit: 'a smaller bit follows what a larger one left',
  rows: 'even marks that are easy to sand',
  spiral: 'one way all round, without a place where rows begin',
};

const FLAT = [
  ['fit', 'creases, else rows'],
  ['rows', 'rows always'],
] as const;
/** Round a drum what narrow ground is left is gone over in rows too. */
const ROUND = [
  ['rows', 'rows'],
  ['spiral', 'one spiral'],
] as const;

/** What a finishing pass leaves and takes. */
function FinishSentence({ pass, cutter, done }: Told<FinishPass>) {
  const ridge = ridgeOf(cutter, pass.stepover);
  return (
    <>
      {ridge > 0 ? (
        <>
          Leaves ridges of <b>{sayLength(ridge, 4)}</b> on a flat
        </>
      ) : (
        <>
          Leaves flats without ridges, and steps of <b>{sayLength(stepOn(SLOPE, pass.stepover), 3)}</b> on a slope of{' '}
          {SLOPE}°
        </>
      )}
      <Took done={done} />.
    </>
  );
}

/** How near a finishing path keeps to its surface, and which way its rows run. */
function FinishMore({ pass, set }: Edited<FinishPass>) {
  return (
    <>
      <LengthField
        label="Tolerance"
        value={pass.tolerance}
        min={0.001}
        max={0.2}
        onChange={(v) => set((p) => (p.tolerance = v))}
        note="the path lies this much above the surface at most, never below"
      />
      <MillingChoice {...{ pass, set }} either="rows to and fro" />
    </>
  );
}

/** The numbers of a finishing pass. */
function FinishFields(props: Edited<FinishPass>) {
  const { pass, cutter, set, job } = props;
  const ridge = ridgeOf(cutter, pass.stepover);
  const along = withGrain(pass.angle, job.board.grain);
  const lines = job.board.drum && pass.lines === 'fit' ? 'rows' : pass.lines;
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
      {ridge > 0 && (
        <LengthField
          label="Ridge height"
          value={Number(ridge.toFixed(5))}
          min={0}
          open
          max={ridgeOf(cutter, cutter.diameter)}
          onChange={(h) => set((p) => (p.stepover = clean(stepoverFor(cutter, h))))}
          note="sets the stepover"
        />
      )}
      <Choice
        label="Runs along"
        value={lines}
        options={job.board.drum ? ROUND : FLAT}
        onChange={(v) => set((p) => (p.lines = v))}
        note={LINES_NOTE[lines]}
      />
      {job.board.drum ? (
        lines !== 'spiral' && (
          <Choice
            label="Rows run"
            value={pass.angle % 180 === 0 ? 'along' : 'around'}
            options={[
              ['along', 'along the drum'],
              ['around', 'around it'],
            ]}
            onChange={(v) => set((p) => (p.angle = v === 'along' ? 0 : 90))}
          />
        )
      ) : (
        <Direction
          pass={pass}
          set={(v) => set((p) => (p.angle = v))}
          note={along === null ? undefined : along ? 'with the grain' : 'across or against the grain'}
        />
      )}
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
