import { expect, test, vi } from 'vitest';
import { applyEdits } from '../doc/edits';
import { jobSchema } from '../doc/job';
import { textOf } from '../findings/texts/text-of';
import { MAX_MOVES, Path, TooManyMoves } from '../motion/path';
import { addPass } from '../passes/add-pass';
import { kindOf } from '../passes/registry';
import type { SetupView } from '../setup/view';
import { dishes, drawerBit, planWhole } from './plan-test-kit';
import { problems } from './problems';
import { PlanStopped } from './stopped';

const withPass = (kind: 'hole' | 'letter' | 'cutout' | 'flat', bit: string): SetupView => {
  const { face } = dishes();
  applyEdits(face.document, addPass(face, kind, drawerBit(bit)));
  return face;
};
const last = (v: SetupView) => v.passes.at(-1)!;

// Values that a person's slip of the keys, or another program, can put into a document.
const slips: [string, SetupView, (v: SetupView) => unknown][] = [
  ['peck', withPass('hole', 'drill6'), (v) => Object.assign(last(v), { peck: 1e-7 })],
  ['ramp angle', withPass('hole', 'em3'), (v) => Object.assign(last(v), { rampAngle: 1e-6 })],
  ['ramp angle', withPass('cutout', 'em3'), (v) => Object.assign(last(v), { rampAngle: 0 })],
  ['stepdown', withPass('letter', 'v60'), (v) => Object.assign(last(v), { stepdown: 1e-9 })],
  ['stepdown', dishes().face, (v) => Object.assign(v.passes[0], { stepdown: 1e-9 })],
  ['stepover', dishes().face, (v) => Object.assign(v.passes[1], { stepover: 1e-9 })],
  ['tolerance', dishes().face, (v) => Object.assign(v.passes[1], { tolerance: 0 })],
  ['machine acceleration x', dishes().face, (v) => Object.assign(v.machine.acceleration, { x: 1e-9 })],
  ['machine max feed z', dishes().face, (v) => Object.assign(v.machine.maxFeed, { z: 1e-9 })],
  ['place x', dishes().face, (v) => Object.assign(v.setup.place, { x: 1e12 })],
  ['centre y', dishes().face, (v) => Object.assign(v.layers[0].centre, { y: -1e12 })],
  ['stick-out', dishes().face, (v) => Object.assign(v.cutters[0], { stickOut: 1e9 })],
  ['feed', dishes().face, (v) => Object.assign(v.cutters[0], { feed: 1e-9 })],
];

test.each(slips)(
  'a %s without sense is a problem of the document that stops planning, not a refusal',
  async (field, view, slip) => {
    const job = view.document;
    slip(view);
    // It is read and kept as it is.
    expect(jobSchema.parse(JSON.parse(JSON.stringify(job)))).toEqual(job);
    const stops = problems(job).filter((f) => f.stops);
    expect(
      stops.some((f) => f.rule === 'value' && String(f.figures.field).startsWith(field)),
      textsOf(stops),
    ).toBe(true);
    await expect(planWhole(job)).rejects.toThrow(PlanStopped);
  },
);

const textsOf = (list: ReturnType<typeof problems>) => list.map((f) => textOf(f).message).join('; ');

test('a path counts its moves and ends at its limit', () => {
  const path = new Path();
  for (let i = 0; i < MAX_MOVES; i++) path.feed(i, 0, 0, 1);
  expect(path.moves).toBe(MAX_MOVES);
  expect(() => path.feed(-1, 0, 0, 1)).toThrow(TooManyMoves);
});

test('a plan whose pass comes to too many moves stops with a finding that names the pass', async () => {
  const { face } = dishes();
  const plan = vi.spyOn(kindOf('finish'), 'plan').mockRejectedValue(new TooManyMoves());
  try {
    const stopped = await planWhole(face.document).then(
      () => null,
      (e) => e,
    );
    expect(stopped).toBeInstanceOf(PlanStopped);
    const [f] = (stopped as PlanStopped).findings;
    expect(f).toMatchObject({ rule: 'too-many-moves', stops: true, subject: { pass: face.passes[1].id } });
    expect(textOf(f).message).toContain('more than 6 million moves');
  } finally {
    plan.mockRestore();
  }
});
