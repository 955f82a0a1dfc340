'use client';
import { ask } from '@/contract/ask';
import { SHOP } from '@/contract/shop';
import { applyEdits, inSetup } from '@/core/doc/edits';
import { putting } from '@/core/doc/library';
import type { Machine } from '@/core/doc/machine';
import { onMachine } from '@/core/plan/on-machine';
import type { SetupView } from '@/core/setup/view';
import type { CardProps } from '@/ui/cards/card-props';
import { Choice, LengthField, Tick } from '../controls/fields';
import { MachineLimits, MachineMotion, MachineSize } from './machine-limits';

/** One file needs a machine that changes bits by itself. */
function setMachine(job: SetupView, machine: Machine): void {
  job.machine = machine;
  job.output.oneFile = job.output.oneFile && machine.toolChanger;
}

/** The machine: its table and travel, how it moves, what it holds. */
export function MachineFields({ job, change, library }: CardProps) {
  const { machine, setup } = job;
  const set = (edit: (m: Machine) => void) => change((j) => edit(j.machine));
  const all = library?.machines ?? [];
  const { said, fit } = onMachine(job, machine);
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
      {said.length > 0 && (
        <div role="status" className="my-1 rounded-lg border border-accent px-3 py-2 text-sm leading-snug">
          What follows from this machine:
          <ul className="mt-1 list-disc pl-4">
            {said.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
          {fit.length > 0 && (
            <button
              type="button"
              className="btn btn-sm mt-2 w-full"
              onClick={() => change((j) => applyEdits(j.document, fit))}
            >
              Run the bits as it can
            </button>
          )}
        </div>
      )}
      <MachineSize machine={machine} set={set} />
      <LengthField
        label="Board at x"
        value={setup.place.x}
        onChange={(v) => lay('x', v)}
        note="its near left corner on the table"
      />
      <LengthField label="Board at y" value={setup.place.y} onChange={(v) => lay('y', v)} />
      <MachineMotion machine={machine} set={set} />
      <MachineLimits machine={machine} set={set} />
      <Tick
        label="Changes bits by itself"
        value={machine.toolChanger}
        onChange={(v) => change((j) => setMachine(j, { ...j.machine, toolChanger: v }))}
      />
      <button
        type="button"
        className="btn btn-sm mt-1 w-full"
        onClick={() => void ask(SHOP.changeLibrary, {}, putting('machines', machine))}
      >
        Keep in the shop for other jobs
      </button>
    </>
  );
}
