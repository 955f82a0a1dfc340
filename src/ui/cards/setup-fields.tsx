'use client';
import type { Summary } from '@/contract/wire';
import type { Cutter } from '@/core/cutter/cutter';
import type { Heights } from '@/core/doc/setup';
import { FLIP_WORDS } from '@/core/setup/frame';
import { Folded, LengthField, TextField } from '../controls/fields';
import { FacesFold } from './faces-fields';
import { HoldingFields } from './holding-fields';
import { type SetupProps, setterOf } from './setup-props';
import { ReferenceFields } from './zero-fields';

const HEIGHTS: [keyof Heights, string, string][] = [
  ['approach', 'Approach', 'over the wood, where a rapid turns into a feed'],
  ['between', 'Between areas', 'over what stands on the way'],
  ['everything', 'Over everything', 'over the board, above all that holds it'],
];

function HeightFields({ job, change }: SetupProps) {
  const set = setterOf(change);
  return HEIGHTS.map(([key, label, note]) => (
    <LengthField
      key={key}
      label={label}
      value={job.setup.heights[key]}
      min={0}
      open
      max={500}
      onChange={(v) => set((s) => (s.heights[key] = v))}
      note={note}
    />
  ));
}

/** What this setup is called, and the way to take it off the board. */
function SetupList({ job, change, onRemove }: SetupProps & { onRemove(): void }) {
  const { board, setup } = job;
  return (
    <>
      <TextField
        label="Name"
        value={setup.name}
        max={80}
        required
        onChange={(v) => change((j) => (j.setup.name = v))}
      />
      <p className="soft py-1 text-[13px] leading-snug">
        {setup.up === 'face'
          ? 'The face is up in this setup.'
          : `The back is up: the board lies on its face, turned over ${FLIP_WORDS[board.flip]}.`}{' '}
        Setups are cut one after the other.
      </p>
      {board.setups.length > 1 && (
        <button type="button" className="btn btn-sm mt-1.5 w-full" onClick={onRemove}>
          Remove this setup
        </button>
      )}
    </>
  );
}

/** All that is seldom changed of a clamping. */
export function SetupFolds(
  props: SetupProps & { onSetup(id: string): void; onRemove(): void; summary: Summary | null; bits: Cutter[] },
) {
  const { setup, board } = props.job;
  return (
    <>
      <Folded title={`Setup: ${setup.name}${board.setups.length > 1 ? `, ${board.setups.length} in all` : ''}`}>
        <SetupList {...props} />
      </Folded>
      {!board.drum && <FacesFold {...props} />}
      <Folded title={`Heights over the ${board.drum ? 'drum' : 'board'}`}>
        <HeightFields {...props} />
      </Folded>
      <Folded title={`What holds it${setup.holding.length > 0 ? `: ${setup.holding.length}` : ''}`}>
        <HoldingFields {...props} />
      </Folded>
      <Folded title="What zero is found by">
        <ReferenceFields {...props} />
      </Folded>
    </>
  );
}
