import type { Cutter } from '../cutter/cutter';
import { inSetup } from '../doc/edits';
import { cutterOf } from '../doc/job';
import type { Edit } from '../findings/edit';
import { clipBox, growBox } from '../outline/boxes';
import type { Bounds } from '../outline/polygon';
import { boxThrough, frameBetween, turnedPlace, turningOf } from '../setup/frame';
import { holdingBox } from '../setup/holding';
import { type SetupView, viewOf } from '../setup/view';
import { clean } from '../units/round';
import { addPass } from './add-pass';
import { UNDER_IT } from './bed';
import type { HolePass } from './hole/schema';
import { kindOf } from './registry';
import { resolveTrenches } from './trenches';
import { bitFor } from './with-bit';
import { workedOn } from './worked-on';

/** Dowels that are proposed: their diameter, how much wider their holes are, how deep they stand in the spoilboard (common practice, no source), mm. */
const DOWEL = { diameter: 6, clearance: 0.1, into: 8 };
/** Wood that stays around a dowel's hole, mm. */
const AROUND = 3;
/** The two lie uneven about the board's middle by this at least, mm: more than anyone overlooks. */
const UNEVEN = 8;
/** Steps in which room is looked for, mm. */
const STEP = 0.5;
/** How near a place is to where it is to be, mm. */
const SAME = 0.02;

type Place = { x: number; y: number };

/** What of a board is cut or held, in the coordinates of a setup of it; skims are left out, for holes go through what they leave. */
function takenOf(view: SetupView): Bounds[] {
  const { board, document } = view;
  return board.setups.flatMap((setup) => {
    const own = viewOf(document, { board, setup });
    const frame = frameBetween(board, setup, view.setup);
    const trenches = resolveTrenches(own);
    const cut = own.passes.flatMap((pass, i) => {
      const bit = cutterOf(own, pass);
      if (!bit || pass.kind === 'skim' || (pass.kind === 'hole' && pass.dowel !== null)) return [];
      const reach = kindOf(pass).beyond?.(pass, bit) ?? bit.diameter;
      const boxes = workedOn(own, pass, trenches[i]) ?? [{ x0: 0, y0: 0, x1: board.x, y1: board.y }];
      return boxes.map((b) => growBox(b, reach));
    });
    const held = setup.holding
      .filter((h) => h.height > 0)
      .map((h) => {
        const { x, y, width, depth } = holdingBox(h);
        return growBox({ x0: x, y0: y, x1: x + width, y1: y + depth }, h.keptFree);
      });
    return [...cut, ...held].map((b) => boxThrough(frame, b));
  });
}

/**
 * Two places for dowels on the axis that the board is turned over about, as far apart as there is room, clear of all that is cut and held from either
 * side, and not even about the board's middle, so that it cannot go back the wrong way round. None where the axis has no such room.
 */
export function dowelPlaces(view: SetupView, diameter: number): Place[] | null {
  const { board } = view;
  const { about } = turningOf(board);
  const long = about === 'about-y' ? board.y : board.x;
  const at = (t: number): Place => (about === 'about-y' ? { x: board.x / 2, y: t } : { x: t, y: board.y / 2 });
  const room = diameter / 2 + AROUND;
  const taken = takenOf(view);
  const free = (t: number) => {
    const p = at(t);
    const box = growBox({ x0: p.x, y0: p.y, x1: p.x, y1: p.y }, room);
    const inside = clipBox(box, board);
    if (!inside || inside.x1 - inside.x0 < 2 * room - 1e-9 || inside.y1 - inside.y0 < 2 * room - 1e-9) return false;
    return !taken.some((b) => b.x0 < box.x1 && b.x1 > box.x0 && b.y0 < box.y1 && b.y1 > box.y0);
  };
  const all: number[] = [];
  for (let t = room; t <= long - room + 1e-9; t += STEP) if (free(t)) all.push(clean(t));
  const first = all[0];
  // As far from it as goes, but never where the pair lies even about the middle.
  const second = all.findLast((t) => Math.abs(t - (long - first)) >= UNEVEN && t - first >= 4 * diameter);
  return first === undefined || second === undefined ? null : [at(first), at(second)];
}

/** Whether every place lies on one of them once it has been carried somewhere. */
const carried = (places: Place[], to: (p: Place) => Place) =>
  places.every((p) => {
    const q = to(p);
    return places.some((r) => Math.hypot(r.x - q.x, r.y - q.y) <= SAME);
  });

