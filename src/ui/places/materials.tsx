'use client';
import { materialNamed } from '@/core/doc/defaults';
import { freshId } from '@/core/doc/library';
import type { Material } from '@/core/doc/material';
import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';
import { MaterialFigures } from '../cards/material-fields';
import { TextField } from '../controls/fields';
import type { Place } from './place';
import { PlacePage } from './place-page';

const named = (m: Material, all: Material[], name: string): Material => ({
  ...structuredClone(m),
  id: freshId(all, name),
  name,
});

const MATERIALS: Place<'materials'> = {
  shelf: 'materials',
  title: 'Materials',
  one: 'material',
  many: 'materials',
  sorted: (all) => all.sort((a, b) => a.name.localeCompare(b.name)),
  mark: () => null,
  heading: (m) => m.name,
  line: (m) =>
    `${trimNumber(100 * m.stepdown, 0)} % of the bit a lap, ${sayLength(m.stockToLeave)} left for finishing, ramps of ${trimNumber(m.rampAngle, 1)}°`,
  fresh: (all) => named(materialNamed('new material'), all, 'new material'),
  copy: (m, all) => named(m, all, `${m.name} copy`.slice(0, 60)),
  card: (m, set) => (
    <div className="max-w-md">
      <TextField label="Name" value={m.name} max={60} required onChange={(v) => set((t) => (t.name = v))} />
      <MaterialFigures material={m} set={set} />
      <TextField
        label="Caution"
        value={m.caution ?? ''}
        max={200}
        onChange={(v) => set((t) => (t.caution = v === '' ? null : v))}
      />
      <p className="soft py-1 text-[13px]">
        Starting points of common practice; what the maker of the material and of the bit say comes first, and so does
        what you have found yourself.
      </p>
    </div>
  ),
};

/** The shop's materials. */
export const MaterialsPlace = () => <PlacePage place={MATERIALS} />;
