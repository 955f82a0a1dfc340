'use client';
import type { SurfaceFacts } from '@/core/arrange/compose';
import { ledgerOf } from '@/core/arrange/ledger';
import type { Board, Job, Machine, Origin } from '@/core/plan/job';
import { formatLength } from '@/core/units/length';
import { api, type LibraryInfo } from '../api';
import { Choice, FeedField, Folded, LengthField, NumberField, TextField, Tick } from '../controls/fields';
import { Card, Sentence } from './card';

export interface CardProps {
  job: Job;
  change(edit: (job: Job) => void): void;
  library: LibraryInfo | undefined;
}

const ORIGIN_NAMES: [Origin, string][] = [
  ['lower-left', 'near left corner'],
  ['lower-right', 'near right corner'],
  ['upper-left', 'far left corner'],
  ['upper-right', 'far right corner'],
  ['centre', 'a cross in the centre'],
];

const GRAIN: [Board['grain'], string][] = [
  ['along-x', 'lengthwise, along x'],
  ['along-y', 'across, along y'],
  ['none', 'no grain'],
];

/** The board: what lies on the machine, and how the relief sits in it. */
export function BoardCard({ job, change, library, facts }: CardProps & { facts: SurfaceFacts | null }) {
  const { board, seat } = job;
  const { depth, backing } = ledgerOf(job.layers, seat, board.thickness, facts ?? { peak: 0, low: 0 });
  const caution = library?.materials.find((m) => m.name === board.material)?.caution;
  const set = (edit: (b: Board) => void) => change((j) => edit(j.board));
  return (
    <Card
      title="Board"
      subtitle={`${board.material}, grain ${board.grain === 'none' ? 'none' : board.grain === 'along-x' ? 'lengthwise' : 'across'}`}
    >
      <Sentence>
        {backing >= 0 ? (
          <>
            What is arranged takes <b>{formatLength(depth, 'mm', 2)}</b>, <b>{formatLength(backing, 'mm', 2)}</b> of
            backing stays below it
            {seat.skin > 0 && (
              <>
                , and <b>{formatLength(seat.skin)}</b> of skin goes from the top
              </>
            )}
            .
          </>
        ) : (
          <>
            The board is <b>{formatLength(-backing, 'mm', 2)}</b> too thin for what is arranged on it.
          </>
        )}
      </Sentence>
      <LengthField label="Length, x" value={board.x} min={0} open max={10000} onChange={(v) => set((b) => (b.x = v))} />
      <LengthField label="Width, y" value={board.y} min={0} open max={10000} onChange={(v) => set((b) => (b.y = v))} />
      <LengthField
        label="Thickness"
        value={board.thickness}
        min={0}
        open
        max={500}
        onChange={(v) => set((b) => (b.thickness = v))}
        note={job.passes.some((p) => p.kind === 'skim') ? 'what the skim leaves' : 'as measured, at its thinnest place'}
      />
      <Choice
        label="Material"
        value={board.material}
        options={(library?.materials ?? [{ name: board.material }]).map((m) => [m.name, m.name] as const)}
        onChange={(v) => set((b) => (b.material = v))}
        note={caution && <span className="text-accent">{caution}</span>}
      />
      <Choice label="Grain" value={board.grain} options={GRAIN} onChange={(v) => set((b) => (b.grain = v))} />
      <Choice label="Origin" value={board.origin} options={ORIGIN_NAMES} onChange={(v) => set((b) => (b.origin = v))} />
      <Choice
        label="Z zero"
        value={board.zZero}
        options={[
          ['top', 'top of the board'],
          ['bed', 'machine bed'],
        ]}
        onChange={(v) => set((b) => (b.zZero = v))}
      />
      <Choice
        label="It sits"
        value={seat.mode}
        options={[
          ['raised', 'raised from the ground'],
          ['sunk', 'sunk into the top'],
        ]}
        onChange={(v) =>
          change((j) => {
            j.seat.mode = v;
            // What stands over its base plane is sunk with it; what is carved starts from the top.
            j.seat.drop = v === 'sunk' ? Number(Math.max(0, facts?.peak ?? 0).toFixed(3)) : 0;
          })
        }
      />
      {seat.mode === 'sunk' && (
        <LengthField
          label="Base sunk by"
          value={seat.drop}
          min={0}
          max={500}
          onChange={(v) => change((j) => (j.seat.drop = v))}
          note="its base plane below the board's top; 0 when it is carved from the top"
        />
      )}
      <LengthField
        label="Skin above"
        value={seat.skin}
        min={0}
        max={200}
        onChange={(v) => change((j) => (j.seat.skin = v))}
        note="a little levels a board that is not flat"
      />
      <LengthField
        label="Backing below"
        value={Number(backing.toFixed(3))}
        onChange={(v) => change((j) => (j.seat.skin = Math.max(0, j.board.thickness - depth - v)))}
      />
      <Choice
        label="Its face is"
        value={board.face}
        options={[
          ['bare', 'bare wood'],
          ['painted', 'painted'],
          ['masked', 'masked with film'],
        ]}
        onChange={(v) => set((b) => (b.face = v))}
        note={board.face === 'bare' ? undefined : 'it is never skimmed; the back is'}
      />
      <Tick
        label="A spoilboard lies under it"
        value={board.spoilboard}
        onChange={(v) => set((b) => (b.spoilboard = v))}
      />
      <Folded title={`Machine: ${job.machine.name}`}>
        <MachineFields job={job} change={change} library={library} />
      </Folded>
    </Card>
  );
}

