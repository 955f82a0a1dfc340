import { type Picture, shade } from '../arrange/picture';
import type { Board } from '../doc/board';
import type { Job } from '../doc/job';
import { boardGrid, type Grid } from '../field/height-field';
import type { KernelHost } from '../kernels/host';
import { SEGMENT } from '../kernels/segment';
import { removeBy } from '../kernels/spans';
import { readFor } from '../program/round';
import { frameBetween, zeroOf } from '../setup/frame';
import { type SetupView, viewOf } from '../setup/view';
import { trimNumber } from '../units/length';
import { stretchesOf, type WrittenProgram } from './simulate';
import { replaceSurface, type Solid, surfaceOf, wholeBoard } from './solid';
import { websOf } from './web';

/** How a board lies beside its place after it has been turned over: moved, mm, and turned about its middle, degrees counter-clockwise. */
export interface Beside {
  x: number;
  y: number;
  turn: number;
}

/** What becomes of a board that lies so. */
export interface StudyCase {
  beside: Beside;
  /** How far its farthest corner lies beside its place, mm. */
  corner: number;
  /** Wood at its thinnest place, mm, and what is thinner than it is to be or open, mm2; what is so with the board in its place left out. */
  web: number;
  thin: number;
  open: number;
  /** Wood that is gone and should stand, and that stands and should be gone, as against a board in its place, mm3. */
  gone: number;
  left: number;
  solid: Solid;
}

/** A setup with its programs. */
export interface SetupToStudy {
  view: SetupView;
  programs: Pick<WrittenProgram, 'file' | 'text' | 'tool'>[];
}

/** Most cells along the longer side of the grid that a study is cut on, and the finest of them, mm. */
const CELLS = 500;
const FINEST = 0.1;

/** Nine ways to lie: in its place, moved to each side, turned both ways, and the two worst of both together. */
export const waysToLie = (shift: number, turn: number): Beside[] => [
  { x: 0, y: 0, turn: 0 },
  { x: shift, y: 0, turn: 0 },
  { x: -shift, y: 0, turn: 0 },
  { x: 0, y: shift, turn: 0 },
  { x: 0, y: -shift, turn: 0 },
  { x: 0, y: 0, turn },
  { x: 0, y: 0, turn: -turn },
  { x: shift, y: shift, turn },
  { x: -shift, y: -shift, turn: -turn },
];

/** How a board lies beside its place, in words; lengths as a function says them. */
export function besideInWords({ x, y, turn }: Beside, say: (mm: number) => string): string {
  if (x === 0 && y === 0 && turn === 0) return 'in its place';
  return [
    ...(x !== 0 || y !== 0 ? [`moved ${trimNumber(x, 3)}, ${say(y)}`] : []),
    ...(turn !== 0 ? [`turned ${trimNumber(turn, 3)}°`] : []),
  ].join(' and ');
}

/** The setups of a board with their programs; those in reserve are left out. Empty where the board is cut from one side alone. */
export function setupsToStudy(
  document: Job,
  board: Board,
  programs: { setup: string; reserve: boolean; file: string; text: string; cutter: number }[],
): SetupToStudy[] {
  if (new Set(board.setups.map((s) => s.up)).size < 2) return [];
  return board.setups.map((setup) => ({
    view: viewOf(document, { board, setup }),
    programs: programs
      .filter((p) => p.setup === setup.id && !p.reserve)
      .map(({ file, text, cutter }) => ({ file, text, tool: cutter })),
  }));
}

/** How thick a solid is, for a picture of it. */
export function webPicture({ solid: { grid, top, bottom } }: Pick<StudyCase, 'solid'>, board: Board): Picture {
  const web = { wood: top.map((v, k) => v - bottom[k]), least: board.web, thickness: board.thickness };
  return shade({
    grid,
    heights: top,
    mask: new Uint8Array(top.length),
    web,
    paper: [255, 255, 255],
    hatch: [0, 0, 0],
  });
}

