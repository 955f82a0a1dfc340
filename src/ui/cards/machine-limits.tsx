'use client';
import { DIALECTS, type Machine, ROTARY, STIFFNESSES } from '@/core/doc/machine';
import { DIALECT_OF } from '@/core/program/dialects/registry';
import { trimNumber } from '@/core/units/length';
import { numbersIn } from '@/core/units/number';
import { Choice, FeedField, LengthField, NumberField, TextField, Tick } from '../controls/fields';
import type { CardProps } from './card-props';

const TURNS: Record<(typeof ROTARY)[number], string> = {
  none: 'none',
  'along-x': 'one along x',
  'along-y': 'one along y',
};

/** Most collets of a machine. */
const MOST_COLLETS = 20;

/** What the machine can hold, and where it stops. */
export function MachineLimits({ job, change }: CardProps) {
  const { machine } = job;
  const set = (edit: (m: Machine) => void) => change((j) => edit(j.machine));
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
      <Choice
        label="Rotary axis"
        value={machine.rotary}
        options={ROTARY.map((r) => [r, TURNS[r]] as const)}
        onChange={(v) => set((m) => (m.rotary = v))}
      />
      <Tick
        label="Parks to have its bit changed"
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
        label="Most lines"
        value={lines ?? 0}
        min={0}
        suffix="a program"
        onChange={(v) => set((m) => (m.programLimit.lines = v === 0 ? null : v))}
        note="0 is no limit"
      />
      <NumberField
        whole
        label="Most bytes"
        value={bytes ?? 0}
        min={0}
        suffix="a program"
        onChange={(v) => set((m) => (m.programLimit.bytes = v === 0 ? null : v))}
        note="0 is no limit"
      />
    </>
  );
}

/** How fast the machine moves and turns. */
export function MachineMotion({ job, change }: CardProps) {
  const { machine } = job;
  const set = (edit: (m: Machine) => void) => change((j) => edit(j.machine));
  return (
    <>
      <NumberField
        label="Slowest turn"
        value={machine.minRpm}
        min={0}
        suffix="rpm"
        onChange={(v) => set((m) => (m.minRpm = v))}
      />
      <NumberField
        label="Fastest turn"
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
          label={`Accelerates, ${a}`}
          value={machine.acceleration[a]}
          min={0}
          open
          suffix="mm/s²"
          onChange={(v) => set((m) => (m.acceleration[a] = v))}
        />
      ))}
      <NumberField
        label="Corner slack"
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
