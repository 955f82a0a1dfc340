'use client';
import { DRILLS } from '@/core/cutter/cutter';
import { nextPlace } from '@/core/passes/hole/next-place';
import type { HolePass } from '@/core/passes/hole/schema';
import { sayLength } from '@/core/units/say';
import { LengthField, Tick } from '../controls/fields';
import { DepthField, Ramp } from './down-and-over';
import type { Edited, KindCard, Told } from './kind-card';
import { PlaceList } from './place-list';
import { Took } from './took';

/** How holes are made, and how deep. */
function HoleSentence({ pass, cutter, done }: Told<HolePass>) {
  const drilled = pass.diameter - cutter.diameter <= DRILLS;
  return (
    <>
      {pass.places.length} {pass.places.length === 1 ? 'hole' : 'holes'} of <b>{sayLength(pass.diameter)}</b>,{' '}
      {pass.depth === null ? (
        <>
          through the board and <b>{sayLength(pass.into)}</b> into the spoilboard
        </>
      ) : (
        <>
          <b>{sayLength(pass.depth)}</b> deep
        </>
      )}
      , {drilled ? 'drilled in pecks with the chips cleared between' : 'milled in a helix'}
      <Took done={done} />.
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
      {pass.depth !== null && <DepthField depth={pass.depth} set={(v) => set((p) => (p.depth = v))} />}
      <Tick
        label="Dowels go into them"
        value={pass.dowel !== null}
        onChange={(v) => set((p) => (p.dowel = v ? p.diameter : null))}
        note={pass.dowel === null ? undefined : 'the board turned over lies on them again'}
      />
      {pass.dowel !== null && (
        <LengthField
          label="Dowel"
          value={pass.dowel}
          min={0}
          open
          max={50}
          onChange={(v) => set((p) => (p.dowel = v))}
          note={`${sayLength(pass.diameter - pass.dowel)} of clearance`}
        />
      )}
      {pass.depth === null && (
        <LengthField
          label="Into the spoilboard"
          value={pass.into}
          min={0}
          max={10}
          onChange={(v) => set((p) => (p.into = v))}
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
            <span className="text-accent">over this bit's {sayLength(cutter.maxStepdown)}</span>
          ) : (
            'deepest at once, or in a turn of the helix'
          )
        }
      />
      {pass.diameter - cutter.diameter > DRILLS && <Ramp {...{ pass, cutter, set }} down={pass.peck} />}
      <PlaceList
        name="Hole"
        places={pass.places}
        onChange={(f) => set((p) => f(p.places))}
        onAdd={() => set((p) => p.places.push(nextPlace(p.places, p.diameter, board)))}
      />
    </>
  );
}

export const holeCard: KindCard<'hole'> = { label: 'Holes', Sentence: HoleSentence, Fields: HoleFields };
