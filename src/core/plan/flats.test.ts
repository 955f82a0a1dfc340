import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { MASK, type Target } from '../arrange/target';
import type { Cutter } from '../cutter/cutter';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { withEdits } from '../doc/edits';
import { distanceInside } from '../field/distance';
import { boardGrid, makeField } from '../field/height-field';
import { localHost } from '../kernels/host';
import { findFlats, LEVEL, markCleared } from '../passes/flat/fields';
import { orderProblem, placeFor } from '../passes/order';
import type { SetupView } from '../setup/view';
import { setupView } from '../setup/view';
import { changed, errorsOf, plainSetup, planShapes, proposed, wrongIn } from './plan-test-kit';
import { variantsOf } from './variants';

const mill: Cutter = DRAWER.find((c) => c.id === 'em6')!;
const ball: Cutter = DRAWER.find((c) => c.id === 'ball3')!;

/** A target of 60 x 40 mm by a function of place; all of it is to be cut. */
function targetOf(at: (x: number, y: number) => number): Target {
  const field = makeField(boardGrid(60, 40, 0.2));
  for (let k = 0; k < field.data.length; k++)
    field.data[k] = at(field.originX + (k % field.width) * 0.2, field.originY + Math.floor(k / field.width) * 0.2);
  const n = field.data.length;
  return {
    field,
    mask: new Uint8Array(n).fill(MASK.cut),
    outside: new Float32Array(n),
    ground: Math.min(...field.data),
  };
}
const all = () => true;

test('level fields are found with their height; slopes, narrow fields and the board’s own top are not', async () => {
  // A pocket of 30 x 20 at -4, a slot of 4 mm at -6, a slope, and the top.
  const t = targetOf((x, y) => {
    if (x > 10 && x < 40 && y > 10 && y < 30) return -4 + 0.4 * LEVEL * Math.sin(x);
    if (x > 44 && x < 48 && y > 5 && y < 35) return -6;
    return x > 50 ? -(x - 50) * 0.3 : 0;
  });
  const flats = await findFlats({ target: t, planning: t.field, host: localHost }, mill, 0.1, all);
  expect(flats).toHaveLength(1);
  const [f] = flats;
  expect(f.z).toBeGreaterThanOrEqual(-4);
  expect(f.z).toBeLessThan(-4 + LEVEL);
  // The tip stays a radius and the slack from the walls; its sweep is the pocket but for the corners' roundings.
  const tips = f.tip.reduce((n, v) => n + v, 0) * 0.04;
  expect(Math.abs(tips - (30 - 6.55) * (20 - 6.55))).toBeLessThan(12);
  expect(f.area).toBeGreaterThan(0.9 * 30 * 20 - 20);
  expect(f.area).toBeLessThan(600);
  // A ball has no flat bottom, a bull-nose clears what its flat passes over.
  expect(
    await findFlats(
      { target: t, planning: t.field, host: localHost },
      { ...mill, shape: 'bullnose', cornerRadius: 1 },
      0.1,
      all,
    ),
  ).toHaveLength(1);
  // Outside the pass's area there is nothing.
  expect(await findFlats({ target: t, planning: t.field, host: localHost }, mill, 0.1, () => false)).toEqual([]);
});

test('over grooves in a field the bit runs on, around what stands in it the bit stays off', async () => {
  const pocket = (x: number, y: number) => x > 10 && x < 40 && y > 10 && y < 30;
  const tips = async (inside: number) => {
    const t = targetOf((x, y) => (pocket(x, y) ? (Math.abs(x - 25) < 1 && Math.abs(y - 20) < 4 ? inside : -4) : 0));
    return (await findFlats({ target: t, planning: t.field, host: localHost }, mill, 0.1, all))[0].tip.reduce(
      (n, v) => n + v,
      0,
    );
  };
  const level = await tips(-4);
  expect(await tips(-6)).toBe(level);
  expect(await tips(-3)).toBeLessThan(level - 1000);
});

test('what is cleared ends the overlap before the field does', async () => {
  const t = targetOf((x, y) => (x > 10 && x < 40 && y > 10 && y < 30 ? -4 : 0));
  const [f] = await findFlats({ target: t, planning: t.field, host: localHost }, mill, 0.1, all);
  const marked = (overlap: number) => {
    const out = new Uint8Array(t.field.data.length);
    markCleared(out, t.field.width, f, overlap, 0.2);
    return out;
  };
  const count = (m: Uint8Array) => m.reduce((n, v) => n + v, 0);
  const [none, two] = [marked(0), marked(2)];
  expect(count(none) * 0.04).toBeCloseTo(f.area, 6);
  const d = distanceInside(none, t.field.width, t.field.height);
  for (let k = 0; k < two.length; k++) expect(two[k]).toBe(d[k] * 0.2 > 2 ? 1 : 0);
});

