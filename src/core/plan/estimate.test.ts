import { beforeAll, expect, test } from 'vitest';
import { demoJobOf } from '../../../demo/shop';
import { contentLoader } from '../../server/content';
import { type SetupView, setupView } from '../setup/view';
import { estimate, type Known } from './estimate';
import { drawerBit, planShapes } from './plan-test-kit';

const demo = await demoJobOf('OE-103');
const load = contentLoader((h) => demo.files.get(h)!.bytes);

function mould(edit: (j: SetupView) => void = () => {}): SetupView {
  const view = setupView(structuredClone(demo.job));
  view.cell = 0.3;
  edit(view);
  return setupView(view.document, view.setup.id);
}

const pass = (j: SetupView, kind: string) => {
  const p = j.passes.find((o) => o.kind === kind);
  if (!p || !('stepover' in p)) throw new Error(`no ${kind} pass`);
  return p;
};
const bitOf = (j: SetupView, kind: string) => j.cutters.find((c) => c.id === pass(j, kind).cutter)!;

/** Changes as they are tried while deciding. */
const CHANGES: [string, (j: SetupView) => void][] = [
  ['a finer stepover', (j) => (pass(j, 'finish').stepover *= 0.6)],
  ['a wider stepover', (j) => (pass(j, 'finish').stepover *= 1.8)],
  ['a faster finishing feed', (j) => (bitOf(j, 'finish').feed *= 1.5)],
  ['a slower finishing feed', (j) => (bitOf(j, 'finish').feed *= 0.6)],
  ['a wider stepover in roughing', (j) => (pass(j, 'rough').stepover *= 1.2)],
  ['a narrower stepover in roughing', (j) => (pass(j, 'rough').stepover *= 0.7)],
  [
    'half the stepdown',
    (j) => Object.assign(pass(j, 'rough'), { stepdown: (pass(j, 'rough') as { stepdown: number }).stepdown / 2 }),
  ],
  ['a slower feed in roughing', (j) => (bitOf(j, 'rough').feed *= 0.7)],
  [
    'a smaller ball with its own stepover',
    (j) => {
      const small = { ...drawerBit('ball3'), id: 'small', number: 9, diameter: 2 };
      j.cutters.push(small);
      Object.assign(pass(j, 'finish'), { cutter: 'small', stepover: pass(j, 'finish').stepover * 0.7 });
    },
  ],
  ['rows up the board instead of along it', (j) => Object.assign(pass(j, 'finish'), { angle: 90 })],
];

let known: Known;
beforeAll(async () => {
  const view = mould();
  const { summary } = await planShapes(view, load);
  known = { view, passes: summary.passes, deepest: summary.deepest };
});

test('nothing changed is what was planned; other passes than the one that is touched are as planned', () => {
  const same = estimate(known, mould())!;
  expect(same.seconds).toBeCloseTo(
    known.passes.reduce((s, p) => s + p.seconds, 0),
    6,
  );
  expect(Object.values(same.passes).every((p) => !p.about)).toBe(true);
  const [, finer] = CHANGES[0];
  const changed = estimate(known, mould(finer))!;
  for (const p of known.passes) {
    const touched = p.id === pass(known.view, 'finish').id;
    expect(changed.passes[p.id].about).toBe(touched);
    if (!touched) expect(changed.passes[p.id].seconds).toBe(p.seconds);
  }
});

test('a pass that no plan knows has no hours yet; another arrangement has the old ones, more or less', () => {
  const added = mould((j) => j.passes.push({ ...structuredClone(pass(j, 'finish')), id: 'new' }));
  expect(estimate(known, added)).toBeNull();
  const moved = estimate(
    known,
    mould((j) => (j.layers[0].centre.x += 3)),
  )!;
  expect(Object.values(moved.passes).every((p) => p.about)).toBe(true);
});

test('in nine of ten changes it is within 15 % of the plan that follows', async () => {
  const off: [string, number][] = [];
  for (const [what, edit] of CHANGES) {
    const view = mould(edit);
    const { summary } = await planShapes(view, load);
    const planned = summary.passes.reduce((s, p) => s + p.seconds, 0);
    off.push([what, estimate(known, view)!.seconds / planned - 1]);
  }
  const wrong = off.filter(([, o]) => Math.abs(o) > 0.15);
  expect(wrong.length, off.map(([w, o]) => `${w}: ${(100 * o).toFixed(1)} %`).join('\n')).toBeLessThanOrEqual(1);
});
