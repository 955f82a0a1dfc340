import { expect, test } from 'vitest';
import { entriesOf, MOVES, type MoveKind } from '../motion/path';
import { proveText } from './proof-test-kit';

const text = (first: string, second: string) => `G21
G90
M3 S12000
(${first})
G0 X15 Y20
G0 Z1
G1 Z-1 F300
X45 F600
X15
G0 Z5
(${second})
G0 X15 Y10
G1 Z-2 F300
X45 F600
G0 Z5
M5
M2
`;

test('bite and air are told pass by pass, where the comments say where each begins', async () => {
  const { setups } = await proveText(text('one, bit', 'two, bit'), { titles: ['one, bit', 'two, bit'] });
  const [program] = setups[0].programs;
  const [one, two] = program.byPass;
  expect(one.bite?.deep).toBeCloseTo(1, 3);
  expect(two.bite?.deep).toBeCloseTo(2, 3);
  // The first goes 2 mm down, of them 1 in air, 30 mm through wood and 30 back through its own slot.
  expect(one.air).toBeCloseTo(30 / 62, 1);
  // Every move of the second meets wood somewhere.
  expect(two.air).toBe(0);
  expect(program.bite).toEqual(two.bite);
});

test('a program from elsewhere, without those comments, has figures as a whole only', async () => {
  const { setups } = await proveText(text('here', 'there'), { titles: ['one, bit', 'two, bit'] });
  expect(setups[0].programs[0].byPass).toEqual([]);
  expect(setups[0].programs[0].bite?.deep).toBeCloseTo(2, 3);
});

test('moves of one kind that follow each other are one way into the wood', () => {
  const kinds = (...names: MoveKind[]) => Uint8Array.from(names, (n) => MOVES.indexOf(n));
  expect(entriesOf(kinds('approach', 'plunge', 'ramp', 'ramp', 'cut', 'plunge', 'cut', 'helix', 'helix'))).toEqual({
    plunge: 2,
    ramp: 1,
    helix: 1,
  });
  expect(entriesOf(kinds('approach', 'cut'))).toEqual({});
});
