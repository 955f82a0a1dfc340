'use client';
import { Download } from 'lucide-react';
import type { MouseEvent } from 'react';
import { addressOf } from '@/contract/endpoint';
import { PLANS, type PlanInfo } from '@/contract/plans';
import { textOf } from '@/core/findings/texts/text-of';
import type { CutoutPass } from '@/core/passes/cutout/schema';
import { FLIP_WORDS } from '@/core/setup/frame';
import { sayLength } from '@/core/units/say';
import type { CardProps } from '@/ui/cards/card-props';
import { Choice, TextField, Tick } from '../controls/fields';
import { Card, Sentence } from './card';
import { FlipDrawing } from './flip-drawing';
import { ProgramList } from './program-list';
import { TurningCautions } from './turning-cautions';

const ORIGINS = {
  'lower-left': 'the near left corner',
  'lower-right': 'the near right corner',
  'upper-left': 'the far left corner',
  'upper-right': 'the far right corner',
  centre: 'the cross in the centre',
} as const;

const Z_ZEROS = {
  board: { top: 'the top of the board', bed: 'the machine bed' },
  drum: { top: 'the surface of the drum', bed: 'the axis that it turns about' },
} as const;

/** What to see to before a program is started. */
function BeforeStart({ job }: Pick<CardProps, 'job'>) {
  const { board } = job;
  const { up, register } = job.setup;
  const before = board.setups[board.setups.indexOf(job.setup) - 1];
  const jig = job.document.boards.find((b) => b.jigFor === job.setup.id);
  const skim = job.passes.find((p) => p.kind === 'skim');
  const cutout = job.passes.find((p): p is CutoutPass => p.kind === 'cutout' && p.depth === null);
  return (
    <>
      <h3 className="mt-3 font-semibold">Before you press start</h3>
      <ul className="list-disc space-y-1 pl-5 text-sm">
        <li>
          Eye and hearing protection; dust extraction, and a mask for MDF, solid surface and timbers that irritate.
        </li>
        <TurningCautions job={job} />
        {board.material.caution && (
          <li>
            This board is of {board.material.name}: {board.material.caution}.
          </li>
        )}
        {up === 'back' && board.face !== 'bare' && (
          <li>
            Its face is {board.face}, and lies on the table: lay film or soft cloth under it, and tape on no paint.
          </li>
        )}
        {before && before.up !== up && (
          <li>
            Turn the board over, {FLIP_WORDS[board.flip]}
            {register === 'dowels' && ', onto its dowels'}
            {register === 'fence' && ', against its fence'}
            {register === 'jig' && ': lay each piece into its pocket of the jig, its mark where the jig has one'}. It
            has to lie flat on what the first side has left.
            <FlipDrawing flip={board.flip} x={board.x} y={board.y} />
          </li>
        )}
        {!board.drum && <li>Nothing loose on the table; clamps and screws clear of the trench.</li>}
        {skim && (
          <li>
            The skim runs over the whole board: nothing may stand on it, and Z is set from the bed
            {up === 'back' && `; the board lies on its face for it, turned over ${FLIP_WORDS[board.flip]}`}.
          </li>
        )}
        {jig && (
          <li>
            A plug of the jig laid on a piece finds its middle again by its hole; Z touched off on the plug stands{' '}
            {sayLength(jig.thickness)} over the piece.
          </li>
        )}
        {cutout && (
          <li>
            {cutout.tabs.count > 0
              ? 'Frame and piece are both held before the cut-out starts: the tabs hold them to each other, not to the table.'
              : 'The cut-out has no tabs: tape or vacuum under the piece, or it flies as it comes free.'}
          </li>
        )}
        <li>Touch off on wood that is not cut away; find Z again after every change of bit.</li>
        <li>The first seconds at a fifth of the feed, a hand on the stop.</li>
        <li>
          Never reach in while the spindle turns, and never leave it running alone: a dull or rubbing bit can start a
          fire.
        </li>
        <li>The makers of machine, bit and material, and local rules, come first.</li>
      </ul>
    </>
  );
}

/** The programs, and what to know at the machine. */
export function RunCard({
  job,
  change,
  plan,
  fresh,
  files,
}: CardProps & {
  plan: PlanInfo | null;
  fresh: boolean;
  /** The programs of all setups, in their order. */
  files: string[];
}) {
  const s = fresh && plan?.status === 'done' ? plan.summary : null;
  const bad = s ? [...s.findings, ...s.elsewhere].filter((f) => f.severity === 'error') : [];
  const { zero, heights } = job.setup;
  const asked = plan?.older ? { older: 'yes' as const } : {};
  /** Programs of an older proof go out only after a question. */
  const ask = (e: MouseEvent) => {
    if (
      plan?.older &&
      !confirm('These programs were proven by an older version of this program. Download them all the same?')
    )
      e.preventDefault();
  };
  return (
    <Card
      title="Run"
      subtitle={`${job.machine.name}, ${job.machine.toolChanger ? 'changes bits by itself' : 'bits changed by hand'}`}
    >
      <Sentence>
        Zero at <b>{ORIGINS[zero.origin]}</b>
        {job.board.drum && ' of the sheet'}, Z zero on <b>{Z_ZEROS[job.board.drum ? 'drum' : 'board'][zero.z]}</b>; each
        program begins and ends {sayLength(heights.everything)} over the {job.board.drum ? 'drum' : 'board'} and passes
        between areas as low as is safe.
      </Sentence>
      {bad.length > 0 && (
        <p role="alert" className="mb-2 rounded border border-accent px-3 py-2 text-sm text-accent">
          The proof found {bad.length === 1 ? 'an error' : `${bad.length} errors`}: {textOf(bad[0]).message}. Do not run
          these programs as they are.
        </p>
      )}
      {s ? (
        <ProgramList {...{ programs: s.programs, job, files, ask }} plan={plan!.id} asked={asked} />
      ) : (
        <p className="soft text-sm">The programs are written once the board is proven.</p>
      )}
      {s && files.length > 1 && (
        <a
          className="btn btn-primary mt-3 w-full"
          href={addressOf(PLANS.bundle, { id: plan!.id, ...asked })}
          download
          onClick={ask}
        >
          <Download size={16} aria-hidden /> Download all programs
        </a>
      )}
      <div className="mt-3">
        <TextField label="Order" value={job.order} max={40} onChange={(v) => change((j) => (j.order = v))} />
        <TextField label="Job" value={job.name} max={80} required onChange={(v) => change((j) => (j.name = v))} />
        <Choice
          label="Written in"
          value={job.output.unit}
          options={[
            ['mm', 'millimetres, G21'],
            ['in', 'inches, G20'],
          ]}
          onChange={(v) => change((j) => (j.output.unit = v))}
        />
        {job.machine.toolChanger && (
          <Tick
            label="One file with tool changes"
            value={job.output.oneFile}
            onChange={(v) => change((j) => (j.output.oneFile = v))}
          />
        )}
      </div>
      <BeforeStart job={job} />
    </Card>
  );
}
