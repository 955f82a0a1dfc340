import type { Found } from '../../findings/finding';
import type { Board } from '../board';
import { ROTARY_AXIS } from '../defaults';
import { freeOf, sheetOf } from '../drum';
import { inSetup } from '../edits';
import type { Job } from '../job';
import { problem } from './problem';

/** A sheet that is so much wider or narrower than the drum is round still goes round it, mm. */
const NEAR = 0.01;
/** Least length between chuck and tail stock that is worth turning, mm. */
const LEAST = 10;

/** A collar that does not lie between what holds the drum. */
function ofCollar(board: Board, path: (string | number)[]): Found[] {
  const [from, to] = freeOf(board);
  const collar = board.drum?.collar;
  if (!collar || (collar.x - collar.width / 2 >= from && collar.x + collar.width / 2 <= to)) return [];
  const edits = [{ set: ['boards', { id: board.id }, 'drum', 'collar'], to: null }];
  return [
    problem(
      'collar-place',
      [...path, 'drum', 'collar'],
      { x: collar.x, width: collar.width, from, to },
      { fixes: [{ id: 'no-collar', figures: {}, edits }] },
    ),
  ];
}

function ofDrum(job: Job, board: Board, path: (string | number)[]): Found[] {
  const out: Found[] = [];
  if (!job.machine.rotary)
    out.push(
      problem(
        'drum-machine',
        ['machine', 'rotary'],
        { machine: job.machine.name },
        {
          fixes: [{ id: 'rotary-axis', figures: {}, edits: [{ set: ['machine', 'rotary'], to: { ...ROTARY_AXIS } }] }],
        },
      ),
    );
  const at = ['boards', { id: board.id }] as const;
  const sheet = sheetOf(board.thickness);
  if (Math.abs(board.y - sheet) > NEAR)
    out.push(
      problem(
        'drum-sheet',
        [...path, 'y'],
        { width: board.y, round: sheet, diameter: 2 * board.thickness },
        { fixes: [{ id: 'sheet-round', figures: { round: sheet }, edits: [{ set: [...at, 'y'], to: sheet }] }] },
      ),
    );
  const [from, to] = freeOf(board);
  const [chuck, tailStock] = [from, board.x - to];
  const least = chuck + tailStock + LEAST;
  if (board.x < least)
    out.push(
      problem(
        'drum-short',
        [...path, 'x'],
        { length: board.x, chuck, tailStock, least },
        { fixes: [{ id: 'longer-drum', figures: { length: least }, edits: [{ set: [...at, 'x'], to: least }] }] },
      ),
    );
  out.push(...ofCollar(board, path));
  board.setups.forEach((setup, i) => {
    if (setup.up === 'face') return;
    out.push(
      problem(
        'drum-side',
        [...path, 'setups', i, 'up'],
        { setup: setup.name },
        {
          subject: { setup: setup.id },
          fixes: [{ id: 'drum-face', figures: {}, edits: [{ set: inSetup({ board, setup }, 'up'), to: 'face' }] }],
        },
      ),
    );
  });
  return out;
}

/** What a board that is a drum has wrong: no machine to turn it, a sheet that does not go round it, no length to carve, a side to lie on. */
export const drums = (job: Job): Found[] => job.boards.flatMap((b, i) => (b.drum ? ofDrum(job, b, ['boards', i]) : []));
