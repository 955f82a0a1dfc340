import fc from 'fast-check';
import { expect, test } from 'vitest';
import { FLIPS } from '../doc/parts';
import { boardGrid, cellPlace } from '../field/height-field';
import { boxThrough, type Frame, frameBetween, gridThrough, placeThrough, turnedCells } from './frame';

const SIZE = { x: 90, y: 50, thickness: 12 };
const frameOf = (flip: (typeof FLIPS)[number]) =>
  frameBetween({ flip, ...SIZE }, { up: 'face' }, { up: 'back' }) as Frame & { turned: object };

/** Half a turn about an axis through the board's middle, as a rotation matrix does it; independent of the frames. */
function rotated(flip: (typeof FLIPS)[number], [x, y, z]: number[]): number[] {
  const [u, v, w] = [x - SIZE.x / 2, y - SIZE.y / 2, z + SIZE.thickness / 2];
  const [c, s] = [Math.cos(Math.PI), Math.sin(Math.PI)];
  const [a, b, d] = flip === 'about-y' ? [u * c + w * s, v, -u * s + w * c] : [u, v * c - w * s, v * s + w * c];
  return [a + SIZE.x / 2, b + SIZE.y / 2, d - SIZE.thickness / 2];
}

const place = fc.record({ x: fc.integer({ min: 0, max: 900 }), y: fc.integer({ min: 0, max: 500 }) });

test.each(FLIPS)(
  'turned over %s a place goes where half a turn about that axis takes it (rigid motion), and comes back',
  (flip) => {
    const frame = frameOf(flip);
    fc.assert(
      fc.property(place, place, (a, b) => {
        const [p, q] = [placeThrough(frame, a), placeThrough(frame, b)];
        // The places are tenths of a mm, so that the board's own sides are met too.
        const exact = rotated(flip, [a.x, a.y, 0]);
        expect(p.x).toBeCloseTo(exact[0], 9);
        expect(p.y).toBeCloseTo(exact[1], 9);
        expect(placeThrough(frame, p)).toEqual(a);
        expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeCloseTo(Math.hypot(a.x - b.x, a.y - b.y), 9);
      }),
    );
    // What was the top is the underside.
    expect(rotated(flip, [0, 0, 0])[2]).toBeCloseTo(-SIZE.thickness, 9);
  },
);

test.each(FLIPS)('turned over %s grids, boxes and cells go where their places go', (flip) => {
  const frame = frameOf(flip);
  const grid = { ...boardGrid(30, 20, 2), originX: 41, originY: 7 };
  const other = gridThrough(frame, grid);
  const data = Float32Array.from({ length: grid.width * grid.height }, (_, k) => k);
  const turned = turnedCells(data, grid.width, frame.turned as never);
  for (let k = 0; k < data.length; k++) {
    const { x, y } = placeThrough(frame, cellPlace(other, k));
    const i = Math.round((x - grid.originX) / grid.cell);
    const j = Math.round((y - grid.originY) / grid.cell);
    expect([x - grid.originX - i * grid.cell, y - grid.originY - j * grid.cell].every((d) => Math.abs(d) < 1e-9)).toBe(
      true,
    );
    expect(turned[k]).toBe(data[j * grid.width + i]);
  }
  const box = { x0: 3, y0: 4, x1: 20, y1: 9 };
  const [a, b] = [placeThrough(frame, { x: 3, y: 4 }), placeThrough(frame, { x: 20, y: 9 })];
  expect(boxThrough(frame, box)).toEqual({
    x0: Math.min(a.x, b.x),
    x1: Math.max(a.x, b.x),
    y0: Math.min(a.y, b.y),
    y1: Math.max(a.y, b.y),
  });
});

test('the same side up is the same place', () => {
  const same = frameBetween({ flip: 'about-x', ...SIZE }, { up: 'back' }, { up: 'back' });
  expect(same.turned).toBeNull();
  expect(placeThrough(same, { x: 1, y: 2 })).toEqual({ x: 1, y: 2 });
});
