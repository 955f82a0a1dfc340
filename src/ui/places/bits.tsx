'use client';
import type { Cutter } from '@/core/cutter/cutter';
import { DRAWER } from '@/core/doc/defaults';
import { freeNumber, freshId } from '@/core/doc/library';
import { sayLength } from '@/core/units/say';
import { BitFeed } from '../cards/bit-feed';
import { CutterFields, CutterMark, SHAPE_NAMES } from '../cards/cutter-fields';
import { NumberField } from '../controls/fields';
import { BitDrawing } from './bit-drawing';
import { FeedsByMaterial } from './feeds-by-material';
import type { Place } from './place';
import { PlacePage } from './place-page';

const numbered = (c: Cutter, all: Cutter[], name: string): Cutter => ({
  ...structuredClone(c),
  id: freshId(all, name),
  number: freeNumber(all),
  name,
  runs: 0,
});

const BITS: Place<'cutters'> = {
  shelf: 'cutters',
  title: 'Cutter drawer',
  one: 'bit',
  many: 'bits',
  sorted: (all) => all.sort((a, b) => a.number - b.number),
  mark: (c) => <CutterMark shape={c.shape} />,
  heading: (c) => `${c.number} · ${c.name}`,
  line: (c) => `${SHAPE_NAMES[c.shape]} ${sayLength(c.diameter, 3)}, flutes ${sayLength(c.fluteLength)} long`,
  fresh: (all) => numbered(DRAWER[0], all, 'new bit'),
  copy: (c, all) => numbered(c, all, `${c.name} copy`.slice(0, 80)),
  card: (c, set, { materials }) => (
    <>
      <div className="grid gap-x-6 lg:grid-cols-[1fr_15rem]">
        <div>
          <NumberField
            whole
            label="Number"
            value={c.number}
            min={1}
            max={999}
            onChange={(v) => set((t) => (t.number = v))}
            note="as programs call it"
          />
          <BitFeed cutter={c} onChange={(v) => set((t) => (t.feed = v))} />
          <CutterFields cutter={c} onChange={set} />
        </div>
        <BitDrawing cutter={c} />
      </div>
      <FeedsByMaterial bit={c} materials={materials} onChange={(next) => set((t) => Object.assign(t, next))} />
    </>
  ),
};

/** The cutter drawer. */
export const BitsPlace = () => <PlacePage place={BITS} />;