/** One file needs a machine that changes bits by itself. */
function setMachine(job: Job, machine: Machine): void {
  job.machine = machine;
  job.output.oneFile = job.output.oneFile && machine.toolChanger;
}

function MachineFields({ job, change, library }: CardProps) {
  const { machine, board } = job;
  const set = (edit: (m: Machine) => void) => change((j) => edit(j.machine));
  const all = library?.machines ?? [];
  return (
    <>
      <Choice
        label="Machine"
        value={machine.id}
        options={(all.some((m) => m.id === machine.id) ? all : [...all, machine]).map((m) => [m.id, m.name] as const)}
        onChange={(id) => {
          const m = all.find((x) => x.id === id);
          if (m) change((j) => setMachine(j, m));
        }}
      />
      <TextField label="Name" value={machine.name} max={80} required onChange={(v) => set((m) => (m.name = v))} />
      <LengthField
        label="Board at x"
        value={board.place.x}
        onChange={(v) => change((j) => (j.board.place.x = v))}
        note="its near left corner on the table"
      />
      <LengthField label="Board at y" value={board.place.y} onChange={(v) => change((j) => (j.board.place.y = v))} />
      <LengthField label="Table, x" value={machine.x} min={0} open onChange={(v) => set((m) => (m.x = v))} />
      <LengthField label="Table, y" value={machine.y} min={0} open onChange={(v) => set((m) => (m.y = v))} />
      <LengthField
        label="Z travel"
        value={machine.zTravel}
        min={0}
        open
        onChange={(v) => set((m) => (m.zTravel = v))}
      />
      <NumberField
        label="Slowest turn"
        value={machine.minRpm}
        min={0}
        suffix="rpm"
        onChange={(v) => set((m) => (m.minRpm = v))}
      />
      <NumberField
        label="Fastest turn"
        value={machine.maxRpm}
        min={0}
        open
        suffix="rpm"
        onChange={(v) => set((m) => (m.maxRpm = v))}
      />
      {(['x', 'y', 'z'] as const).map((a) => (
        <FeedField
          key={a}
          label={`Top feed, ${a}`}
          value={machine.maxFeed[a]}
          onChange={(v) => set((m) => (m.maxFeed[a] = v))}
        />
      ))}
      {(['x', 'y', 'z'] as const).map((a) => (
        <NumberField
          key={a}
          label={`Accelerates, ${a}`}
          value={machine.acceleration[a]}
          min={0}
          open
          suffix="mm/s²"
          onChange={(v) => set((m) => (m.acceleration[a] = v))}
        />
      ))}
      <NumberField
        label="Corner slack"
        value={machine.junctionDeviation}
        min={0}
        open
        max={1}
        suffix="mm"
        onChange={(v) => set((m) => (m.junctionDeviation = v))}
        note="junction deviation"
      />
      <Tick
        label="Changes bits by itself"
        value={machine.toolChanger}
        onChange={(v) => change((j) => setMachine(j, { ...j.machine, toolChanger: v }))}
      />
      <button type="button" className="btn btn-sm mt-1 w-full" onClick={() => void api.saveMachine(machine)}>
        Keep in the shop for other jobs
      </button>
    </>
  );
}
