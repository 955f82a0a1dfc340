'use client';
import { DIALECTS, type Machine, STIFFNESSES } from '@/core/doc/machine';
import { DIALECT_OF } from '@/core/program/dialects/registry';
import { trimNumber } from '@/core/units/length';
import { numbersIn } from '@/core/units/number';
import { Choice, FeedField, LengthField, NumberField, TextField, Tick } from '../controls/fields';
import { RotaryFields } from './rotary-fields';

/** A machine's figures, and how they are changed. */
export interface MachineProps {
  machine: Machine;
  set(edit: (m: Machine) => void): void;
}

/** Most collets of a machine. */
const MOST_COLLETS = 20;

/** What the machine can hold, and where it stops. */
export function MachineLimits({ machine, set }: MachineProps) {
  const { lines, bytes } = machine.programLimit;
  return (
    <>
      <TextField
        label="Collets, mm"
        value={machine.collets.map((c) => trimNumber(c, 3)).join(', ')}
        max={200}
        onChange={(v) => set((m) => (m.collets = numbersIn(v, MOST_COLLETS)))}
      />
      <Choice
        label="Programs written with"
        value={machine.dialect}
        options={DIALECTS.map((d) => [d, DIALECT_OF[d].name] as const)}
        onChange={(v) => set((m) => (m.dialect = v))}
        note={DIALECT_OF[machine.dialect].traits}
      />
      <Choice
        label="Stiffness"
        value={machine.stiffness}
        options={STIFFNESSES.map((s) => [s, s] as const)}
        onChange={(v) => set((m) => (m.stiffness = v))}
        note={machine.stiffness === 'weak' ? 'as desktop machines are' : undefined}
      />
      <RotaryFields machine={machine} set={set} />
      <Tick
        label="Parks for a bit change"
        value={machine.parking !== null}
        onChange={(v) => set((m) => (m.parking = v ? { x: 0, y: 0, z: m.zTravel } : null))}
      />
      {machine.parking &&
        (['x', 'y', 'z'] as const).map((a) => (
          <LengthField
            key={a}
            label={`Parking place, ${a}`}
            value={machine.parking?.[a] ?? 0}
            onChange={(v) => set((m) => m.parking && (m.parking[a] = v))}
          />
        ))}
      <NumberField
        whole
        label="Program lines, at most"
        value={lines ?? 0}
        min={0}
        suffix="lines"
        onChange={(v) => set((m) => (m.programLimit.lines = v === 0 ? null : v))}
        note="0 is no limit"
      />
      <NumberField
        whole
        label="Program size, at most"
        value={bytes ?? 0}
        min={0}
        suffix="bytes"
        onChange={(v) => set((m) => (m.programLimit.bytes = v === 0 ? null : v))}
        note="0 is no limit"
      />
    </>
  );
}

/** How large it is. */
export function MachineSize({ machine, set }: MachineProps) {
  return (
    <>
      <TextField label="Name" value={machine.name} max={80} required onChange={(v) => set((m) => (m.name = v))} />
      <LengthField label="Table, x" value={machine.x} min={0} open onChange={(v) => set((m) => (m.x = v))} />
      <LengthField label="Table, y" value={machine.y} min={0} open onChange={(v) => set((m) => (m.y = v))} />
      <LengthField
        label="Z travel"
        value={machine.zTravel}
        min={0}
        open
        onChange={(v) => set((m) => (m.zTravel = v))}
      />
      <LengthField
        label="Bed to nose"
        value={machine.bedToNose}
        min={0}
        open
        onChange={(v) => set((m) => (m.bedToNose = v))}
        note="from the bed to the spindle's nose, Z at the top of its travel"
      />
    </>
  );
}

/** How fast the machine moves and turns. */
export function MachineMotion({ machine, set }: MachineProps) {
  return (
    <>
      <NumberField
        label="Slowest spindle speed"
        value={machine.minRpm}
        min={0}
        suffix="rpm"
        onChange={(v) => set((m) => (m.minRpm = v))}
      />
      <NumberField
        label="Fastest spindle speed"
        value={machine.maxRpm}
        min={0}
        open
        suffix="rpm"
        onChange={(v) => set((m) => (m.maxRpm = v))}
      />
      {(['x', 'y', 'z'] as const).map((a) => (
        <FeedField
          key={a}
          label={`Top feed, ${a}`}
          value={machine.maxFeed[a]}
          onChange={(v) => set((m) => (m.maxFeed[a] = v))}
        />
      ))}
      {(['x', 'y', 'z'] as const).map((a) => (
        <NumberField
          key={a}
          label={`Acceleration, ${a}`}
          value={machine.acceleration[a]}
          min={0}
          open
          suffix="mm/s²"
          onChange={(v) => set((m) => (m.acceleration[a] = v))}
        />
      ))}
      <NumberField
        label="Cornering tolerance"
        value={machine.junctionDeviation}
        min={0}
        open
        max={1}
        suffix="mm"
        onChange={(v) => set((m) => (m.junctionDeviation = v))}
        note="junction deviation"
      />
    </>
  );
}
