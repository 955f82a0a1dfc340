import { newShape } from '../arrange/new-layer';
import type { Cutter } from '../cutter/cutter';
import { profileOf } from '../cutter/cutter';
import { materialNamed, ROTARY_MACHINE } from '../doc/defaults';
import { asDrum, heldOver } from '../doc/drum';
import type { Layer } from '../doc/layer';
import { goesRound, type HeightField, makeField } from '../field/height-field';
import { drumOffset } from '../kernels/drum-offset';
import { removeStock } from '../kernels/stock-removal';
import type { SetupView } from '../setup/view';
import { drawerBit, plainSetup } from './plan-test-kit';

/** A small drum: 44 mm long, 20 across, held over 6 and 4 mm at its ends. */
export const DRUM = { x: 44, diameter: 20, chuck: 6, tailStock: 4 };
/** Round it, mm. */
export const AROUND = Math.PI * DRUM.diameter;

/** A round hollow that is carved into a drum. */
export const hollow = (id: string, x: number, y: number, more: Partial<Layer> = {}): Layer => ({
  ...newShape({ id, name: id }, { kind: 'circle' }, { kind: 'dome' }, { x: DRUM.x, y: AROUND }),
  size: { x: 12, y: 12 },
  centre: { x, y },
  rise: 1.5,
  join: 'carve',
  ...more,
});

/** A job of the small drum with layers sunk into it, roughed and finished, or as it is changed. */
export function drumJob(layers: Layer[], change: (v: SetupView) => void = () => {}): SetupView {
  const view = plainSetup({
    name: 'Drum',
    order: '',
    machine: ROTARY_MACHINE,
    rough: drawerBit('em3'),
    finish: drawerBit('ball3'),
    board: { x: DRUM.x, y: DRUM.x, thickness: DRUM.diameter / 2, material: materialNamed('beech') },
  });
  Object.assign(view.board, asDrum(DRUM.diameter, heldOver(DRUM.chuck, DRUM.tailStock)), { web: 4 });
  view.cell = 0.2;
  view.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
  view.layers = layers;
  change(view);
  return view;
}

/** What a bit leaves of a drum that has been at every place of its target's cells: along all of its rows and around all of its columns. */
export function reachable(target: HeightField, cutter: Cutter): HeightField {
  const { drum, width, height, cell, originX, originY } = target;
  if (!drum || !goesRound(target)) throw new Error('no drum');
  const profile = profileOf(cutter);
  const tips = drumOffset(target, drum, profile, 0);
  const out = makeField(target, 0);
  const segments: number[] = [];
  const put = (j: number, i: number, b: number, a: number) =>
    segments.push(
      ...[originX + i * cell, originY + j * cell, Math.min(1, tips[j * width + i])],
      ...[originX + a * cell, originY + b * cell, Math.min(1, tips[(b % height) * width + a]), 0],
    );
  for (let j = 0; j < height; j++) for (let i = 0; i + 1 < width; i++) put(j, i, j, i + 1);
  for (let i = 0; i < width; i++) for (let j = 0; j < height; j++) put(j, i, j + 1, i);
  removeStock(out, profile, Float64Array.from(segments));
  return out;
}
