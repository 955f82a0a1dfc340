import { alongOneAxis, sizedBy, turnedTo } from '@/core/arrange/drag';
import { sourceKind } from '@/core/arrange/kinds/registry';
import { resizeLayer } from '@/core/arrange/new-layer';
import { snapBox } from '@/core/arrange/place';
import type { Layer } from '@/core/doc/layer';
import type { Bounds } from '@/core/outline/polygon';
import type { SetupView } from '@/core/setup/view';
import { clean } from '@/core/units/round';
import { editLayers, moveLayers } from './actions';

/** A box that what is moved may snap to, and its name. */
export interface Snapped {
  name: string;
  bounds: Bounds;
}

/** What is being dragged, and from where. */
export type Drag =
  | { kind: 'move'; ids: string[]; x: number; y: number; box: Bounds; others: Snapped[] }
  | { kind: 'size'; layer: Layer; x: number; y: number }
  | { kind: 'turn'; layer: Layer };

export type Edit = (j: SetupView) => void;
type Point = { x: number; y: number };
/** Keys that are held down meanwhile. */
type Keys = Pick<MouseEvent, 'shiftKey' | 'ctrlKey' | 'metaKey'>;

/** What moves the taken layers so that they follow the pointer; Shift keeps them on one axis, Ctrl lets go of all that would hold them. */
export function moveEdit(drag: Extract<Drag, { kind: 'move' }>, p: Point, keys: Keys, reach: number) {
  const by: [number, number] = [p.x - drag.x, p.y - drag.y];
  const [dx, dy] = keys.shiftKey ? alongOneAxis(...by) : by;
  const { x0, y0, x1, y1 } = drag.box;
  const moved = { x0: x0 + dx, x1: x1 + dx, y0: y0 + dy, y1: y1 + dy };
  const s = keys.ctrlKey || keys.metaKey ? { dx: 0, dy: 0, snaps: [] } : snapBox(moved, drag.others, reach);
  const [tx, ty] = [clean(dx + s.dx), clean(dy + s.dy)];
  return { snaps: s.snaps, edit: ((j) => moveLayers(j, drag.ids, tx, ty)) satisfies Edit };
}

/** What sizes a layer so that its corner follows the pointer; its proportions stay unless they are freed, and those of words always. */
export function sizeEdit({ layer, x, y }: Extract<Drag, { kind: 'size' }>, p: Point, freed: boolean): Edit {
  const [kx, ky] = sizedBy(layer, { x, y }, p, freed && !sourceKind(layer).scaled);
  return (j) => editLayers(j, [layer.id], (l) => resizeLayer(l, kx, ky));
}

/** What turns a layer so that its knob follows the pointer. */
export function turnEdit(layer: Layer, p: Point, fine: boolean): Edit {
  const turn = turnedTo(layer, p, fine);
  return (j) => editLayers(j, [layer.id], (l) => (l.turn = turn));
}
