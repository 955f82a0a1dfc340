import { expect, test } from 'vitest';
import { MASK } from '../arrange/target';
import { makeField } from '../field/height-field';
import { textOf } from '../findings/texts/text-of';
import { compareSurfaces } from './deviation';
import { type Change, proveText, slotTarget as target } from './proof-test-kit';

/** Cuts a slot at y = 20 and says which rules found something. */
async function rules(lines: string, change: Change = {}) {
  const proof = await proveText(`G21 G90 G17 G94 G54\nG0 Z5 S16000 M3\nG4 P3\n${lines}\nG0 Z5\nM5\nM30\n`, change);
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
  expect(proof.setups[0].programs[0].volume / (2 * (30 * 6.35 + Math.PI * 3.175 ** 2))).toBeCloseTo(1, 1);
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
  ['bite over the limit', SLOT, { cutter: { maxStepdown: 1.5 } }, 'error bite'],
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
