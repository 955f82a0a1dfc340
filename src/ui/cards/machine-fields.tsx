'use client';
import { applyEdits, inSetup } from '@/core/doc/edits';
import { type Machine, ROTARY, STIFFNESSES } from '@/core/doc/machine';
import type { SetupView } from '@/core/setup/view';
import { trimNumber } from '@/core/units/length';
import type { CardProps } from '@/ui/cards/card-props';
import { api } from '../api';
import { Choice, FeedField, LengthField, NumberField, TextField, Tick } from '../controls/fields';

const STIFF: Record<(typeof STIFFNESSES)[number], string> = {
  weak: 'weak, a desktop machine',
  usual: 'usual',
  heavy: 'heavy',
};
const TURNS: Record<(typeof ROTARY)[number], string> = {
  none: 'none',
  'along-x': 'one along x',
  'along-y': 'one along y',
};

/** One file needs a machine that changes bits by itself. */
function setMachine(job: SetupView, machine: Machine): void {
  job.machine = machine;
  job.output.oneFile = job.output.oneFile && machine.toolChanger;
}

/** Numbers from a line of text such as "3.175, 6, 6.35". */
function numbersIn(text: string): number[] {
  return text
    .split(/[\s;,]+/)
    .map(Number)
    .filter((v) => Number.isFinite(v) && v > 0)
    .slice(0, 20);
}

/** What the machine can hold, and where it stops. */
function MachineLimits({ job, change }: CardProps) {
  const { machine } = job;
  const set = (edit: (m: Machine) => void) => change((j) => edit(j.machine));
  const { lines, bytes } = machine.programLimit;
  return (
    <>
      <TextField
        label="Collets, mm"
        value={machine.collets.map((c) => trimNumber(c, 3)).join(', ')}
        max={200}
        onChange={(v) => set((m) => (m.collets = numbersIn(v)))}
      />
      <Choice
        label="Stiffness"
        value={machine.stiffness}
        options={STIFFNESSES.map((s) => [s, STIFF[s]] as const)}
        onChange={(v) => set((m) => (m.stiffness = v))}
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
function MachineMotion({ job, change }: CardProps) {
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

/** The machine: its table and travel, how it moves, what it holds. */
export function MachineFields(props: CardProps) {
  const { job, change, library } = props;
  const { machine, setup } = job;
  const set = (edit: (m: Machine) => void) => change((j) => edit(j.machine));
  const all = library?.machines ?? [];
  const lay = (axis: 'x' | 'y', to: number) =>
    change((j) => applyEdits(j.document, [{ set: inSetup(j, 'place', axis), to }]));
  return (
    <>
      <Choice
        label="Machine"
        value={machine.id}
        options={(all.some((m) => m.id === machine.id) ? all : [...all, machine]).map((m) => [m.id, m.name] as const)}
        onChange={(id) => {
          const m = all.find((x) => x.id === id);
          if (m) change((j) => setMachine(j, m));
        }}
      />
      <TextField label="Name" value={machine.name} max={80} required onChange={(v) => set((m) => (m.name = v))} />
      <LengthField
        label="Board at x"
        value={setup.place.x}
        onChange={(v) => lay('x', v)}
        note="its near left corner on the table"
      />
      <LengthField label="Board at y" value={setup.place.y} onChange={(v) => lay('y', v)} />
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
      <MachineMotion {...props} />
      <MachineLimits {...props} />
      <Tick
        label="Changes bits by itself"
        value={machine.toolChanger}
        onChange={(v) => change((j) => setMachine(j, { ...j.machine, toolChanger: v }))}
      />
      <button type="button" className="btn btn-sm mt-1 w-full" onClick={() => void api.saveMachine(machine)}>
        Keep in the shop for other jobs
      </button>
    </>
  );
}
