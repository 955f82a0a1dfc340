import { expect, test } from 'vitest';
import { MASK } from '../arrange/target';
import type { Cutter } from '../cutter/cutter';
import type { Layer } from '../doc/layer';
import { WHOLE_PIECE } from '../doc/outline-ref';
import type { FinishPass } from '../passes/finish/schema';
import type { SetupView } from '../setup/view';
import { AROUND, DRUM, drumJob, hollow, reachable } from './drum-test-kit';
import { drawerBit, errorsOf, planShapes, proposed, type SetupPlan } from './plan-test-kit';

const finishOf = (v: SetupView) => v.passes.find((p): p is FinishPass => p.kind === 'finish')!;
/** Only its finishing, run one way. */
const finished = (more: Partial<FinishPass>) => (v: SetupView) => {
  v.passes = v.passes.filter((p) => p.kind === 'finish');
  Object.assign(finishOf(v), { stepover: 0.25, lines: 'rows', ...more });
};
/** A hollow that slopes down to its middle: no wall beside which a cell is known by half. */
const sloping = (id: string, x: number, y: number, more: Partial<Layer> = {}): Layer => {
  const l = hollow(id, x, y, more);
  if (l.source.kind === 'shape') l.source.relief = { kind: 'bevel', width: 5, band: false };
  return l;
};
/** Hollows of which one lies on the seam. */
const OVER_THE_SEAM = [sloping('seam', 18, 0), sloping('far', 28, AROUND / 2)];

/** The most that stands over what a bit can reach, three cells and more from board that stays, mm. */
function overReach({ target, mask, cut }: SetupPlan, bit: Cutter): number {
  const reach = reachable(target, bit);
  const { width, height } = target;
  let worst = 0;
  for (let k = 0; k < cut.data.length; k++) {
    const [i, j] = [k % width, Math.floor(k / width)];
    let near = false;
    for (let b = j - 3; b <= j + 3; b++)
      for (let a = i - 3; a <= i + 3; a++) near ||= mask[((b + height) % height) * width + a] !== MASK.cut;
    if (!near) worst = Math.max(worst, cut.data[k] - reach.data[k]);
  }
  return worst;
}

const WAYS: [string, Partial<FinishPass>][] = [
  ['along', { angle: 0 }],
  ['around', { angle: 90 }],
  ['in a spiral', { lines: 'spiral' }],
];

test.each(WAYS)(
  'finishing %s leaves what its ball can reach, within 0.03 mm, and cuts nothing too deep',
  async (_, more) => {
    const plan = await planShapes(drumJob(OVER_THE_SEAM, finished(more)));
    expect(errorsOf(plan)).toEqual([]);
    expect(overReach(plan, drawerBit('ball3'))).toBeLessThan(0.03);
    const { seconds, naiveSeconds } = plan.summary.passes[0];
    expect(naiveSeconds).toBeGreaterThan(20);
    expect(seconds).toBeGreaterThan(naiveSeconds);
  },
);

test('the seam is no place of its own: turned by half the sheet, the same is cut there', async () => {
  const half = (l: Layer) => ({ ...l, centre: { ...l.centre, y: l.centre.y + AROUND / 2 } });
  for (const [, more] of WAYS) {
    const [plain, turned] = [
      await planShapes(drumJob(OVER_THE_SEAM, finished(more))),
      await planShapes(drumJob(OVER_THE_SEAM.map(half), finished(more))),
    ];
    const { data, width, height } = plain.cut;
    let most = 0;
    for (let k = 0; k < data.length; k++) {
      const other = turned.cut.data[(k + (height / 2) * width) % data.length];
      most = Math.max(most, Math.abs(data[k] - other));
    }
    // Rows begin at another place: what they leave between them does not.
    expect(most).toBeLessThan(0.04);
  }
});

