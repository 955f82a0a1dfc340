import { copyBounds } from '../arrange/place';
import { FRAIL } from '../arrange/target';
import type { OutlineRef } from '../doc/outline-ref';
import { outlineOfPass, type Pass } from '../doc/pass';
import { growBox } from '../outline/boxes';
import type { Bounds } from '../outline/polygon';
import { turnedBox } from '../setup/frame';
import { type SetupView, seenLayers } from '../setup/view';
import { kindOf } from './registry';

/** The boxes of the layers that an outline is made of. */
function outlineBoxes(view: SetupView, { of, grow }: OutlineRef): Bounds[] {
  const named = seenLayers(view).filter((l) => (of ? of.includes(l.id) : !l.hidden));
  return named.flatMap((l) => {
    const boxes = copyBounds(l).map((b) => growBox(b, Math.max(0, grow)));
    const { turnedIn } = l;
    return turnedIn ? boxes.map((b) => turnedBox(turnedIn, b)) : boxes;
  });
}

/** Where a pass works before its bit's width counts, in its setup's coordinates; null for the whole board. */
export function workedOn(view: SetupView, pass: Pass, trench: number): Bounds[] | null {
  const own = kindOf(pass).ground?.(pass);
  if (own) return own === 'board' ? null : own;
  const outline = outlineOfPass(pass);
  if (outline) return outlineBoxes(view, outline);
  if (!('area' in pass) || pass.area.kind === 'face') return null;
  if (pass.area.kind === 'frame') return [pass.area];
  return view.layers
    .filter((l) => !l.hidden)
    .flatMap(copyBounds)
    .map((b) => growBox(b, trench + FRAIL));
}
