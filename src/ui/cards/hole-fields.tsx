'use client';
import { DRILLS } from '@/core/cutter/cutter';
import type { HolePass } from '@/core/passes/hole/schema';
import { formatDuration, formatLength } from '@/core/units/length';
import { LengthField, Tick } from '../controls/fields';
import type { Edited, KindCard, Told } from './kind-card';
import { Ramp } from './pass-fields';
import { PlaceList } from './place-list';

/** How holes are made, and how deep. */
function HoleSentence({ pass, cutter, done }: Told<HolePass>) {
  const seconds = done?.seconds;
  const drilled = pass.diameter - cutter.diameter <= DRILLS;
  return (
    <>
      {pass.places.length} {pass.places.length === 1 ? 'hole' : 'holes'} of <b>{formatLength(pass.diameter)}</b>,{' '}
      {pass.depth === null ? (
        <>
          through the board and <b>{formatLength(pass.into)}</b> into the spoilboard
        </>
      ) : (
        <>
          <b>{formatLength(pass.depth)}</b> deep
        </>
      )}
      , {drilled ? 'drilled in pecks with the chips cleared between' : 'milled in a helix'}
      {seconds !== undefined && (
        <>
          , in <b>{formatDuration(seconds)}</b>
        </>
      )}
      .
    </>
  );
}

/** The numbers of holes. */
function HoleFields({ job, pass, cutter, set }: Edited<HolePass>) {
  const { board } = job;
  return (
    <>
      <LengthField
        label="Hole diameter"
        value={pass.diameter}
        min={0}
        open
        max={200}
        onChange={(v) => set((p) => (p.diameter = v))}
      />
      <Tick
        label="Through the board"
        value={pass.depth === null}
        onChange={(v) => set((p) => (p.depth = v ? null : Math.min(10, board.thickness / 2)))}
        note={
          pass.depth === null && job.setup.spoilboard === null ? (
            <span className="text-accent">there is no spoilboard under this board</span>
          ) : undefined
        }
      />
      {pass.depth !== null && (
        <LengthField
          label="Depth"
          value={pass.depth}
          min={0}
          open
          max={500}
          onChange={(v) => set((p) => (p.depth = v))}
          note="from the board's top"
        />
      )}
      <LengthField
        label="Peck"
        value={pass.peck}
        min={0}
        open
        max={100}
        onChange={(v) => set((p) => (p.peck = v))}
        note={
          pass.peck > cutter.maxStepdown ? (
            <span className="text-accent">over this bit's {formatLength(cutter.maxStepdown)}</span>
          ) : (
            'deepest at once, or in a turn of the helix'
          )
        }
      />
      {pass.diameter - cutter.diameter > DRILLS && <Ramp pass={pass} set={(v) => set((p) => (p.rampAngle = v))} />}
      <PlaceList
        name="Hole"
        places={pass.places}
        onChange={(f) => set((p) => f(p.places))}
        onAdd={() =>
          set((p) => {
            const last = p.places[p.places.length - 1];
            const x = last.x + 3 * p.diameter;
            p.places.push(x < board.x ? { x, y: last.y } : { x: board.x / 2, y: board.y / 2 });
          })
        }
      />
    </>
  );
}

export const holeCard: KindCard<'hole'> = { label: 'Holes', Sentence: HoleSentence, Fields: HoleFields };
