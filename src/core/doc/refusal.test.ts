import { expect, test } from 'vitest';
import { cutterSchema } from '../cutter/cutter';
import { dishes, drawerBit } from '../plan/plan-test-kit';
import { jobSchema } from './job';
import { describeIssues } from './refusal';

const ofBit = (change: object) => {
  const raw = { ...drawerBit('ball3'), ...change };
  return describeIssues(cutterSchema.safeParse(raw).error!, raw);
};

test.each([
  [{ stickOut: undefined }, 'stick-out is missing'],
  [{ diameter: 0.00001 }, 'diameter of 0.00001 is too small: it has to be at least 0.05'],
  [{ diameter: 'wide' }, 'diameter is "wide"; it has to be a number'],
  [{ shape: 'spoon' }, 'shape is "spoon"; choose one of endmill, ball, bullnose, tapered-ball, v, drill'],
  [{ name: '' }, 'name is too short: it has to have at least 1 letter'],
  [{ name: 'x'.repeat(90) }, 'name is too long: it has to have at most 80 letters'],
  [{ name: 'bell\u0007' }, 'name holds control characters; leave them out'],
  [{ shape: 'bullnose', cornerRadius: 9 }, 'corner radius does not go: a bull-nose of'],
])('a bit that is refused says which field, what it was, and what would do: %j', (change, said) => {
  expect(ofBit(change)).toContain(said);
});

test('a document that is refused names the field as a person would, and its place', () => {
  const { document } = dishes().face;
  const raw = structuredClone(document) as unknown as { boards: { thickness: unknown; setups: unknown }[] };
  raw.boards[0].thickness = 'thick';
  expect(describeIssues(jobSchema.safeParse(raw).error!, raw)).toBe(
    'thickness (boards.0.thickness) is "thick"; it has to be a number',
  );
  raw.boards[0].thickness = 12;
  raw.boards[0].setups = 7;
  expect(describeIssues(jobSchema.safeParse(raw).error!, raw)).toBe(
    'setups (boards.0.setups) is 7; it has to be a list',
  );
  expect(describeIssues(jobSchema.safeParse(7).error!, 7)).toContain('the document ');
});
