'use client';
import type { Summary } from '@/contract/wire';
import type { SurfaceFacts } from '@/core/arrange/compose';
import { ledgerOf } from '@/core/arrange/ledger';
import { keepBoard } from '@/core/arrange/place';
import type { Board } from '@/core/doc/board';
import type { SetupView } from '@/core/setup/view';
import { sayLength } from '@/core/units/say';
import { PlacePiece } from '../arrange/whole-piece';
import { Choice, Folded } from '../controls/fields';
import { Card, Sentence } from './card';
import type { CardProps } from './card-props';
import { SizeFields } from './drum-fields';
import { MachineFields } from './machine-fields';
import { ChangedFigures, MaterialFolds } from './material-fields';
import { SeatFields } from './seat-fields';
import { SetupFolds } from './setup-fields';
import { ZeroFields } from './zero-fields';

const GRAIN: [Board['grain'], string][] = [
  ['along-x', 'lengthwise, along x'],
  ['along-y', 'across, along y'],
  ['none', 'no grain'],
];

/** The board: what lies on the machine, and how the relief sits in it. */
export function BoardCard({
  job,
  change: changed,
  library,
  bits,
  facts,
  summary,
  onSetup,
  onRemoveSetup,
}: CardProps & {
  facts: SurfaceFacts | null;
  summary: Summary | null;
  onSetup(id: string): void;
  onRemoveSetup(): void;
}) {
  const { board, seat } = job;
  const { depth, backing } = ledgerOf(job.layers, seat, board.thickness, facts ?? { peak: 0, low: 0 });
  const all = library?.materials ?? [];
  const materials = all.some((m) => m.id === board.material.id) ? all : [...all, board.material];
  // Layers that are kept at a distance from the board follow it.
  const change = (edit: (j: SetupView) => void) =>
    changed((j) => {
      edit(j);
      keepBoard(j.board);
    });
  const set = (edit: (b: Board) => void) => change((j) => edit(j.board));
  return (
    <Card
      title={board.drum ? 'Drum' : 'Board'}
      subtitle={`${board.material.name}, grain ${board.grain === 'none' ? 'none' : board.grain === 'along-x' ? 'lengthwise' : 'across'}`}
    >
      <Sentence>
        {!facts && job.layers.length > 0 ? (
          'Its layers are being joined.'
        ) : backing >= 0 ? (
          <>
            What is arranged takes <b>{sayLength(depth)}</b>, <b>{sayLength(backing)}</b> of backing stays below it
            {seat.skin > 0 && (
              <>
                , and <b>{sayLength(seat.skin)}</b> of skin goes from the top
              </>
            )}
            .
          </>
        ) : (
          <>
            The board is <b>{sayLength(-backing)}</b> too thin for what is arranged on it.
          </>
        )}
      </Sentence>
      <ChangedFigures job={job} change={change} library={library} bits={bits} />
      <SizeFields
        board={board}
        set={set}
        thickness={
          job.passes.some((p) => p.kind === 'skim') ? 'what the skim leaves' : 'as measured, at its thinnest place'
        }
      />
      <PlacePiece job={job} change={change} />
      <Choice
        label="Material"
        value={board.material.id}
        options={materials.map((m) => [m.id, m.name] as const)}
        onChange={(v) => set((b) => (b.material = structuredClone(materials.find((m) => m.id === v)!)))}
        note={board.material.caution && <span className="text-accent">{board.material.caution}</span>}
      />
      <Choice label="Grain" value={board.grain} options={GRAIN} onChange={(v) => set((b) => (b.grain = v))} />
      <ZeroFields job={job} change={change} />
      <SeatFields job={job} change={change} facts={facts} depth={depth} backing={backing} />
      <Choice
        label="Surface"
        value={board.face}
        options={[
          ['bare', 'bare wood'],
          ['painted', 'painted'],
          ['masked', 'masked with film'],
        ]}
        onChange={(v) => set((b) => (b.face = v))}
        note={board.face === 'bare' ? undefined : 'it is never skimmed; the back is'}
      />
      <SetupFolds job={job} change={change} bits={bits} summary={summary} onSetup={onSetup} onRemove={onRemoveSetup} />
      <MaterialFolds job={job} change={change} library={library} bits={bits} />
      <Folded title={`Machine: ${job.machine.name}`}>
        <MachineFields job={job} change={change} library={library} bits={bits} />
      </Folded>
    </Card>
  );
}
