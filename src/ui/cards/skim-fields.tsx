'use client';
import type { Cutter } from '@/core/cutter/cutter';
import { skimDepths } from '@/core/passes/skim';
import type { Job } from '@/core/plan/job';
import type { SkimPass } from '@/core/plan/pass';
import { formatDuration, formatLength, trimNumber } from '@/core/units/length';
import { Choice, LengthField } from '../controls/fields';
import { DownAndOver, type Edit } from './pass-fields';
import { PlaceList } from './place-list';

/** From what to what a board is skimmed, and in how many goes. */
export function SkimSentence({ job, pass, seconds }: { job: Job; pass: SkimPass; seconds?: number }) {
  const { high, skims } = skimDepths(pass, job.board.thickness);
  const measured = pass.points.map((p) => p.thickness);
  const [low, top] = [Math.min(...measured), Math.max(...measured)];
  return (
    <>
      {low === top ? <b>{formatLength(top)}</b> : <b>{`${trimNumber(low, 3)} to ${formatLength(top)}`}</b>} thick as
      measured; {skims} {skims === 1 ? 'skim takes' : 'skims take'} <b>{formatLength(Math.max(0, high))}</b> off and
      leave <b>{formatLength(job.board.thickness)}</b> all over
      {seconds !== undefined && (
        <>
          , in <b>{formatDuration(seconds)}</b>
        </>
      )}
      . No clamp may stand on the board.
    </>
  );
}

/** The numbers of a skim; what it leaves is the board's own thickness. */
export function SkimFields({
  job,
  pass,
  cutter,
  edit,
  change,
}: {
  job: Job;
  pass: SkimPass;
  cutter: Cutter;
  edit: Edit;
  change(f: (j: Job) => void): void;
}) {
  const set = (f: (p: SkimPass) => void) => edit((p) => p.kind === 'skim' && f(p));
  const thinnest = Math.min(...pass.points.map((p) => p.thickness));
  return (
    <>
      <Choice
        label="Skims"
        value={pass.side}
        options={[
          ['face', 'the face'],
          ['back', 'the back, turned over first'],
        ]}
        onChange={(v) => set((p) => (p.side = v))}
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
