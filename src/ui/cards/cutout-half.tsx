'use client';
import { applyEdits } from '@/core/doc/edits';
import type { CutoutPass } from '@/core/passes/cutout/schema';
import { registerError } from '@/core/passes/register-error';
import { cutHalves } from '@/core/plan/halves';
import type { SetupView } from '@/core/setup/view';
import { clean } from '@/core/units/round';
import { sayLength } from '@/core/units/say';
import { Tick } from '../controls/fields';
import { DepthField } from './down-and-over';
import type { Edited, Told } from './kind-card';
import { Took } from './took';

/** A cut-out that ends in the wood: what it leaves for the other side. */
export function HalfSentence({ job, pass, done }: Pick<Told<CutoutPass>, 'job' | 'pass' | 'done'>) {
  const depth = pass.depth ?? 0;
  return (
    <>
      Cuts <b>{sayLength(depth)}</b> deep
      <Took done={done} />. The piece stays joined by the <b>{sayLength(job.board.thickness - depth)}</b> below, until
      the other side's cut-out meets it there.
    </>
  );
}

/** What the walls of both halves can stand apart where they meet, in words; nothing where the other side has no half. */
export function StepBetween({ job }: { job: SetupView }) {
  const half = job.board.setups.some(
    (s) => s.up !== job.setup.up && s.passes.some((p) => p.kind === 'cutout' && p.depth !== null),
  );
  const error = half ? registerError(job) : null;
  if (!error) return null;
  return <> Where it meets the half from the other side a step of up to {sayLength(error.corner)} can show.</>;
}

/** How far a cut-out goes: through, or to where the other side's meets it. */
export function ThroughFields({ job, pass, set, change }: Edited<CutoutPass>) {
  const halves = cutHalves(job, pass);
  return (
    <>
      <Tick
        label="Through the board"
        value={pass.depth === null}
        onChange={(v) => set((p) => (p.depth = v ? null : clean(job.board.thickness / 2)))}
        note={pass.depth === null ? undefined : 'the other side cuts the rest'}
      />
      {pass.depth !== null && <DepthField depth={pass.depth} set={(v) => set((p) => (p.depth = v))} />}
      {halves && (
        <button
          type="button"
          className="btn btn-sm my-1 w-full"
          onClick={() => change((j) => applyEdits(j.document, halves))}
        >
          Cut half of it from each side
        </button>
      )}
    </>
  );
}