/** What is wrong with where dowels stand; null when nothing is. */
export type DowelFault = 'alone' | 'outside' | 'off-axis' | 'symmetric';

/** Whether dowels hold a board in its place when it is turned over, and in no other. */
export function dowelFault(
  { board }: Pick<SetupView, 'board'>,
  { places, diameter }: Pick<HolePass, 'places' | 'diameter'>,
): DowelFault | null {
  const r = diameter / 2;
  if (places.some((p) => p.x < r || p.y < r || p.x > board.x - r || p.y > board.y - r)) return 'outside';
  const over = turningOf(board);
  const other = turningOf({ ...board, flip: over.about === 'about-y' ? 'about-x' : 'about-y' });
  if (places.length < 2) return 'alone';
  if (!carried(places, (p) => turnedPlace(over, p))) return 'off-axis';
  // The board turned over about its other axis, or round where it lies, would fit as well.
  return carried(places, (p) => turnedPlace(other, p)) ||
    carried(places, (p) => turnedPlace(over, turnedPlace(other, p)))
    ? 'symmetric'
    : null;
}

/** The pass of a board that makes holes for dowels; null where none does. */
export const dowelsOf = ({ setups }: Pick<SetupView['board'], 'setups'>): HolePass | null =>
  setups.flatMap((s) => s.passes).find((p): p is HolePass => p.kind === 'hole' && p.dowel !== null) ?? null;

/** How far a board on dowels can lie beside its place: moved, mm, turned, degrees, and both together at its farthest corner, mm. */
export interface Play {
  shift: number;
  turn: number;
  corner: number;
}

/**
 * The play that dowels leave. A dowel has half its hole's clearance to every side, in the board and in the spoilboard, so that a hole lies up to the whole
 * clearance beside its place; two that give way to opposite sides turn the board by twice that over their distance (arithmetic).
 */
export function playOf(
  { board }: Pick<SetupView, 'board'>,
  { places, diameter, dowel }: Pick<HolePass, 'places' | 'diameter' | 'dowel'>,
): Play | null {
  if (dowel === null || places.length < 2) return null;
  const shift = Math.max(0, diameter - dowel);
  let far = 0;
  for (const a of places) for (const b of places) far = Math.max(far, Math.hypot(a.x - b.x, a.y - b.y));
  if (far === 0) return null;
  const angle = Math.asin(Math.min(1, (2 * shift) / far));
  const middle = {
    x: places.reduce((s, p) => s + p.x, 0) / places.length,
    y: places.reduce((s, p) => s + p.y, 0) / places.length,
  };
  const reach = Math.max(
    ...[0, board.x].flatMap((x) => [0, board.y].map((y) => Math.hypot(x - middle.x, y - middle.y))),
  );
  return { shift, turn: (angle * 180) / Math.PI, corner: shift + 2 * reach * Math.sin(angle / 2) };
}

/**
 * Edits that add holes for dowels to a setup, with the bit that suits them; null where there is no room for them or no bit.
 * @param atHand bits that may be taken besides the job's
 */
export function addDowels(view: SetupView, atHand: Cutter[] = []): Edit[] | null {
  const bit = bitFor('hole', [...view.cutters, ...atHand]);
  if (!bit) return null;
  const drilled = bit.maxPlungeDepth > 0;
  const diameter = drilled
    ? bit.diameter
    : Math.max(clean(DOWEL.diameter + DOWEL.clearance), clean(1.25 * bit.diameter));
  const places = dowelPlaces(view, diameter);
  if (!places) return null;
  const edits = addPass(view, 'hole', bit);
  const insert = edits.at(-1);
  if (!insert || !('insert' in insert)) return null;
  const pass: HolePass = {
    ...(insert.value as HolePass),
    places,
    diameter,
    depth: null,
    into: Math.max(0, Math.min(DOWEL.into, (view.setup.spoilboard ?? 0) - UNDER_IT)),
    dowel: clean(diameter - DOWEL.clearance),
  };
  return [...edits.slice(0, -1), { ...insert, value: pass }];
}

/** Edits that stand a setup's dowels where they belong; null where there is no room. */
export function placeDowels(view: SetupView, pass: HolePass): Edit[] | null {
  const places = dowelPlaces(view, pass.diameter);
  return places && [{ set: inSetup(view, 'passes', { id: pass.id }, 'places'), to: places }];
}
