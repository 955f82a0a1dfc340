import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import type { Layer } from '../doc/layer';
import { sampleField } from '../field/height-field';
import { letterSlots } from '../passes/letter/plan';
import type { LetterPass } from '../passes/letter/schema';
import { AROUND, DRUM, drumJob } from './drum-test-kit';
import { drawerBit, errorsOf, planShapes, proposed, saidOf } from './plan-test-kit';

const R = DRUM.diameter / 2;
const V = drawerBit('v60');
/** Half the angle of the bit. */
const BETA = ((V.includedAngle / 2) * Math.PI) / 180;

/** A bar 3 mm wide that a V bit cuts into a drum. */
const bar = (id: string, x: number, y: number, more: Partial<Layer> = {}): Layer => ({
  ...newShape(
    { id, name: id },
    { kind: 'rectangle' },
    { kind: 'vee', angle: V.includedAngle },
    { x: DRUM.x, y: AROUND },
  ),
  size: { x: 12, y: 3 },
  centre: { x, y },
  rise: 4,
  join: 'carve',
  ...more,
});

const lettered = (layers: Layer[], more: Partial<LetterPass> = {}) =>
  drumJob(layers, (v) => {
    v.document.cutters.push(V);
    v.passes = [{ ...proposed('letter', v, V), ...more }];
    v.cell = 0.1;
  });

/** How far the wood reaches on the ray at an angle from the bit's where the tip is at r: a line through the tip at half the bit's angle (law of sines). */
const wall = (r: number, a: number) => (r * Math.sin(BETA)) / Math.sin(BETA - a);

test('letters round a drum are as wide on the wood as they are drawn: along it, across it, and over the seam', async () => {
  const { cut, ...plan } = await planShapes(
    lettered([bar('along', 22, 0, { size: { x: 8, y: 3 } }), bar('round', 26, AROUND / 2, { turn: 90 })]),
  );
  expect(errorsOf(plan)).toEqual([]);
  // What a pass says of itself is stored between its plan and the proof, as JSON.
  const { facts } = plan.summary.passes[0];
  expect(JSON.parse(JSON.stringify(facts))).toEqual(facts);
  expect(letterSlots(JSON.parse(JSON.stringify(facts)), V)[0].chains[0]).toBeInstanceOf(Float64Array);
  // Along the drum the bit's sides touch both edges of the bar where it is 1.5 mm of circle away.
  const w = 1.5 / R;
  const tip = R * Math.cos(w) - (R * Math.sin(w)) / Math.tan(BETA);
  for (let y = -1.4; y <= 1.4; y += 0.05) {
    // Between two cells the point itself is read too high.
    if (Math.abs(y) < 2 * cut.cell) continue;
    const want = Math.min(R, wall(tip, Math.abs(y) / R));
    expect(Math.abs(R + sampleField(cut, 22, y) - want)).toBeLessThan(0.02);
  }
  for (const y of [-1.65, 1.65, 3, AROUND - 3]) expect(sampleField(cut, 22, y)).toBeCloseTo(0, 6);
  // Around it they touch the edges beside the bit, as on a board: 1.5 / tan of half the angle deep.
  for (let x = -1.4; x <= 1.4; x += 0.05)
    if (Math.abs(x) > 2 * cut.cell)
      expect(Math.abs(sampleField(cut, 26 + x, AROUND / 2) + (1.5 - Math.abs(x)) / Math.tan(BETA))).toBeLessThan(0.02);
  for (const x of [-1.65, 1.65]) expect(sampleField(cut, 26 + x, AROUND / 2)).toBeCloseTo(0, 6);
});

test('letters go no deeper than asked, in levels of their stepdown, and a groove that no pass cuts is told', async () => {
  const deep = lettered([bar('along', 23, 8, { rise: 1, size: { x: 8, y: 3 } })], { stepdown: 0.5 });
  const { cut, ...plan } = await planShapes(deep);
  expect(errorsOf(plan)).toEqual([]);
  expect(plan.summary.deepest).toBeCloseTo(1, 2);
  deep.passes = [proposed('finish', deep, drawerBit('ball3'))];
  const without = await planShapes(deep);
  expect(saidOf(without)).toMatch(/groove|V bit/);
});
