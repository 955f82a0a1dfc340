'use client';
import type { Summary } from '@/contract/wire';
import type { Cutter } from '@/core/cutter/cutter';
import { applyEdits } from '@/core/doc/edits';
import { FLIPS } from '@/core/doc/parts';
import { type BackFrom, backFrom } from '@/core/plan/backs';
import { addSetup } from '@/core/plan/setups';
import { FLIP_WORDS } from '@/core/setup/frame';
import { offInWords } from '@/core/setup/thickness-off';
import { sayLength, sayNumber } from '@/core/units/say';
import { Choice, Folded, LengthField } from '../controls/fields';
import { FaceFirst } from './face-first';
import { FlipDrawing } from './flip-drawing';
import { RegisterFields } from './register-fields';
import type { SetupProps } from './setup-props';

/** Places that are open on purpose, each to be taken back. */
function Openings({ job, change }: SetupProps) {
  return job.board.openings.map((p, i) => (
    <p key={`${p.x} ${p.y}`} className="flex items-center justify-between text-sm">
      <span>
        open on purpose at {sayNumber(p.x, 1)}, {sayLength(p.y, 1)} of the face
      </span>
      <button
        type="button"
        className="btn btn-ghost btn-xs"
        onClick={() => change((j) => j.board.openings.splice(i, 1))}
      >
        not any more
      </button>
    </p>
  ));
}

/** Buttons that add a clamping of this board. */
function AddSetup({ job, change, onSetup }: SetupProps & { onSetup(id: string): void }) {
  const other = job.setup.up === 'face' ? 'back' : 'face';
  const from = (how: BackFrom) => {
    const made = backFrom(job, how);
    if (!made) return;
    onSetup(made.id);
    change((j) => applyEdits(j.document, made.edits));
  };
  const add = (up: 'face' | 'back') => {
    const made = addSetup(job, up);
    onSetup(made.id);
    change((j) => applyEdits(j.document, made.edits));
  };
  const style = 'btn btn-sm px-1';
  const bare = job.layers.length === 0;
  return (
    <>
      <p className="soft pt-1 text-sm">Add a setup</p>
      <div className="grid grid-cols-2 gap-1.5 py-1">
        <button type="button" className={style} onClick={() => add(other)}>
          Empty {other}
        </button>
        <button type="button" className={style} onClick={() => add(job.setup.up)}>
          Clamp again
        </button>
        <button type="button" className={style} disabled={bare} onClick={() => from('mirror')}>
          Mirror behind it
        </button>
        <button type="button" className={style} disabled={bare} onClick={() => from('recess')}>
          Recess behind it
        </button>
      </div>
    </>
  );
}

/** Both faces of a board: how it is turned over, what is to be left between them, and how it finds its place again. */
export function FacesFold(props: SetupProps & { onSetup(id: string): void; summary: Summary | null; bits: Cutter[] }) {
  const { job, change, summary, bits } = props;
  const { board } = job;
  const both = new Set(board.setups.map((s) => s.up)).size > 1;
  return (
    <Folded title={both ? `Both faces, turned over ${FLIP_WORDS[board.flip]}` : 'Both faces'}>
      {both && (
        <>
          <FlipDrawing flip={board.flip} x={board.x} y={board.y} />
          <Choice
            label="Turned over"
            value={board.flip}
            options={FLIPS.map((f) => [f, FLIP_WORDS[f]] as const)}
            onChange={(v) => change((j) => (j.board.flip = v))}
            note={board.flip === 'about-y' ? 'about the axis along its width' : 'about the axis along its length'}
          />
          <RegisterFields job={job} change={change} bits={bits} />
          <FaceFirst job={job} summary={summary} change={change} />
          <p className="soft py-1 text-[13px] leading-snug first-letter:uppercase">
            {offInWords(board, job.setup, sayLength)}
          </p>
        </>
      )}
      <LengthField
        label="Web, at least"
        value={board.web}
        min={0}
        open
        max={500}
        onChange={(v) => change((j) => (j.board.web = v))}
        note="wood under the deepest cut, and between both faces"
      />
      <Openings job={job} change={change} />
      <AddSetup {...props} />
    </Folded>
  );
}
