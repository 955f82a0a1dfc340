import type { SurfaceFacts } from '@/core/arrange/compose';
import { dropFor, skinFor } from '@/core/arrange/ledger';
import { Choice, LengthField } from '../controls/fields';
import type { SetupProps } from './setup-props';

/** How a relief sits in its board: above cleared ground or sunk into it, and how much board is above and below it. */
export function SeatFields({
  job: { seat },
  change,
  facts,
  depth,
  backing,
}: SetupProps & { facts: SurfaceFacts | null; depth: number; backing: number }) {
  return (
    <>
      <Choice
        label="Relief stands"
        value={seat.mode}
        options={[
          ['raised', 'above cleared ground'],
          ['sunk', 'sunk into the board'],
        ]}
        onChange={(v) =>
          change((j) => {
            j.seat.mode = v;
            j.seat.drop = dropFor(v, facts?.peak ?? 0);
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
        onChange={(v) => change((j) => (j.seat.skin = skinFor(j.board.thickness, depth, v)))}
      />
    </>
  );
}
