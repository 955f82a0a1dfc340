import { isOver, type Undercut } from '@/core/proof/hollow';
import { sayLength, sayNumber } from '@/core/units/say';
import { type PointerPlace, usePointer } from '../board-view/pointer-place';
import type { Part } from '../board-view/use-part';
import { readAt, type Surface } from '../job/surface';

/** Place and heights under the pointer, with the wood that is left there where both sides are carved. */
export function Readout({
  surface,
  part,
  undercuts,
  pointer: place,
}: {
  surface: Surface | null;
  /** What of it is known more finely. */
  part: Part | null;
  undercuts: Undercut[];
  pointer: PointerPlace;
}) {
  const pointer = usePointer(place);
  const at = (f: Surface['cut']) => (pointer ? readAt(f, pointer.x, pointer.y) : null);
  const fine = part && !part.web ? at({ ...part.grid, data: part.heights }) : null;
  const target = (surface && !surface.cut ? fine : null) ?? (surface && at(surface.target));
  const cut = (surface?.cut ? fine : null) ?? (surface && at(surface.cut));
  const hollow = pointer && undercuts.find((u) => isOver(u, pointer) && (cut ?? 0) > u.ceiling);
  const wood = surface?.web ? at({ ...surface.web.grid, data: surface.web.wood }) : null;
  return (
    <p className="shrink-0" aria-live="off" data-testid="readout">
      {pointer && target !== null ? (
        <>
          x {sayNumber(pointer.x, 1)}, y {sayLength(pointer.y, 1)}&ensp;<b>{sayNumber(target)}</b> target
          {cut !== null && <>&ensp;{sayNumber(cut)} proof</>}
          {hollow && (
            <>
              &ensp;hollow {sayNumber(hollow.ceiling)} to {sayNumber(hollow.floor)}
            </>
          )}
          {wood !== null && !hollow && <>&ensp;{wood > 0 ? `${sayNumber(wood)} web` : 'open'}</>}
        </>
      ) : (
        <span className="soft">point at the board to read depths</span>
      )}
    </p>
  );
}
