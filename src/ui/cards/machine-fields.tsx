'use client';
import { ask } from '@/contract/ask';
import { SHOP } from '@/contract/shop';
import { applyEdits, inSetup } from '@/core/doc/edits';
import type { Machine } from '@/core/doc/machine';
import type { SetupView } from '@/core/setup/view';
import type { CardProps } from '@/ui/cards/card-props';
import { Choice, LengthField, TextField, Tick } from '../controls/fields';
import { MachineLimits, MachineMotion } from './machine-limits';

/** One file needs a machine that changes bits by itself. */
function setMachine(job: SetupView, machine: Machine): void {
  job.machine = machine;
  job.output.oneFile = job.output.oneFile && machine.toolChanger;
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
      <button type="button" className="btn btn-sm mt-1 w-full" onClick={() => void ask(SHOP.saveMachine, {}, machine)}>
        Keep in the shop for other jobs
      </button>
    </>
  );
}
