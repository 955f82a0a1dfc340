import { fitted, type Layout, onScreen } from './layout';

interface Place {
  x: number;
  y: number;
}

interface Room {
  width: number;
  height: number;
}

/** What of the board is looked at: pixels a mm, and the place in the middle of the view, mm. Null stands for the whole board. */
export interface Camera extends Place {
  scale: number;
}

/** What a camera looks at: the room of the view, what is left free around a whole board, the board, and which way up it is shown. */
export interface Looking {
  room: Room;
  pad: number;
  board: Place;
  turned: boolean;
}

/** Pixels a mm beyond which nothing more is to be seen: cells of 0.025 mm are as large as five of them. */
export const CLOSEST = 200;
/** Pixels a mm of a screen that shows 96 pixels an inch, as the browsers' own millimetre has it (CSS Values and Units). */
export const REAL = 96 / 25.4;
/** By how much a step closer or further goes. */
export const STEP = 1.5;

const within = (v: number, from: number, to: number) => Math.min(to, Math.max(from, v));

/** How a board lies in its room as a camera sees it. */
export function laidOut(looking: Looking, camera: Camera | null): Layout {
  const whole = fitted(looking.room, looking.pad, looking.board, looking.turned);
  if (!camera) return whole;
  const k = looking.turned ? -camera.scale : camera.scale;
  const { width, height } = looking.room;
  return { ...whole, scale: camera.scale, x0: width / 2 - camera.x * k, y0: height / 2 + camera.y * k };
}

/** A camera as near as is allowed that still sees the board; null where it sees all of it. */
function kept(looking: Looking, { scale, x, y }: Camera): Camera | null {
  const whole = fitted(looking.room, looking.pad, looking.board, looking.turned);
  if (scale <= whole.scale * 1.001) return null;
  return { scale: Math.min(scale, CLOSEST), x: within(x, 0, looking.board.x), y: within(y, 0, looking.board.y) };
}

/** The camera that has a place of the board at a place of the view, at a scale. */
function over(looking: Looking, place: Place, at: Place, scale: number): Camera | null {
  const whole = fitted(looking.room, looking.pad, looking.board, looking.turned);
  const bound = within(scale, whole.scale, CLOSEST);
  const k = looking.turned ? -bound : bound;
  const { width, height } = looking.room;
  return kept(looking, { scale: bound, x: place.x + (width / 2 - at.x) / k, y: place.y + (at.y - height / 2) / k });
}

/** Closer by a factor, or further: the place under a pixel stays under it, as far as the board stays in view. */
export function zoomed(looking: Looking, camera: Camera | null, at: Place, factor: number): Camera | null {
  const layout = laidOut(looking, camera);
  return over(looking, onScreen(layout).place(at.x, at.y), at, layout.scale * factor);
}

/** Two fingers that have moved apart and along: the place that lay between them stays there. */
export function pinched(
  looking: Looking,
  camera: Camera | null,
  from: Place,
  to: Place,
  factor: number,
): Camera | null {
  const layout = laidOut(looking, camera);
  return over(looking, onScreen(layout).place(from.x, from.y), to, layout.scale * factor);
}

/** The board drawn along by so many pixels. */
export const panned = (looking: Looking, camera: Camera | null, by: Place): Camera | null =>
  camera && pinched(looking, camera, { x: 0, y: 0 }, by, 1);

/** At so many pixels a mm, around what is in the middle. */
export const atScale = (looking: Looking, camera: Camera | null, scale: number): Camera | null => {
  const middle = { x: looking.room.width / 2, y: looking.room.height / 2 };
  return zoomed(looking, camera, middle, scale / laidOut(looking, camera).scale);
};

/** Looks at a place from as near as it has to be to see something of a size, mm, or from where it is if that is nearer. */
export function closeTo(looking: Looking, camera: Camera | null, place: Place, size: number): Camera | null {
  const { width, height } = looking.room;
  const scale = Math.max(laidOut(looking, camera).scale, Math.min(width, height) / size);
  return kept(looking, { ...place, scale });
}

/** The part of the board that is in view, mm, with a share of it more on every side, within the board. */
export function inView(
  { room, board }: Looking,
  layout: Layout,
  more = 0,
): { x0: number; y0: number; x1: number; y1: number } {
  const { place } = onScreen(layout);
  const [a, b] = [place(0, 0), place(room.width, room.height)];
  const [w, h] = [Math.abs(b.x - a.x) * more, Math.abs(b.y - a.y) * more];
  return {
    x0: within(Math.min(a.x, b.x) - w, 0, board.x),
    y0: within(Math.min(a.y, b.y) - h, 0, board.y),
    x1: within(Math.max(a.x, b.x) + w, 0, board.x),
    y1: within(Math.max(a.y, b.y) + h, 0, board.y),
  };
}

/** A round length for a scale bar, in the unit's own figures, that is as long as fits into so many pixels. */
export function barLength(scale: number, unit: number, pixels: number): number {
  const most = pixels / scale / unit;
  const ten = 10 ** Math.floor(Math.log10(most));
  return ([5, 2, 1].find((n) => n * ten <= most) ?? 1) * ten * unit;
}
