import type { DrumStock } from '../../../doc/board';
import { freeOf } from '../../../doc/drum';
import { type LayerOf, PLAIN_LAYER } from '../../../doc/layer';
import { clean } from '../../../units/round';
import { flatAcross } from './forms';
import type { TurnedForm } from './schema';

/** A drum that forms are laid on: its length, sheet and radius, and what is held at its ends, mm. */
export interface DrumSize {
  x: number;
  y: number;
  thickness: number;
  drum: DrumStock | null;
}

/** Share of the radius that a new form goes down. */
const DEEP: Record<TurnedForm['kind'], number> = {
  cylinder: 0.3,
  contour: 0.3,
  beads: 0.2,
  flat: 0.25,
  flutes: 0.12,
  knurl: 0.06,
};

/** Whether a form counts from the blank's circle, whatever lies beneath it; grooves are carved into what is there. */
export const fromBlank = (form: TurnedForm): boolean => form.kind !== 'flutes' && form.kind !== 'knurl';

/** Brings a layer to a depth, mm, and lets it count from where its form does: from the blank's circle, or carved into what lies beneath. */
export function deepenTurned(l: LayerOf<'turned'>, rise: number): void {
  const blank = fromBlank(l.source.form);
  Object.assign(l, { rise, invert: blank, join: blank ? 'lowest' : 'carve', lift: blank ? -rise : 0 });
}

/** A form as it begins on a drum. */
export function freshForm(kind: TurnedForm['kind'], { thickness: R }: Pick<DrumSize, 'thickness'>): TurnedForm {
  switch (kind) {
    case 'contour':
      return {
        kind,
        points: [
          { along: 0, down: 0 },
          { along: 0.5, down: 1 },
          { along: 1, down: 0 },
        ],
        curved: true,
      };
    case 'beads':
      return { kind, count: 3 };
    case 'flutes':
      return { kind, count: 12, twist: 0, section: { kind: 'ball', radius: clean(Math.max(1, 0.15 * R)) } };
    case 'knurl':
      return { kind, count: 24, slant: 45, angle: 90 };
    default:
      return { kind };
  }
}

/** A turned form between what holds a drum, as deep as one of its kind begins. */
export function newTurned(id: string, name: string, form: TurnedForm, board: DrumSize): LayerOf<'turned'> {
  const R = board.thickness;
  const [from, to] = freeOf(board);
  const free = Math.max(1, to - from);
  const share = form.kind === 'contour' ? 0.9 : form.kind === 'flutes' ? 0.7 : 0.3;
  const rise = clean(DEEP[form.kind] * R);
  const layer: LayerOf<'turned'> = {
    ...structuredClone(PLAIN_LAYER),
    id,
    name,
    source: { kind: 'turned', form },
    size: { x: clean(share * free), y: form.kind === 'flat' ? clean(flatAcross(R, rise)) : board.y },
    rise,
    centre: { x: clean(from + free / 2), y: clean(board.y / 2) },
  };
  deepenTurned(layer, rise);
  return layer;
}