test('the order of work: what cannot work is refused with its reason, and new passes go where they belong', () => {
  const of = (...kinds: ('rough' | 'flat' | 'finish')[]) => kinds.map((kind) => ({ kind }));
  expect(orderProblem(of('rough', 'rough', 'flat', 'finish', 'finish'))).toBeNull();
  expect(orderProblem(of('finish', 'rough'))).toBe('roughing after finishing would cut into wood that is finished');
  expect(orderProblem(of('rough', 'finish', 'flat'))).toContain('clearing flats after finishing');
  expect(orderProblem(of('flat', 'rough'))).toContain('roughing after clearing flats');
  expect(placeFor(of('rough', 'finish'), 'flat')).toBe(1);
  expect(placeFor(of('rough', 'finish'), 'finish')).toBe(2);
  expect(placeFor(of('finish'), 'rough')).toBe(0);
});

/** A panel with a field sunk into it, and a dome standing in the field. */
function panelJob(): SetupView {
  const board = { x: 120, y: 80, thickness: 15, material: materialNamed('maple') };
  const job = plainSetup({ name: 'Panel', order: '', machine: HOBBY_MACHINE, rough: mill, finish: ball, board });
  const shape = (id: string, x: number, y: number, rise: number) => ({
    ...newShape({ id: id, name: id }, { kind: 'rectangle' }, { kind: 'bevel', width: 3, band: false }, board),
    size: { x, y },
    rise,
  });
  job.layers = [
    shape('panel', 96, 60, 6),
    { ...shape('field', 80, 44, 4), join: 'carve' },
    { ...newShape({ id: 'dome', name: 'dome' }, { kind: 'circle' }, { kind: 'dome' }, board, { share: 0.2 }), rise: 3 },
  ];
  job.cell = 0.2;
  return job;
}

test('a field cleared by the end mill is level to a hundredth in the proof, nothing is gouged, and the ball stays off it', async () => {
  const job = panelJob();
  const plain = await planShapes(job);
  // The other way is offered as a variant: the document with a pass more.
  const [offer] = variantsOf(job.document, job.setup.id);
  expect(offer.id).toBe('with-flats');
  const taken = withEdits(job.document, offer.edits);
  expect(wrongIn({ document: taken })).toBe('');
  expect(setupView(taken).passes.map((p) => p.kind)).toEqual(['rough', 'flat', 'finish']);
  const plan = await planShapes({ document: taken });
  expect(errorsOf(plan)).toEqual([]);
  // Its own other way leads back to the same passes.
  const [back] = variantsOf(taken, job.setup.id);
  expect(back.id).toBe('without-flats');
  expect(withEdits(taken, back.edits)).toEqual(job.document);
  expect(plain.summary.seconds - plan.summary.seconds).toBeGreaterThan(0);
  // From the programs as read back: level where the field is level, never below it.
  const { target, cut } = plan;
  let [low, high, n] = [Infinity, -Infinity, 0];
  for (let k = 0; k < target.data.length; k++) {
    const x = target.originX + (k % target.width) * target.cell;
    const y = target.originY + Math.floor(k / target.width) * target.cell;
    // Two millimetres inside the field's foot, and four away from the dome.
    if (Math.abs(x - 60) > 35 || Math.abs(y - 40) > 17 || Math.hypot(x - 60, y - 40) < 12) continue;
    const d = cut.data[k] - target.data[k];
    low = Math.min(low, d);
    high = Math.max(high, d);
    n++;
  }
  expect(n).toBeGreaterThan(30_000);
  expect(low).toBeGreaterThanOrEqual(-0.002);
  expect(high - low).toBeLessThan(0.01);
  // The ball alone leaves its ridges there.
  const finish = (p: typeof plan) => p.summary.passes.find((q) => q.kind === 'finish')!;
  expect(finish(plan).cutLength).toBeLessThan(0.85 * finish(plain).cutLength);
  // Rough and flats share their bit, so that they share a program.
  expect(plan.summary.programs).toHaveLength(2);
  expect(plan.rough).not.toBeNull();
});

test('flats are offered only with a flat bit and where finishing follows', () => {
  const job = panelJob();
  const offers = (j: SetupView) => variantsOf(j.document, j.setup.id).map((v) => v.id);
  expect(offers(job)).toEqual(['with-flats']);
  expect(offers(changed(job, { passes: job.passes.slice(0, 1) }))).toEqual([]);
  const round = job.cutters.map((c) => (c.id === mill.id ? { ...ball, id: mill.id } : c));
  expect(offers(changed(job, { cutters: round }))).toEqual([]);
  const flat = proposed('flat', job, mill);
  const bad = changed(job, { passes: [job.passes[0], { ...flat, cutter: ball.id }, job.passes[1]] });
  expect(wrongIn(bad)).toContain('has no flat bottom; flats need an end mill');
  expect(wrongIn(changed(job, { passes: [...job.passes, flat] }))).toContain('clearing flats after finishing');
});
