'use client';
import { cornerOver } from '@/core/passes/turn/blank';
import { turnLevels } from '@/core/passes/turn/plan';
import type { TurnPass } from '@/core/passes/turn/schema';
import { sayLength } from '@/core/units/say';
import { Choice, LengthField } from '../controls/fields';
import { DownAndOver } from './down-and-over';
import type { Edited, KindCard, Told } from './kind-card';
import { Took } from './took';

/** From what to what a blank is turned, and in how many levels. */
function TurnSentence({ job, pass, done }: Told<TurnPass>) {
  const { blank } = pass;
  const { levels } = turnLevels(pass, job.board);
  return (
    <>
      {blank.kind === 'square' ? (
        <>
          <b>{sayLength(blank.side)}</b> square, its corners <b>{sayLength(cornerOver(pass, job.board))}</b> over the
          drum;
        </>
      ) : (
        <>
          <b>{sayLength(blank.diameter)}</b> across as it is clamped;
        </>
      )}{' '}
      {levels} {levels === 1 ? 'level leaves' : 'levels leave'} <b>{sayLength(2 * job.board.thickness)}</b> between what
      holds it
      <Took done={done} />. Slow first turns: square stock is out of balance.
    </>
  );
}

/** The numbers of turning round; what it leaves is the drum's own diameter. */
function TurnFields({ job, pass, cutter, set }: Edited<TurnPass>) {
  const { blank, runOut } = pass;
  const across = 2 * job.board.thickness;
  return (
    <>
      <Choice
        label="The blank is"
        value={blank.kind}
        options={[
          ['square', 'square'],
          ['round', 'round, but uneven'],
        ]}
        onChange={(kind) =>
          set((p) => (p.blank = kind === 'square' ? { kind, side: across + 2 } : { kind, diameter: across + 2 }))
        }
      />
      {blank.kind === 'square' ? (
        <LengthField
          label="Its side"
          value={blank.side}
          min={0}
          open
          max={1000}
          onChange={(side) => set((p) => (p.blank = { kind: 'square', side }))}
          note={`${sayLength(blank.side * Math.SQRT2)} from corner to corner; a flat lies up at 0 degrees`}
        />
      ) : (
        <LengthField
          label="Its diameter"
          value={blank.diameter}
          min={0}
          open
          max={1000}
          onChange={(diameter) => set((p) => (p.blank = { kind: 'round', diameter }))}
        />
      )}
      <LengthField
        label="Run-out at the chuck"
        value={runOut.chuck}
        min={0}
        max={100}
        onChange={(v) => set((p) => (p.runOut.chuck = v))}
        note="how far a dial moves in one turn by hand"
      />
      <LengthField
        label="Run-out at the tail stock"
        value={runOut.tailStock}
        min={0}
        max={100}
        onChange={(v) => set((p) => (p.runOut.tailStock = v))}
      />
      <DownAndOver pass={pass} cutter={cutter} set={set} />
    </>
  );
}

export const turnCard: KindCard<'turn'> = { label: 'Turn round', Sentence: TurnSentence, Fields: TurnFields };
