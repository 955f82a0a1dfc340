'use client';
import type { HangPass } from '@/core/passes/hang/schema';
import { nextPlace } from '@/core/passes/hole/next-place';
import { sayLength } from '@/core/units/say';
import { Choice, LengthField } from '../controls/fields';
import { DepthField } from './down-and-over';
import type { Edited, KindCard, Told } from './kind-card';
import { PlaceList } from './place-list';
import { Took } from './took';

/** The ways that a slot usually runs, as the board lies. */
const WAYS = [
  ['90', 'away from you'],
  ['270', 'towards you'],
  ['0', 'to the right'],
  ['180', 'to the left'],
] as const;

/** How long and deep slots are, and what screw goes into them. */
function HangSentence({ pass, cutter, done }: Told<HangPass>) {
  return (
    <>
      {pass.places.length} hanging {pass.places.length === 1 ? 'slot' : 'slots'} of <b>{sayLength(pass.length)}</b>,{' '}
      <b>{sayLength(pass.depth)}</b> deep: for a screw whose head is narrower than {sayLength(cutter.diameter)} and
      lower than {sayLength(cutter.fluteLength)}, its shank thinner than {sayLength(cutter.neckDiameter)}
      <Took done={done} />.
    </>
  );
}

/** The numbers of hanging slots. */
function HangFields({ job, pass, cutter, set }: Edited<HangPass>) {
  const way = String(pass.towards);
  const own = WAYS.some(([w]) => w === way) ? [] : [[way, `at ${way} degrees`] as const];
  return (
    <>
      <LengthField
        label="Slot length"
        value={pass.length}
        min={0}
        open
        max={500}
        onChange={(v) => set((p) => (p.length = v))}
        note="from where the head goes in to where it hangs"
      />
      <Choice
        label="Slot runs"
        value={way}
        options={[...WAYS, ...own]}
        onChange={(v) => set((p) => (p.towards = Number(v)))}
        note="the end that is up when the piece hangs"
      />
      <DepthField
        depth={pass.depth}
        set={(v) => set((p) => (p.depth = v))}
        note={`from the board's top; ${sayLength(pass.depth - cutter.fluteLength)} of it over the head, ${sayLength(job.board.thickness - pass.depth)} under it`}
      />
      <PlaceList
        name="Slot"
        places={pass.places}
        onChange={(f) => set((p) => f(p.places))}
        onAdd={() => set((p) => p.places.push(nextPlace(p.places, cutter.diameter, job.board)))}
      />
    </>
  );
}

export const hangCard: KindCard<'hang'> = { label: 'Hanging slots', Sentence: HangSentence, Fields: HangFields };
