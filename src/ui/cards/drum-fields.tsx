import type { Board } from '@/core/doc/board';
import { asDrum, makeDrum } from '@/core/doc/drum';
import { sayLength } from '@/core/units/say';
import { Choice, LengthField } from '../controls/fields';

interface Props {
  board: Board;
  set(edit: (b: Board) => void): void;
  /** What a board's thickness means here. */
  thickness: string;
}

/** A board that lies flat, or a drum: its size, and what holds its ends. */
export function SizeFields({ board, set, thickness }: Props) {
  const { drum } = board;
  return (
    <>
      <Choice
        label="It is"
        value={drum ? 'drum' : 'board'}
        options={[
          ['board', 'a board that lies flat'],
          ['drum', 'a drum that turns'],
        ]}
        onChange={(v) =>
          set((b) => {
            if (v === 'drum') makeDrum(b);
            else b.drum = null;
          })
        }
      />
      <LengthField label="Length, x" value={board.x} min={0} open max={10000} onChange={(v) => set((b) => (b.x = v))} />
      {drum ? (
        <>
          <LengthField
            label="Diameter"
            value={2 * board.thickness}
            min={0}
            open
            max={1000}
            onChange={(v) => set((b) => Object.assign(b, asDrum(v, drum)))}
            note={`its sheet is ${sayLength(board.y)} wide, pi times that; half way round is ${sayLength(board.y / 2)}`}
          />
          <LengthField
            label="Held by the chuck"
            value={drum.chuck}
            min={0}
            max={10000}
            onChange={(v) => set((b) => b.drum && (b.drum.chuck = v))}
            note="from its left end; nothing is carved there"
          />
          <LengthField
            label="Held by the tail stock"
            value={drum.tailStock}
            min={0}
            max={10000}
            onChange={(v) => set((b) => b.drum && (b.drum.tailStock = v))}
            note="from its right end"
          />
        </>
      ) : (
        <>
          <LengthField
            label="Width, y"
            value={board.y}
            min={0}
            open
            max={10000}
            onChange={(v) => set((b) => (b.y = v))}
          />
          <LengthField
            label="Thickness"
            value={board.thickness}
            min={0}
            open
            max={500}
            onChange={(v) => set((b) => (b.thickness = v))}
            note={thickness}
          />
        </>
      )}
    </>
  );
}
