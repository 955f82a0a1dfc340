import { type Cutter, stepoverBase } from '@/core/cutter/cutter';
import type { Milling } from '@/core/doc/pass-parts';
import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';
import { Choice, LengthField, NumberField } from '../controls/fields';

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
          <span className="text-accent">over this bit's {sayLength(cutter.maxStepdown)}</span>
        ) : (
          note
        )
      }
    />
  );
}

/** On which side of a bit that turns clockwise the wood lies. */
const SIDES: Record<Milling, string> = {
  climb: 'the wood lies on the bit’s right',
  conventional: 'the wood lies on the bit’s left',
  either: 'on either side, the shortest way',
};

/** On which side of the bit the wood lies that a pass cuts. @param either what the shortest way is called */
export function MillingChoice({
  pass,
  set,
  either,
}: {
  pass: { milling: Milling };
  set(change: (p: { milling: Milling }) => void): void;
  either: string;
}) {
  return (
    <Choice
      label="Milling"
      value={pass.milling}
      options={[
        ['climb', 'climb'],
        ['conventional', 'conventional'],
        ['either', either],
      ]}
      onChange={(v) => set((p) => (p.milling = v))}
      note={SIDES[pass.milling]}
    />
  );
}

/** The slope that a pass sinks at, with its length for one level in diameters of the bit. */
export function Ramp({
  pass,
  cutter,
  down,
  set,
  note,
}: {
  pass: { rampAngle: number };
  cutter: Cutter;
  down: number;
  set(change: (p: { rampAngle: number }) => void): void;
  note?: string;
}) {
  const long = down / Math.tan((pass.rampAngle * Math.PI) / 180) / cutter.diameter;
  return (
    <NumberField
      label="Ramp"
      value={pass.rampAngle}
      min={0}
      open
      max={45}
      suffix="degrees"
      onChange={(v) => set((p) => (p.rampAngle = v))}
      note={`${trimNumber(long, 1)} diameters for one level${note ? `, ${note}` : ''}`}
    />
  );
}

/** The way that rows run, from the x axis. */
export function Direction({ pass, set, note }: { pass: { angle: number }; set(v: number): void; note?: string }) {
  return (
    <NumberField
      label="Direction"
      value={pass.angle}
      min={-360}
      max={360}
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

/** How far down something is cut, from the board's top. */
export function DepthField({ depth, note, set }: { depth: number; note?: string; set(depth: number): void }) {
  return (
    <LengthField
      label="Depth"
      value={depth}
      min={0}
      open
      max={500}
      onChange={set}
      note={note ?? "from the board's top"}
    />
  );
}
