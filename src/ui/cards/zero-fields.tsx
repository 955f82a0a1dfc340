'use client';
import type { Origin } from '@/core/doc/setup';
import { SPOILBOARD } from '@/core/passes/bed';
import { Choice, LengthField, Tick } from '../controls/fields';
import { PlaceList } from './place-list';
import { type SetupProps, setterOf } from './setup-props';

const ORIGIN_NAMES: [Origin, string][] = [
  ['lower-left', 'near left corner'],
  ['lower-right', 'near right corner'],
  ['upper-left', 'far left corner'],
  ['upper-right', 'far right corner'],
  ['centre', 'a cross in the centre'],
];

/** What a zero that is a little off does to a drum. */
const RISKS = {
  top: 'found anew on each blank; where that is not round, it is off by as much',
  bed: 'found once for the machine; a blank of another diameter is cut too deep, or not at all',
} as const;

/** Where zero is, and what lies under the board. */
export function ZeroFields({ job, change }: SetupProps) {
  const { zero, spoilboard } = job.setup;
  const set = setterOf(change);
  return (
    <>
      <Choice
        label="Origin"
        value={zero.origin}
        options={ORIGIN_NAMES}
        onChange={(v) => set((s) => (s.zero.origin = v))}
      />
      <Choice
        label="Z zero"
        value={zero.z}
        options={[
          ['top', job.board.drum ? 'surface of the drum' : 'top of the board'],
          ['bed', job.board.drum ? 'axis that it turns about' : 'machine bed'],
        ]}
        onChange={(v) => set((s) => (s.zero.z = v))}
        note={job.board.drum ? RISKS[zero.z] : undefined}
      />
      {!job.board.drum && (
        <Tick
          label="A spoilboard lies under it"
          value={spoilboard !== null}
          onChange={(v) => set((s) => (s.spoilboard = v ? SPOILBOARD : null))}
        />
      )}
      {!job.board.drum && spoilboard !== null && (
        <LengthField
          label="Spoilboard"
          value={spoilboard}
          min={0}
          open
          max={200}
          onChange={(v) => set((s) => (s.spoilboard = v))}
          note="its thickness"
        />
      )}
    </>
  );
}

/** What zero is found by again. */
export function ReferenceFields({ job, change }: SetupProps) {
  const set = setterOf(change);
  const { references } = job.setup;
  const middle = { x: job.board.x / 2, y: job.board.y / 2 };
  const list = (key: 'ticks' | 'spots', name: string) => (
    <PlaceList
      name={name}
      least={0}
      places={references[key]}
      onChange={(f) => set((s) => f(s.references[key]))}
      onAdd={() => set((s) => s.references[key].push({ x: 0, y: 0 }))}
    />
  );
  return (
    <>
      <Tick
        label="A cross is marked on the board"
        value={references.cross !== null}
        onChange={(v) => set((s) => (s.references.cross = v ? middle : null))}
      />
      {references.cross &&
        (['x', 'y'] as const).map((a) => (
          <LengthField
            key={a}
            label={`Cross, ${a}`}
            value={references.cross?.[a] ?? 0}
            onChange={(v) => set((s) => s.references.cross && (s.references.cross[a] = v))}
          />
        ))}
      <p className="soft pt-1 text-[13px]">Witness ticks in board that stays</p>
      {list('ticks', 'Tick')}
      <p className="soft pt-1 text-[13px]">Uncut spots to touch Z off on</p>
      {list('spots', 'Spot')}
    </>
  );
}
