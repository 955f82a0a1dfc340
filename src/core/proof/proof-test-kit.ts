import { MASK, type Target } from '../arrange/target';
import type { Cutter } from '../cutter/cutter';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { boardGrid, gridOf, makeField } from '../field/height-field';
import { localHost } from '../kernels/host';
import { plainSetup } from '../plan/plan-test-kit';
import type { SetupView } from '../setup/view';
import type { LookCloser } from './closer';
import { type BoardProof, proveBoard } from './prove';

const board = { x: 60, y: 40, thickness: 12, material: materialNamed('maple') };

/** A target that is cut to a depth between x = 10 and 50 and kept elsewhere; of its cut ground what lies above y = 30 is waste. */
export function slotTarget(depth = -2, waste = false): Target {
  const field = makeField(boardGrid(60, 40, 0.2), 0);
  const mask = new Uint8Array(field.data.length).fill(MASK.keep);
  for (let k = 0; k < mask.length; k++) {
    const x = field.originX + (k % field.width) * field.cell;
    const y = field.originY + Math.floor(k / field.width) * field.cell;
    if (x > 10 && x < 50) {
      mask[k] = waste && y > 30 ? MASK.waste : MASK.cut;
      field.data[k] = depth;
    }
  }
  return { field, mask, outside: new Float32Array(mask.length), ground: depth };
}

/** What is otherwise than in a small board of maple that an end mill of 6.35 mm cuts on a hobby machine. */
export interface Change {
  view?: (v: SetupView) => void;
  cutter?: Partial<Cutter>;
  target?: Target;
  /** Comments that its passes begin with. */
  titles?: string[];
  /** Number of the bit that is in the spindle at the start, where it is not the job's. */
  tool?: number;
}

/** Cuts a small board with a program and says what that shows. */
export function proveText(text: string, change: Change = {}): Promise<BoardProof> {
  const cutter = { ...DRAWER[0], maxPlungeDepth: 3, ...change.cutter };
  const view = plainSetup({ name: 'p', order: '', machine: HOBBY_MACHINE, rough: cutter, finish: cutter, board });
  view.setup.place = { x: 0, y: 0 };
  change.view?.(view);
  const tool = change.tool ?? cutter.number;
  const programs = [
    { file: 'p.nc', text, tool, rough: true, passes: view.passes.map((p) => p.id), titles: change.titles ?? [] },
  ];
  const target = change.target ?? slotTarget();
  const composite = { peak: 2, low: 0, peakAt: { x: 0, y: 0 }, clipped: { area: 0, most: 0, x: 0, y: 0 } };
  // The target of these tests is no layers' that could be drawn closer.
  const look: LookCloser = async () => {};
  const parts = [{ target, through: null, look }];
  const setup = { view, programs, composite: composite as never, cutouts: [], parts };
  return proveBoard(view.board, { grids: [gridOf(target.field)], around: false }, [setup], localHost);
}
