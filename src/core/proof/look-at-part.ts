import type { Wanted } from '../arrange/target';
import type { Drum } from '../field/drum';
import { cellPlace, type HeightField } from '../field/height-field';
import type { Found } from '../findings/finding';
import { ENGAGED, VOLUME } from '../kernels/engagement';
import { SEGMENT } from '../kernels/segment';
import { spansOf } from '../kernels/spans';
import { engageStock } from '../kernels/stock-removal';
import type { Frame } from '../setup/frame';
import type { SetupView } from '../setup/view';
import { found } from './checks/registry';
import type { AfterCut } from './checks/rule';
import { type LookCloser, lookCloser } from './closer';
import { type CutoutProof, checkCutout, type PlannedCutout } from './connect';
import { compareSurfaces, type Deviation, type LeftOver } from './deviation';
import type { EyeFigures } from './eye';
import { lineOf, type Run } from './simulate';
import { replaceSurface, type Solid, type StandingBoard, woodUnder } from './solid';

/** One part of a setup: a rectangle of the board with cells of its own. */
export interface PartToProve {
  target: Wanted;
  /** Cells where cut-outs and holes go through the board, null when there is none. */
  through: Uint8Array | null;
  /** Looks closer at windows of it. */
  look: LookCloser;
}

/** A cut-out as it was planned, with its pass. */
export type CutoutOfPass = PlannedCutout & { pass: string };

/** What still joins a cut-out's piece to its frame, with the cut-out's pass. */
export type FoundCutout = CutoutProof & { pass: string };

/** What is seen of one part after all programs of a setup. */
export interface PartLook {
  eye: EyeFigures;
  /** Deepest cut below the board's top as it lies, mm; what goes through on purpose left out. */
  deepest: number;
  cutouts: FoundCutout[];
  found: Found[];
  map: Float32Array;
  left: LeftOver;
}

/** A part as a setup's programs have left it. */
export interface PartCut {
  view: SetupView;
  solid: StandingBoard;
  frame: Frame;
  cut: HeightField;
  ways: Way[];
  /** The cut-outs that lie in it. */
  cutouts: CutoutOfPass[];
}

/** Holds a part against its target, and puts what was cut of it into the solid. */
export async function lookAtPart(toProve: PartToProve, part: PartCut): Promise<PartLook> {
  const { target, through, look } = toProve;
  const { view, solid, frame, cut, ways } = part;
  const { deviation, deepest } = compared(cut, replaceSurface(solid, frame, cut.data), toProve);
  // While others look closer, this thread looks at what is joined.
  const looking = lookCloser(target, deviation.map, ways, look);
  const cutouts = through && part.cutouts.length > 0 ? cutoutsOf(part, through) : [];
  const closer = await looking;
  const finer = closer.deepest && closer.deepest.deep < deviation.deepest ? closer.deepest : null;
  if (finer) Object.assign(deviation, { deepest: finer.deep, deepestAt: finer.cell });
  const cutBy = (cell: number) => lastOver(ways, finer && finer.cell === cell ? finer : cellPlace(cut, cell), cut.drum);
  const said = found('cut', { view, target, cut, deviation, cutouts, cutBy });
  return { found: said, map: deviation.map, left: deviation.left, eye: closer.eye, deepest, cutouts };
}

/** Whether a cell or one of its neighbours is a slot's: walls are met to a cell. */
export function besideSlot(slots: Uint8Array, k: number, width: number): boolean {
  for (const row of [k - width, k, k + width]) for (let q = row - 1; q <= row + 1; q++) if (slots[q]) return true;
  return false;
}

/**
 * How a cut surface lies to its target, and how deep it goes where nothing was to go through, mm.
 * @param before as it stood before the setup: what an earlier one has cut is not asked back. Becomes the target that is compared with
 */
function compared(
  cut: HeightField,
  before: HeightField,
  { target, through }: PartToProve,
): { deviation: Deviation; deepest: number } {
  let lowest = 0;
  for (let k = 0; k < cut.data.length; k++) {
    const v = cut.data[k];
    if (v < lowest && before.data[k] > v && !(through && besideSlot(through, k, cut.width))) lowest = v;
    if (target.field.data[k] < before.data[k]) before.data[k] = target.field.data[k];
  }
  return { deviation: compareSurfaces(cut, before, target.mask), deepest: -lowest };
}

/** What still joins each cut-out's piece to its frame. */
function cutoutsOf({ view, solid, frame, cut, cutouts }: PartCut, through: Uint8Array): FoundCutout[] {
  const wood = standingOf(solid, frame, cut.data);
  return cutouts.map((c) => ({ ...checkCutout(wood, through, view.board.thickness, c), pass: c.pass }));
}

/** What of a run tells which of its moves cut a place. */
export type Way = Pick<Run, 'file' | 'lines' | 'notes' | 'cutter' | 'segments'>;
export const wayOf = ({ file, lines, notes, cutter, segments }: Run): Way => ({ file, lines, notes, cutter, segments });

/** The last move that lowered a place: all runs cut a field of that one cell again, round a drum one ray. */
function lastOver(ways: Way[], { x, y }: { x: number; y: number }, drum?: Drum): ReturnType<AfterCut['cutBy']> {
  const data = new Float32Array([1e3]);
  const one: HeightField = { width: 1, height: 1, cell: 0.01, originX: x, originY: y, data, ...(drum ? { drum } : {}) };
  let last: ReturnType<AfterCut['cutBy']> = {};
  for (const way of ways) {
    for (const { profile, segments, from } of spansOf(way.cutter, way.segments)) {
      const told = engageStock(one, profile, segments, 0);
      for (let i = segments.length / SEGMENT - 1; i >= 0; i--) {
        if (told[i * ENGAGED + VOLUME] === 0) continue;
        last = lineOf(way, from + i);
        break;
      }
    }
  }
  return last;
}

/** How much wood stands, as the height of a board of that thickness with an even underside, in a setup's coordinates. */
function standingOf(solid: Solid, frame: Frame, surface: Float32Array): HeightField {
  const wood = woodUnder(solid, frame, surface);
  for (let k = 0; k < wood.data.length; k++) wood.data[k] -= frame.thickness;
  return wood;
}