test('deep ground is roughed in levels and finished; nothing stands in the way of shank or holder', async () => {
  const view = drumJob([sloping('seam', 20, 0, { rise: 4, size: { x: 20, y: 24 } })]);
  const plan = await planShapes(view);
  expect(view.passes.map((p) => p.kind)).toEqual(['rough', 'finish']);
  expect(errorsOf(plan)).toEqual([]);
  expect(plan.summary.passes.every((p) => p.moves > 50)).toBe(true);
  expect(plan.summary.deepest).toBeGreaterThan(3.5);
  expect(overReach(plan, drawerBit('ball3'))).toBeLessThan(0.05);
});

test('a bit stays off chuck and tail stock, and a program that does not is told by its line', async () => {
  const plan = await planShapes(drumJob([sloping('wide', DRUM.x / 2, 10, { size: { x: 60, y: 20 } })], finished({})));
  const rules = plan.summary.findings.map((f) => f.rule);
  expect(rules).not.toContain('chuck');
  // What reaches into what is held is told before anything is cut.
  expect(rules).toContain('layer-outside');
});

test('a smaller ball finishes what a larger one has left, inside an outline and 3 mm around it, over the seam too', async () => {
  // A wall that the larger ball stays off by its radius, on the seam.
  const cup = hollow('cup', 22, 0, { rise: 1.5, size: { x: 8, y: 8 } });
  if (cup.source.kind === 'shape') cup.source.relief = { kind: 'flat' };
  const view = drumJob([cup], finished({}));
  view.cell = 0.25;
  const before = await planShapes(view);
  const taper = drawerBit('taper1');
  view.document.cutters.push(taper);
  view.passes.push({
    ...proposed('finish', view, taper),
    area: { kind: 'outline', outline: { ...WHOLE_PIECE, of: ['cup'], grow: 3 } },
    lines: 'rows',
    stepover: 0.25,
  });
  const plan = await planShapes(view);
  expect(errorsOf(plan)).toEqual([]);
  const volume = ({ cut }: SetupPlan) => cut.data.reduce((a, z) => a - z, 0) * cut.cell ** 2;
  expect(volume(plan)).toBeGreaterThan(volume(before) + 0.5);
  // It has been on both sides of the seam, and nowhere else than around its motif.
  const { width, height, cell } = plan.cut;
  const rows = new Set<number>();
  for (let k = 0; k < plan.cut.data.length; k++)
    if (plan.cut.data[k] < before.cut.data[k] - 0.02) rows.add(Math.floor(k / width));
  expect(rows.has(Math.round(3.5 / cell))).toBe(true);
  expect(rows.has(height - Math.round(3.5 / cell))).toBe(true);
  expect([...rows].every((j) => Math.min(j, height - j) * cell < 4 + 3 + 0.6)).toBe(true);
});

test('copies that go nearly all round and do not close are told by how much; those that close, or end on purpose, are not', async () => {
  const rules = async (rows: number, dy: number, turn = 0) => {
    const copies = { kind: 'rows', columns: turn === 0 ? 1 : rows, rows: turn === 0 ? rows : 1, dx: dy, dy } as const;
    const view = drumJob([sloping('ring', 22, AROUND / 2, { copies, turn, size: { x: 8, y: 8 } })], finished({}));
    view.cell = 0.5;
    return (await planShapes(view)).summary.findings.filter((f) => f.rule === 'round-copies');
  };
  expect(await rules(4, AROUND / 4)).toEqual([]);
  expect(await rules(4, AROUND / 4, 90)).toEqual([]);
  expect(await rules(3, 12)).toEqual([]);
  const [gap] = await rules(4, 15);
  expect(gap.figures).toMatchObject({ count: 4, step: 15 });
  expect(gap.figures.gap).toBeCloseTo(AROUND - 60, 3);
  // Either they are spaced evenly, or each is made as much larger.
  expect(gap.fixes?.map((f) => [f.id, f.figures.size])).toEqual([
    ['copies-round', undefined],
    ['copies-size', expect.closeTo((8 * AROUND) / 4 / 15, 3)],
  ]);
  const [over] = await rules(4, 16, 90);
  expect(over.figures.gap).toBeCloseTo(AROUND - 64, 3);
});
