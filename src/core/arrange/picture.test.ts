import { expect, test } from 'vitest';
import { boardGrid } from '../field/height-field';
import { fromLight, toLight } from '../units/light';
import { DEVIATION, hasInk, type Rgb, shade, toLab } from './picture';
import { MASK } from './target';

/**
 * How colours look to eyes that lack a kind of cone, in linear sRGB: Machado, Oliveira and Fernandes, A Physiologically-based Model for
 * Simulation of Color Vision Deficiency (2009), severity 1.0; the figures are from memory.
 */
const WITHOUT: Record<string, number[][]> = {
  'no red': [
    [0.152286, 1.052583, -0.204868],
    [0.114503, 0.786281, 0.099216],
    [-0.003882, -0.048116, 1.051998],
  ],
  'no green': [
    [0.367322, 0.860646, -0.227968],
    [0.280085, 0.672501, 0.047413],
    [-0.01182, 0.04294, 0.968881],
  ],
  'no blue': [
    [1.255528, -0.076749, -0.178779],
    [-0.078411, 0.930809, 0.147602],
    [0.004733, 0.691367, 0.3039],
  ],
};

function seen(c: Rgb, m: number[][]): Rgb {
  const linear = c.map((v) => toLight(v / 255));
  return m.map((row) => {
    const v = row.reduce((s, f, i) => s + f * linear[i], 0);
    return 255 * fromLight(Math.min(1, Math.max(0, v)));
  }) as Rgb;
}

const apart = (a: Rgb, b: Rgb) => Math.hypot(...toLab(a).map((v, i) => v - toLab(b)[i]));

test('left over and too deep are told apart, and from what is right, by all eyes and in grey', () => {
  const [deep, right, left] = [DEVIATION[0], DEVIATION[128], DEVIATION[255]];
  // A difference of 0.02 in OKLab is just seen; these are to be told apart at a glance.
  const GLANCE = 0.2;
  expect(apart(deep, left)).toBeGreaterThan(GLANCE);
  for (const m of Object.values(WITHOUT)) {
    expect(apart(seen(deep, m), seen(left, m))).toBeGreaterThan(GLANCE);
    expect(apart(seen(deep, m), seen(right, m))).toBeGreaterThan(GLANCE);
    expect(apart(seen(left, m), seen(right, m))).toBeGreaterThan(GLANCE);
  }
  expect(Math.abs(toLab(deep)[0] - toLab(left)[0])).toBeGreaterThan(0.15);
});

test('what is left over carries strokes and what is too deep dots; what is right carries neither', () => {
  const grid = boardGrid(84, 84, 1);
  const n = grid.width * grid.height;
  const picture = (d: number) =>
    shade({
      grid,
      heights: new Float32Array(n),
      mask: new Uint8Array(n).fill(MASK.cut),
      deviation: new Float32Array(n).fill(d),
      paper: [255, 255, 255],
      hatch: [0, 0, 0],
    }).data;
  const inked = (d: number) => {
    const px = picture(d);
    const lightest = Math.max(...Array.from({ length: n }, (_, k) => px[4 * k]));
    return Array.from({ length: n }, (_, k) => px[4 * k] < 0.8 * lightest);
  };
  expect(inked(0).some(Boolean)).toBe(false);
  for (const d of [0.15, -0.15])
    for (const [k, ink] of inked(d).entries())
      expect(ink).toBe(hasInk(d > 0, k % grid.width, Math.floor(k / grid.width), 4));
  // The patterns are not each other's.
  expect(inked(0.15)).not.toEqual(inked(-0.15));
});

test('a picture that is shown half a turn round is lit as one of a surface that lies so', () => {
  const grid = boardGrid(20, 14, 1);
  const n = grid.width * grid.height;
  const heights = Float32Array.from({ length: n }, (_, k) => -((k * 7) % 5) - Math.sin(k / 3));
  const paper: Rgb = [255, 255, 255];
  const common = { grid, mask: new Uint8Array(n).fill(MASK.cut), paper, hatch: paper };
  const turned = shade({ ...common, heights, turned: true }).data;
  const lies = shade({ ...common, heights: heights.slice().reverse() }).data;
  expect(turned).not.toEqual(shade({ ...common, heights }).data);
  for (let k = 0; k < n; k++)
    expect([...turned.subarray(4 * k, 4 * k + 4)]).toEqual([...lies.subarray(4 * (n - 1 - k), 4 * (n - k))]);
});
