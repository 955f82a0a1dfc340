'use client';
import { HOBBY_MACHINE } from '@/core/doc/defaults';
import { freshId } from '@/core/doc/library';
import type { Machine } from '@/core/doc/machine';
import { sayLength, saySize } from '@/core/units/say';
import { MachineLimits, MachineMotion, MachineSize } from '../cards/machine-limits';
import { Tick } from '../controls/fields';
import { MachineDrawing } from './machine-drawing';
import type { Place } from './place';
import { PlacePage } from './place-page';

const named = (m: Machine, all: Machine[], name: string): Machine => ({
  ...structuredClone(m),
  id: freshId(all, name),
  name,
});

const MACHINES: Place<'machines'> = {
  shelf: 'machines',
  title: 'Machines',
  one: 'machine',
  many: 'machines',
  firstFor: 'new boards',
  sorted: (all) => all.sort((a, b) => a.name.localeCompare(b.name)),
  mark: () => null,
  heading: (m) => m.name,
  line: (m) =>
    `${saySize([m.x, m.y])}, Z ${sayLength(m.zTravel)}, ${m.toolChanger ? 'changes bits by itself' : 'bits by hand'}${m.rotary ? ', rotary axis' : ''}`,
  fresh: (all) => named(HOBBY_MACHINE, all, 'new machine'),
  copy: (m, all) => named(m, all, `${m.name} copy`.slice(0, 80)),
  card: (m, set) => (
    <div className="grid gap-x-6 lg:grid-cols-2">
      <div>
        <MachineDrawing machine={m} />
        <MachineSize machine={m} set={set} />
        <Tick label="Changes bits by itself" value={m.toolChanger} onChange={(v) => set((t) => (t.toolChanger = v))} />
        <MachineLimits machine={m} set={set} />
      </div>
      <div>
        <MachineMotion machine={m} set={set} />
      </div>
    </div>
  ),
};

/** The shop's machines. */
export const MachinesPlace = () => <PlacePage place={MACHINES} />;
