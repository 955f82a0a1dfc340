'use client';
import { type Cutter, scallop, stepoverBase, tipRadius } from '@/core/cutter/cutter';
import type { Job } from '@/core/plan/job';
import type { FinishPass, FlatPass, LetterPass, Pass, RoughPass } from '@/core/plan/pass';
import type { FlatSaving } from '@/core/plan/paths';
import { formatDuration, formatLength, trimNumber } from '@/core/units/length';
import { Choice, LengthField, NumberField } from '../controls/fields';

/** What a roughing pass does and takes. */
export function RoughSentence({ pass, seconds }: { pass: RoughPass; seconds?: number }) {
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
export function FinishSentence({ pass, cutter, seconds }: { pass: FinishPass; cutter: Cutter; seconds?: number }) {
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
export function FlatSentence({ seconds, flats }: { seconds?: number; flats: FlatSaving | null }) {
  return (
    <>
      Clears level fields at exactly their height
      {seconds !== undefined && (
        <>
          , in <b>{formatDuration(seconds)}</b>
        </>
      )}
      .
      {flats && flats.offer === null && (
        <>
          {' '}
          {flats.saves > 0 ? (
            <>
              That saves <b>{formatDuration(flats.saves)}</b> against the ball alone.
            </>
          ) : (
            'Here it saves no time, but the fields come out without ridges.'
          )}
        </>
      )}
    </>
  );
}

export type Edit = (f: (p: Pass) => void) => void;

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
export function RoughFields({ pass, cutter, edit }: { pass: RoughPass; cutter: Cutter; edit: Edit }) {
  const set = (f: (p: RoughPass) => void) => edit((p) => p.kind === 'rough' && f(p));
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
    </>
  );
}

/** The numbers of a finishing pass. */
export function FinishFields({ pass, cutter, edit, job }: { pass: FinishPass; cutter: Cutter; edit: Edit; job: Job }) {
  const set = (f: (p: FinishPass) => void) => edit((p) => p.kind === 'finish' && f(p));
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
    </>
  );
}

/** The numbers of a pass over level fields. */
export function FlatFields({ pass, cutter, edit }: { pass: FlatPass; cutter: Cutter; edit: Edit }) {
  const set = (f: (p: FlatPass) => void) => edit((p) => p.kind === 'flat' && f(p));
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
    </>
  );
}

/** What a pass over letters does and takes. */
export function LetterSentence({ cutter, seconds }: { cutter: Cutter; seconds?: number }) {
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
export function LetterFields({ pass, cutter, edit }: { pass: LetterPass; cutter: Cutter; edit: Edit }) {
  return (
    <Stepdown
      pass={pass}
      cutter={cutter}
      set={(v) => edit((p) => p.kind === 'letter' && (p.stepdown = v))}
      note="deeper letters are cut in several goes"
    />
  );
}
