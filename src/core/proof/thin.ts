import type { Board } from '../doc/board';
import { cellPlace } from '../field/height-field';
import { type Frame, frameBetween, placeThrough, turnedCells } from '../setup/frame';
import type { SetupView } from '../setup/view';
import type { ThinPlace } from './checks/rule';
import { besideSlot, type PartToProve } from './look-at-part';
import type { StandingBoard } from './solid';
import { websOf } from './web';

/** A setup whose parts have been cut, with where they go through. */
interface CutSetup {
  view: SetupView;
  parts: Pick<PartToProve, 'through'>[];
}

/** Most thin places of a board that are told. */
const MOST_PLACES = 20;

interface Thin {
  thinnest: { web: number; x: number; y: number };
  places: ThinPlace[];
}

/** What is thin of a board whose setups have been cut, in the first setup's coordinates, where no setup is to go through it. */
export function thinOf(board: Board, solids: StandingBoard[], setups: CutSetup[], frames: Frame[]): Thin {
  const faceUp = frameBetween(board, setups[0].view.setup, { up: 'face' });
  const wanted = board.openings.map((p) => placeThrough(faceUp, p));
  let thinnest = { web: Infinity, x: 0, y: 0 };
  const places: ThinPlace[] = [];
  for (const [n, solid] of solids.entries()) {
    const { grid } = solid;
    const slots = new Uint8Array(grid.width * grid.height);
    for (const [i, s] of setups.entries()) {
      const { through } = s.parts[n];
      if (!through) continue;
      const { turned } = frames[i];
      const own = turned ? turnedCells(through, grid.width, turned) : through;
      for (let k = 0; k < slots.length; k++) slots[k] |= own[k];
    }
    const webs = websOf(solid, board.web, (k) => besideSlot(slots, k, grid.width), wanted);
    if (webs.web < thinnest.web) thinnest = { web: webs.web, ...cellPlace(grid, webs.cell) };
    for (const { cell, ...thin } of webs.thin) places.push({ ...thin, ...cellPlace(grid, cell) });
  }
  return { thinnest, places: places.sort((a, b) => a.web - b.web).slice(0, MOST_PLACES) };
}
