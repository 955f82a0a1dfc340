import { type Drawing, inInches } from '@/core/sources/drawing';
import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';

interface Props {
  file: string;
  drawing: Drawing;
  onTake(drawing: Drawing): void;
  onLeave(): void;
}

/** A drawing whose file says no unit: what its numbers are is asked before it is put on the board. */
export function UnitQuestion({ file, drawing, onTake, onLeave }: Props) {
  const { x, y } = drawing.size;
  const inch = inInches(drawing);
  const measured = (d: Drawing) => `${sayLength(d.size.x, 1)} × ${sayLength(d.size.y, 1)}`;
  return (
    <fieldset className="mt-2 text-[13px]">
      <legend className="leading-snug">
        {file} does not say its unit. It is {trimNumber(x, 3)} × {trimNumber(y, 3)}:
      </legend>
      <div className="mt-1 flex flex-wrap gap-1">
        <button type="button" className="btn btn-sm" onClick={() => onTake({ ...drawing, unitKnown: true })}>
          millimetres, {measured(drawing)}
        </button>
        <button type="button" className="btn btn-sm" onClick={() => onTake(inch)}>
          inches, {measured(inch)}
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={onLeave}>
          Leave it out
        </button>
      </div>
    </fieldset>
  );
}
