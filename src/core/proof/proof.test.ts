import { expect, test } from 'vitest';
import { MASK, type Target } from '../arrange/target';
import type { Cutter } from '../cutter/cutter';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { boardGrid, gridOf, makeField } from '../field/height-field';
import { textOf } from '../findings/texts/text-of';
import { localHost } from '../kernels/host';
import { plainSetup } from '../plan/plan-test-kit';
import type { SetupView } from '../setup/view';
import { compareSurfaces } from './deviation';
import { proveBoard } from './prove';

const endmill = DRAWER[0];
const board = { x: 60, y: 40, thickness: 12, material: materialNamed('maple') };

/** A target that is cut to -2 between x = 10 and 50 and kept elsewhere. */
function target(depth = -2): Target {
  const field = makeField(boardGrid(60, 40, 0.2), 0);
  const mask = new Uint8Array(field.data.length).fill(MASK.keep);
  for (let k = 0; k < mask.length; k++) {
    const x = field.originX + (k % field.width) * field.cell;
    if (x > 10 && x < 50) {
      mask[k] = MASK.cut;
      field.data[k] = depth;
    }
  }
  return { field, mask, outside: new Float32Array(mask.length), ground: depth };
}

interface Change {
  view?: (v: SetupView) => void;
  cutter?: Partial<Cutter>;
  target?: Target;
}

/** Cuts a slot at y = 20 and says which rules found something. */
async function rules(lines: string, change: Change = {}) {
  const cutter = { ...endmill, ...change.cutter };
  const view = plainSetup({ name: 'p', order: '', machine: HOBBY_MACHINE, rough: cutter, finish: cutter, board });
  view.setup.place = { x: 0, y: 0 };
  change.view?.(view);
  const text = `G21 G90\nG0 Z5\nS16000 M3\n${lines}\nG0 Z5\nM5\nM30\n`;
  const programs = [{ file: 'p.nc', text, tool: cutter.number, rough: true, passes: view.passes.map((p) => p.id) }];
  const slot = change.target ?? target();
  const composite = { peak: 2, low: 0, peakAt: { x: 0, y: 0 }, clipped: { cells: 0, most: 0, x: 0, y: 0 } };
  const setup = { view, programs, target: slot, composite: composite as never, through: null, cutouts: [] };
  const proof = await proveBoard(view.board, gridOf(slot.field), [setup], localHost);
  return {
    proof,
    rules: proof.found.map((f) => `${f.severity} ${f.rule}`),
    at: (rule: string) => proof.found.find((f) => f.rule === rule),
  };
}

const SLOT = 'G0 X15 Y20\nG1 Z-2 F300\nX45 F1800';

test('a slot as planned has no finding but what is left over', async () => {
  const { rules: found, proof } = await rules(SLOT);
  expect(found).toEqual(['note left-over']);
  expect(proof.setups[0].deepest).toBeCloseTo(2, 5);
  expect(proof.thinnest).toBeCloseTo(10, 5);
  // A slot with round ends: 30 x 6.35 and a circle, 2 mm deep.
  expect(proof.setups[0].volumes[0] / (2 * (30 * 6.35 + Math.PI * 3.175 ** 2))).toBeCloseTo(1, 1);
});

test('a rapid through the board names line, depth and place', async () => {
  const { at } = await rules('G0 X15 Y20\nG0 Z-1\nX30');
  const f = at('rapid-through-material')!;
  expect(f.severity).toBe('error');
  expect(textOf(f).message).toContain('p.nc, line 5: 3 rapid moves go through the board, up to 1 mm deep');
  expect(f.place!.x).toBeCloseTo(15, 1);
});

test.each<[string, string, Change, string]>([
  ['too deep', SLOT.replace('-2', '-2.1'), {}, 'error gouge'],
  ['board that is kept', SLOT.replace('X45', 'X55'), {}, 'error keep-cut'],
  ['stepdown over the limit', SLOT, { cutter: { maxStepdown: 1.5 } }, 'warning stepdown'],
  ['off the table', SLOT, { view: (v) => (v.setup.place.x = 570) }, 'error outside-machine'],
  [
    'a nose that cannot go so low',
    SLOT,
    { view: (v) => (v.machine = { ...v.machine, zTravel: 40 }) },
    'error z-travel',
  ],
  [
    'a nose that cannot go so high',
    SLOT,
    { view: (v) => (v.machine = { ...v.machine, bedToNose: 58 }) },
    'error z-travel',
  ],
  ['spindle stopped', `M5\n${SLOT}`, {}, 'error spindle-off'],
  ['too fast a spindle', SLOT, { view: (v) => (v.machine = { ...v.machine, maxRpm: 10000 }) }, 'warning spindle-speed'],
  ['thin floor', SLOT, { view: (v) => (v.board.thickness = 3) }, 'warning floor'],
  ['through the board', SLOT, { view: (v) => (v.board.thickness = 1.5) }, 'error floor'],
  ['beyond the board', 'G0 X-20 Y20\nG1 Z-1 F300\nX-18', {}, 'warning beyond-board'],
  [
    'shank against the wall',
    SLOT.replace('-2', '-9'),
    { cutter: { fluteLength: 4, shankDiameter: 8 }, target: target(-9) },
    'error reach',
  ],
  ['shank rubbing', SLOT.replace('-2', '-9'), { cutter: { fluteLength: 4 }, target: target(-9) }, 'warning reach'],
  ['holder on the board', SLOT.replace('-2', '-9'), { cutter: { stickOut: 6 }, target: target(-9) }, 'error reach'],
])('%s is found', async (_, lines, change, wanted) => {
  expect((await rules(lines, change)).rules).toContain(wanted);
});

test('deviation is taken along the normal on slopes, and one cell sideways at cliffs', () => {
  const t = makeField({ width: 40, height: 5, cell: 0.1, originX: 0, originY: 0 });
  for (let k = 0; k < t.data.length; k++) t.data[k] = (k % 40) * 0.1;
  const cut = { ...t, data: t.data.map((v) => v + 0.1) };
  const mask = new Uint8Array(t.data.length).fill(MASK.cut);
  // A plane of 45 degrees lifted by 0.1 mm lies 0.1 / sqrt 2 from itself.
  expect(compareSurfaces(cut, t, mask).map[2 * 40 + 20]).toBeCloseTo(0.1 / Math.SQRT2, 5);
  const wall = { ...t, data: t.data.map((_, k) => (k % 40 < 20 ? 0 : -5)) };
  const moved = { ...t, data: t.data.map((_, k) => (k % 40 < 19 ? 0 : -5)) };
  expect(compareSurfaces(moved, wall, mask).deepest).toBe(0);
  const twice = { ...t, data: t.data.map((_, k) => (k % 40 < 18 ? 0 : -5)) };
  expect(compareSurfaces(twice, wall, mask).deepest).toBeCloseTo(-5, 5);
});
