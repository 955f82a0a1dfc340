'use client';
import { applyEdits } from '@/core/doc/edits';
import { skimDepths } from '@/core/passes/skim/plan';
import type { SkimPass } from '@/core/passes/skim/schema';
import { skimOtherSide } from '@/core/plan/setups';
import { sayLength, sayNumber } from '@/core/units/say';
import { Choice, LengthField } from '../controls/fields';
import { DownAndOver } from './down-and-over';
import type { Edited, KindCard, Told } from './kind-card';
import { PlaceList } from './place-list';
import { Took } from './took';

/** From what to what a board is skimmed, and in how many goes. */
function SkimSentence({ job, pass, done }: Told<SkimPass>) {
  const { high, skims } = skimDepths(pass, job.board.thickness);
  const measured = pass.points.map((p) => p.thickness);
  const [low, top] = [Math.min(...measured), Math.max(...measured)];
  return (
    <>
      {low === top ? <b>{sayLength(top)}</b> : <b>{`${sayNumber(low)} to ${sayLength(top)}`}</b>} thick as measured;{' '}
      {skims} {skims === 1 ? 'skim takes' : 'skims take'} <b>{sayLength(Math.max(0, high))}</b> off and leave{' '}
      <b>{sayLength(job.board.thickness)}</b> all over
      <Took done={done} />. No clamp may stand on the board.
    </>
  );
}

/** The numbers of a skim; what it leaves is the board's own thickness. */
function SkimFields({ job, pass, cutter, set, change, onSetup }: Edited<SkimPass>) {
  const thinnest = Math.min(...pass.points.map((p) => p.thickness));
  return (
    <>
      <Choice
        label="Skims"
        value={job.setup.up}
        options={[
          ['face', 'the face'],
          ['back', 'the back, turned over first'],
        ]}
        onChange={(v) => {
          if (v === job.setup.up) return;
          // In a setup of its own, before this one.
          onSetup(skimOtherSide(job, pass).id);
          change((j) => {
            const own = j.passes.find((p) => p.id === pass.id);
            if (own?.kind === 'skim') applyEdits(j.document, skimOtherSide(j, own).edits);
          });
        }}
        note={job.board.face === 'bare' ? undefined : `the face is ${job.board.face}: it stays as it is`}
      />
      <LengthField
        label="Leaves"
        value={job.board.thickness}
        min={0}
        open
        max={500}
        onChange={(v) => change((j) => (j.board.thickness = v))}
        note={
          job.board.thickness > thinnest ? (
            <span className="text-accent">more than the thinnest place has</span>
          ) : (
            'the thickness that all else is planned with'
          )
        }
      />
      <DownAndOver pass={pass} cutter={cutter} set={set} />
      <PlaceList
        name="Measured"
        places={pass.points}
        extra={{ label: 'thickness', key: 'thickness' }}
        onChange={(f) => set((p) => f(p.points))}
        onAdd={() =>
          set((p) => p.points.push({ x: job.board.x / 2, y: job.board.y / 2, thickness: p.points[0].thickness }))
        }
      />
    </>
  );
}

export const skimCard: KindCard<'skim'> = { label: 'Skim', Sentence: SkimSentence, Fields: SkimFields };
