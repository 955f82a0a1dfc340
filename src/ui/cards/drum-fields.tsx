import type { Board, DrumStock } from '@/core/doc/board';
import { asDrum, makeDrum } from '@/core/doc/drum';
import { resizeBoard } from '@/core/setup/board-size';
import { sayLength } from '@/core/units/say';
import { Choice, Folded, LengthField, Tick } from '../controls/fields';

interface Props {
  board: Board;
  set(edit: (b: Board) => void): void;
  /** What a board's thickness means here. */
  thickness: string;
}

/** How wide a collar is as a rule, mm. */
const COLLAR = 8;

/** What is glued on to hold a drum by, and the collar that stays to find a run again. */
function DrumMore({ drum, long, set }: { drum: DrumStock; long: number; set(edit: (d: DrumStock) => void): void }) {
  const { collar, extended } = drum;
  return (
    <>
      <Tick
        label="A collar stays to touch off on"
        value={collar !== null}
        onChange={(v) =>
          set((d) => (d.collar = v ? { x: Math.max(d.chuck, d.extended.chuck) + COLLAR / 2, width: COLLAR } : null))
        }
        note={collar ? 'scribe a line across it at 0 degrees: a run is found again by it' : undefined}
      />
      {collar && (
        <>
          <LengthField
            label="Collar, x"
            value={collar.x}
            min={0}
            max={long}
            onChange={(x) => set((d) => (d.collar = { ...collar, x }))}
            note="of its middle"
          />
          <LengthField
            label="Collar width"
            value={collar.width}
            min={0}
            open
            max={500}
            onChange={(width) => set((d) => (d.collar = { ...collar, width }))}
          />
        </>
      )}
      <Folded title="Extensions glued on">
        <LengthField
          label="At the chuck"
          value={extended.chuck}
          min={0}
          max={10000}
          onChange={(v) => set((d) => (d.extended.chuck = v))}
          note="its length counts with the drum's; 0 for none"
        />
        <LengthField
          label="At the tail stock"
          value={extended.tailStock}
          min={0}
          max={10000}
          onChange={(v) => set((d) => (d.extended.tailStock = v))}
          note="nothing is carved into a glue line"
        />
      </Folded>
    </>
  );
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
      <LengthField
        label="Length, x"
        value={board.x}
        min={0}
        open
        max={10000}
        onChange={(v) => set((b) => resizeBoard(b, { x: v }))}
      />
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
          <DrumMore drum={drum} long={board.x} set={(edit) => set((b) => b.drum && edit(b.drum))} />
        </>
      ) : (
        <>
          <LengthField
            label="Width, y"
            value={board.y}
            min={0}
            open
            max={10000}
            onChange={(v) => set((b) => resizeBoard(b, { y: v }))}
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
