'use client';
import type { Cutter } from '@/core/cutter/cutter';
import { applyEdits } from '@/core/doc/edits';
import type { Register } from '@/core/doc/setup';
import { addDowels, dowelsOf } from '@/core/passes/dowels';
import { registerError } from '@/core/passes/register-error';
import { addJig, addNest } from '@/core/plan/jig';
import { type SetupView, viewOf } from '@/core/setup/view';
import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';
import { Choice } from '../controls/fields';
import type { SetupProps } from './setup-props';

const REGISTERS: [Register, string][] = [
  ['none', 'not at all'],
  ['dowels', 'on dowels'],
  ['fence', 'against a fence'],
  ['jig', 'its pieces in a jig'],
];

/** By what a place is found, as the words of its error go on. */
const FOUND_BY: Record<Register, string> = {
  none: ', by eye',
  dowels: '',
  fence: ', touched off by paper',
  jig: ', its mark met by eye',
};

/** What a way to find the board's place leaves, in words. */
function errorLeft(job: SetupView): string {
  const error = registerError(job);
  if (!error)
    return job.setup.register === 'jig'
      ? 'no board of this job is a jig for it yet'
      : 'no setup before this one makes holes for dowels yet';
  const turned = error.turn > 0 ? ` and ${trimNumber(error.turn, 2)}°` : '';
  const found = FOUND_BY[job.setup.register];
  return `leaves up to ${sayLength(error.shift)}${turned}${found}: ${sayLength(error.corner)} at the farthest corner`;
}

/** How this setup finds the place that the board had in the one before it. */
export function RegisterFields({ job, change, bits }: SetupProps & { bits: Cutter[] }) {
  const before = job.board.setups[job.board.setups.indexOf(job.setup) - 1];
  if (!before) return null;
  const made = () => addDowels(viewOf(job.document, { board: job.board, setup: before }), bits);
  const room = dowelsOf(job.board) ? null : made();
  const holders = [
    ['Make a jig for its pieces', addJig(job)],
    ['Make a nest to lie on', addNest(job)],
  ] as const;
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
      {holders.map(
        ([label, made]) =>
          made && (
            <button
              key={label}
              type="button"
              className="btn btn-sm mb-1 w-full"
              onClick={() => change((j) => applyEdits(j.document, made.edits))}
            >
              {label}
            </button>
          ),
      )}
    </>
  );
}
