import fc from 'fast-check';
import { expect, test } from 'vitest';
import { newShape } from '@/core/arrange/new-layer';
import type { Layer } from '@/core/doc/layer';
import type { SelectedSection } from './looks';
import { marksOf, scaleOf } from './section-scale';
import { HANDLES, type Handle, onStep, putValue, togetherOf } from './shape-handles';

const BOARD = { x: 100, y: 80, thickness: 20 };
const layer = (rise: number, lift: number): Layer => ({
  ...newShape({ id: `${rise}`, name: 'a' }, { kind: 'oval' }, { kind: 'dome' }, BOARD),
  rise,
  lift,
});

test('what is put on several layers is what they have together then; rises keep proportions, lifts differences', () => {
  const value = fc.integer({ min: 5, max: 200 }).map((v) => v / 10);
  fc.assert(
    fc.property(value, value, fc.constantFrom<Handle>('rise', 'lift', 'slope', 'thin'), (v, other, handle) => {
      const some = [layer(4, 1), layer(other, 2.5)];
      const [ratio, apart] = [some[1].rise / some[0].rise, some[1].lift - some[0].lift];
      putValue(some, handle, 'y', v);
      expect(togetherOf(some, handle, 'y')).toBeCloseTo(v, 3);
      expect(some[1].rise / some[0].rise).toBeCloseTo(ratio, 2);
      expect(some[1].lift - some[0].lift).toBeCloseTo(apart, 3);
    }),
  );
});

test('nothing leaves its limits: no rise of 0, no slope beyond 80 degrees', () => {
  const some = [layer(4, 1)];
  putValue(some, 'rise', 'x', -3);
  expect(some[0].rise).toBe(HANDLES.rise.min);
  putValue(some, 'slope', 'x', 200);
  expect(some[0].slope).toEqual({ x: 80, y: 0 });
  expect(onStep(3.1278, 'rise')).toBe(3.1);
  expect(onStep(7.3, 'slope')).toBe(7.5);
});

test('handles stand where the heights are: on a step, dug into it, and over the base plane', () => {
  const n = 101;
  const flat = (v: number) => new Float32Array(n).fill(v);
  const section: SelectedSection = {
    of: ['a'],
    axis: 'x',
    length: 20,
    beneath: flat(5),
    withThem: flat(8),
    end: flat(8),
    own: flat(3),
    weight: flat(1),
  };
  const at = (join: string) => marksOf(section, { join, lift: 1, rise: 3, slope: 45 }, 5);
  expect(at('stack')).toMatchObject({ from: 5, to: 15, foot: 6, top: 9, level: 6, way: 1 });
  expect(at('stack').leant).toBeCloseTo(11, 9);
  expect(at('carve')).toMatchObject({ foot: 4, top: 1, way: -1 });
  expect(at('carve').leant).toBeCloseTo(-1, 9);
  expect(at('highest')).toMatchObject({ foot: 1, top: 4 });
  // What is marked lies within the drawing.
  const scale = scaleOf(section, [11, -1]);
  expect(scale.y(11)).toBeGreaterThanOrEqual(14);
  expect(scale.y(-1)).toBeLessThanOrEqual(150 - 22);
  expect(scale.tall / scale.across).toBeLessThanOrEqual(8);
});
