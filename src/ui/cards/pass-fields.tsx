'use client';
import { type Cutter, scallop, stepoverBase, tipRadius } from '@/core/cutter/cutter';
import type { FinishPass } from '@/core/passes/finish/schema';
import type { FlatPass } from '@/core/passes/flat/schema';
import type { LetterPass } from '@/core/passes/letter/schema';
import type { RoughPass } from '@/core/passes/rough/schema';
import { formatDuration, formatLength, trimNumber } from '@/core/units/length';
import { Choice, LengthField, NumberField } from '../controls/fields';
import { AreaFields } from './area-fields';
import type { Edited, KindCard, Told } from './kind-card';

/** What a roughing pass does and takes. */
function RoughSentence({ pass, done }: Told<RoughPass>) {
  const seconds = done?.seconds;
  return (
    <>
      Clears in levels of at most <b>{formatLength(pass.stepdown)}</b> and leaves{' '}
      <b>{formatLength(pass.stockToLeave)}</b> on all sides
      {seconds !== undefined && (
        <>
          , in <b>{formatDuration(seconds)}</b>
        </>
      )}
      .
    </>
  );
}

/** What a finishing pass leaves and takes. */
function FinishSentence({ pass, cutter, done }: Told<FinishPass>) {
  const seconds = done?.seconds;
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
      {seconds !== undefined && (
        <>
          , in <b>{formatDuration(seconds)}</b>
        </>
      )}
      .
    </>
  );
}

/** What clearing the level fields does and saves. */
function FlatSentence({ done, summary, otherwise }: Told<FlatPass>) {
  const seconds = done?.seconds;
  const saves = summary && otherwise !== null ? otherwise - summary.seconds : null;
  return (
    <>
      Clears level fields at exactly their height
      {seconds !== undefined && (
        <>
          , in <b>{formatDuration(seconds)}</b>
        </>
      )}
      .
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

/** The most that a pass takes at once, and whether its bit bears that. */
export function Stepdown({
  pass,
  cutter,
  set,
  note,
}: {
  pass: { stepdown: number };
  cutter: Cutter;
  set(v: number): void;
  note?: string;
}) {
  return (
    <LengthField
      label="Stepdown"
      value={pass.stepdown}
      min={0.02}
      max={100}
      onChange={set}
      note={
        pass.stepdown > cutter.maxStepdown ? (
          <span className="text-accent">over this bit's {formatLength(cutter.maxStepdown)}</span>
        ) : (
          note
        )
      }
    />
  );
}

/** The slope that a pass sinks at. */
export function Ramp({ pass, set, note }: { pass: { rampAngle: number }; set(v: number): void; note?: string }) {
  return (
    <NumberField
      label="Ramp"
      value={pass.rampAngle}
      min={0}
      open
      max={45}
      suffix="degrees"
      onChange={set}
      note={note}
    />
  );
}

/** Stepdown and stepover of a pass that clears. */
export function DownAndOver({
  pass,
  cutter,
  set,
}: {
  pass: { stepdown: number; stepover: number };
  cutter: Cutter;
  set(f: (p: { stepdown: number; stepover: number }) => void): void;
}) {
  return (
    <>
      <Stepdown pass={pass} cutter={cutter} set={(v) => set((p) => (p.stepdown = v))} />
      <LengthField
        label="Stepover"
        value={pass.stepover}
        min={0}
        open
        max={cutter.diameter / 2}
        onChange={(v) => set((p) => (p.stepover = v))}
        note={`${trimNumber((100 * pass.stepover) / stepoverBase(cutter), 1)} % of the diameter`}
      />
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
      {pass.strategy === 'raster' && (
        <NumberField
          label="Direction"
          value={pass.angle}
          min={-360}
          max={360}
          suffix="degrees"
          onChange={(v) => set((p) => (p.angle = v))}
        />
      )}
      <AreaFields {...props} />
    </>
  );
}

/** How a pass sinks into solid wood. */
function RampMore({ pass, set }: Edited<RoughPass> | Edited<FlatPass>) {
  return <Ramp pass={pass} set={(v) => set((p) => (p.rampAngle = v))} note="into solid wood, never straight down" />;
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
  const { grain } = job.board;
  const along = grain === 'none' ? null : Math.abs(((pass.angle % 180) + 180) % 180) === (grain === 'along-x' ? 0 : 90);
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
          onChange={(h) =>
            set((p) => (p.stepover = Number((2 * Math.sqrt(Math.max(0, 2 * R * h - h * h))).toFixed(4))))
          }
          note="sets the stepover"
        />
      )}
      <NumberField
        label="Direction"
        value={pass.angle}
        min={-360}
        max={360}
        suffix="degrees"
        onChange={(v) => set((p) => (p.angle = v))}
        note={along === null ? undefined : along ? 'with the grain' : 'across or against the grain'}
      />
      <AreaFields {...props} />
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

/** What a pass over letters does and takes. */
function LetterSentence({ cutter, done }: Told<LetterPass>) {
  const seconds = done?.seconds;
  return (
    <>
      Cuts the V grooves of <b>{trimNumber(cutter.includedAngle, 1)}°</b> along their middles, up into every point
      {seconds !== undefined && (
        <>
          , in <b>{formatDuration(seconds)}</b>
        </>
      )}
      .
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

export const roughCard: KindCard<'rough'> = {
  label: 'Roughing',
  Sentence: RoughSentence,
  Fields: RoughFields,
  More: RampMore,
};
export const flatCard: KindCard<'flat'> = {
  label: 'Flats',
  Sentence: FlatSentence,
  Fields: FlatFields,
  More: RampMore,
};
export const finishCard: KindCard<'finish'> = {
  label: 'Finishing',
  Sentence: FinishSentence,
  Fields: FinishFields,
  More: FinishMore,
};
export const letterCard: KindCard<'letter'> = { label: 'Letters', Sentence: LetterSentence, Fields: LetterFields };