/** Segments as they meet a board that lies beside its place: the bit goes where it goes, so that on the board it lies the other way. */
function onBoard(segments: Float64Array, { x, y, turn }: Beside, board: Pick<Board, 'x' | 'y'>): Float64Array {
  const out = segments.slice();
  const a = (-turn * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  const [mx, my] = [board.x / 2, board.y / 2];
  for (let i = 0; i < out.length; i += SEGMENT)
    for (const k of [i, i + 3]) {
      const [u, v] = [segments[k] - x - mx, segments[k + 1] - y - my];
      out[k] = mx + u * c - v * s;
      out[k + 1] = my + u * s + v * c;
    }
  return out;
}

/** A board cut by all its setups' programs; those after the first that turn it over find it beside its place. */
async function cutBeside(
  board: Board,
  setups: SetupToStudy[],
  beside: Beside,
  grid: Grid,
  host: KernelHost,
): Promise<Solid> {
  const solid = wholeBoard(grid, board.thickness);
  const [first] = setups;
  for (const s of setups) {
    const frame = frameBetween(board, first.view.setup, s.view.setup);
    const surface = surfaceOf(solid, frame);
    for (const p of s.programs) {
      const zero = zeroOf(board, s.view.setup);
      const read = readFor(p, null, zero.z);
      for (const { cutter, segments } of stretchesOf(read, s.view.cutters, zero))
        await removeBy(host, surface, cutter, frame.turned ? onBoard(segments, beside, board) : segments);
    }
    replaceSurface(solid, frame, surface.data);
  }
  return solid;
}

const woodAt = ({ top, bottom }: Solid, k: number) => Math.max(0, top[k] - bottom[k]);

/** Cells within so many of one of a mask. */
function grown(mask: Uint8Array, { width, height }: Grid, by: number): Uint8Array {
  let now = mask;
  for (let n = 0; n < by; n++) {
    const next = now.slice();
    for (let k = 0; k < now.length; k++) {
      if (!now[k]) continue;
      const i = k % width;
      if (i > 0) next[k - 1] = 1;
      if (i + 1 < width) next[k + 1] = 1;
      if (k >= width) next[k - width] = 1;
      if (k + width < width * height) next[k + width] = 1;
    }
    now = next;
  }
  return now;
}

/**
 * What a board comes to whose setups after the first find it beside its place: the programs as written cut a solid, once for each way to lie, on a coarse
 * grid. Bits cut at the same heights: what touching off leaves in Z adds to the web as it is.
 * @param shift mm, at least 0
 * @param turn degrees, at least 0
 * @param onCase called after each of the nine
 * @throws ProgramError
 */
export async function studyBeside(
  board: Board,
  setups: SetupToStudy[],
  { shift, turn }: { shift: number; turn: number },
  host: KernelHost,
  onCase: (done: number) => void = () => {},
): Promise<StudyCase[]> {
  const grid = boardGrid(board.x, board.y, Math.max(FINEST, Math.max(board.x, board.y) / CELLS));
  const out: StudyCase[] = [];
  let placed: { solid: Solid; thin: Uint8Array } | null = null;
  for (const beside of waysToLie(shift, turn)) {
    const solid = await cutBeside(board, setups, beside, grid, host);
    const corner =
      Math.hypot(board.x, board.y) * Math.sin((Math.abs(beside.turn) * Math.PI) / 360) + Math.hypot(beside.x, beside.y);
    // What is thin with the board in its place the proof has judged: cut-outs with their tabs, wanted openings. Its rim goes as far as it may be moved.
    placed ??= { solid, thin: new Uint8Array(solid.top.length).map((_, k) => (woodAt(solid, k) < board.web ? 1 : 0)) };
    const through = grown(placed.thin, grid, 1 + Math.ceil(corner / grid.cell));
    const area = grid.cell ** 2;
    const { web } = websOf(solid, board.web, (k) => through[k] === 1, []);
    let [thin, open, gone, left] = [0, 0, 0, 0];
    for (let k = 0; k < through.length; k++) {
      const wood = woodAt(solid, k);
      const more = wood - woodAt(placed.solid, k);
      if (more < 0) gone -= more * area;
      else left += more * area;
      if (through[k]) continue;
      if (wood === 0) open += area;
      else if (wood < board.web) thin += area;
    }
    out.push({ beside, corner, web, thin, open, gone, left, solid });
    onCase(out.length);
  }
  return out;
}
