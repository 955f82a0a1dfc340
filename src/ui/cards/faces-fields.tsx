'use client';
import { applyEdits } from '@/core/doc/edits';
import { FLIPS } from '@/core/doc/parts';
import type { Register } from '@/core/doc/setup';
import { addDowels, dowelsOf } from '@/core/passes/dowels';
import { registerError } from '@/core/passes/register-error';
import { type BackFrom, backFrom } from '@/core/plan/backs';
import { addJig } from '@/core/plan/jig';
import { addSetup } from '@/core/plan/setups';
import { FLIP_WORDS } from '@/core/setup/frame';
import { offInWords } from '@/core/setup/thickness-off';
import { type SetupView, viewOf } from '@/core/setup/view';
import { trimNumber } from '@/core/units/length';
import { sayLength, sayNumber } from '@/core/units/say';
import { Choice, Folded, LengthField } from '../controls/fields';
import { FlipDrawing } from './flip-drawing';
import type { SetupProps } from './setup-props';

const REGISTERS: [Register, string][] = [
  ['none', 'not at all'],
  ['dowels', 'on dowels'],
  ['fence', 'against a fence'],
  ['jig', 'its pieces in a jig'],
];

/** What a way to find the board's place leaves, in words. */
function errorLeft(job: SetupView): string {
  const error = registerError(job);
  if (!error)
    return job.setup.register === 'jig'
      ? 'no board of this job is a jig for it yet'
      : 'no setup before this one makes holes for dowels yet';
  const turned = error.turn > 0 ? ` and ${trimNumber(error.turn, 2)}°` : '';
  const found =
    job.setup.register === 'dowels' ? '' : job.setup.register === 'fence' ? ', touched off by paper' : ', by eye';
  return `leaves up to ${sayLength(error.shift)}${turned}${found}: ${sayLength(error.corner)} at the farthest corner`;
}

/** How this setup finds the place that the board had in the one before it. */
function RegisterFields({ job, change }: SetupProps) {
  const before = job.board.setups[job.board.setups.indexOf(job.setup) - 1];
  if (!before) return null;
  const made = () => addDowels(viewOf(job.document, { board: job.board, setup: before }));
  const room = dowelsOf(job.board) ? null : made();
  const jig = addJig(job);
  return (
    <>
      <Choice
        label="Finds its place"
        value={job.setup.register}
        options={REGISTERS}
        onChange={(v) => change((j) => (j.setup.register = v))}
        note={errorLeft(job)}
      />
      {room && (
        <button
          type="button"
          className="btn btn-sm mb-1 w-full"
          onClick={() =>
            change((j) => {
              applyEdits(j.document, room);
              j.setup.register = 'dowels';
            })
          }
        >
          Drill for dowels in {before.name}
        </button>
      )}
      {jig && (
        <button
          type="button"
          className="btn btn-sm mb-1 w-full"
          onClick={() => change((j) => applyEdits(j.document, jig.edits))}
        >
          Make a jig for its pieces
        </button>
      )}
    </>
  );
}

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
export function FacesFold(props: SetupProps & { onSetup(id: string): void }) {
  const { job, change } = props;
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
          <RegisterFields job={job} change={change} />
          <p className="soft py-1 text-[13px] leading-snug">{offInWords(board, job.setup, sayLength)}</p>
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
