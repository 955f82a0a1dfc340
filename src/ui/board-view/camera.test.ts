import * as fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  atScale,
  barLength,
  type Camera,
  CLOSEST,
  closeTo,
  inView,
  laidOut,
  panned,
  pinched,
  REAL,
  zoomed,
} from './camera';
import { fitted, onScreen } from './layout';

const mm = (least: number, most: number) => fc.integer({ min: least * 10, max: most * 10 }).map((v) => v / 10);
const looking = fc.record({
  room: fc.record({ width: mm(200, 2000), height: mm(150, 1400) }),
  board: fc.record({ x: mm(20, 2400), y: mm(20, 1200) }),
  turned: fc.boolean(),
  pad: fc.constant(26),
});
const share = fc.double({ min: 0.1, max: 0.9, noNaN: true });
const at = fc.record({ x: share, y: share });

test('what lies under the pointer stays under it as the view comes closer, or the middle of the view stays on the board (property)', () => {
  fc.assert(
    fc.property(looking, at, fc.double({ min: 1.1, max: 6, noNaN: true }), (view, share, factor) => {
      const whole = onScreen(laidOut(view, null));
      const place = { x: share.x * view.board.x, y: share.y * view.board.y };
      const pixel = { x: whole.px(place.x), y: whole.py(place.y) };
      const camera = zoomed(view, null, pixel, factor);
      if (!camera) return;
      const near = onScreen(laidOut(view, camera));
      // Only at the board's own edges the view gives way.
      const bound = [camera.x, view.board.x - camera.x, camera.y, view.board.y - camera.y].some((v) => v < 1e-9);
      if (!bound) {
        expect(near.px(place.x)).toBeCloseTo(pixel.x, 6);
        expect(near.py(place.y)).toBeCloseTo(pixel.y, 6);
      }
      expect(camera.scale).toBeLessThanOrEqual(CLOSEST);
    }),
  );
});

test('no step leads further off than the whole board, and there nothing is drawn along', () => {
  const view = { room: { width: 800, height: 400 }, board: { x: 300, y: 200 }, turned: false, pad: 26 };
  const near = zoomed(view, null, { x: 300, y: 200 }, 4)!;
  expect(near.scale).toBeCloseTo(4 * fitted(view.room, 26, view.board, false).scale, 6);
  expect(zoomed(view, near, { x: 10, y: 10 }, 0.25)).toBeNull();
  expect(zoomed(view, near, { x: 10, y: 10 }, 0.01)).toBeNull();
  expect(panned(view, null, { x: 50, y: 0 })).toBeNull();
});

test('drawn along by so many pixels, everything lies as many pixels further, either way up; two fingers do both', () => {
  for (const turned of [false, true]) {
    const view = { room: { width: 800, height: 400 }, board: { x: 300, y: 200 }, turned, pad: 26 };
    const near: Camera = { scale: 20, x: 120, y: 80 };
    const before = onScreen(laidOut(view, near));
    const after = onScreen(laidOut(view, panned(view, near, { x: 30, y: -12 })));
    expect(after.px(100) - before.px(100)).toBeCloseTo(30, 6);
    expect(after.py(90) - before.py(90)).toBeCloseTo(-12, 6);
    const place = before.place(300, 150);
    const both = onScreen(laidOut(view, pinched(view, near, { x: 300, y: 150 }, { x: 340, y: 170 }, 2)));
    expect(both.px(place.x)).toBeCloseTo(340, 6);
    expect(both.py(place.y)).toBeCloseTo(170, 6);
  }
});

test('as large as it is a millimetre takes the screen’s 3.78 pixels; a board that is larger than that when whole stays whole', () => {
  const view = { room: { width: 800, height: 400 }, board: { x: 300, y: 200 }, turned: false, pad: 26 };
  expect(laidOut(view, atScale(view, null, REAL)).scale).toBeCloseTo(3.7795, 4);
  expect(atScale({ ...view, board: { x: 40, y: 30 } }, null, REAL)).toBeNull();
});

test('a place that is gone to lies in the middle, no further off than before, and what is in view lies on the board', () => {
  const view = { room: { width: 800, height: 400 }, board: { x: 300, y: 200 }, turned: false, pad: 26 };
  const camera = closeTo(view, null, { x: 40, y: 160 }, 20)!;
  expect(camera).toEqual({ x: 40, y: 160, scale: 20 });
  expect(closeTo(view, { scale: 50, x: 0, y: 0 }, { x: 40, y: 160 }, 20)?.scale).toBe(50);
  const seen = inView(view, laidOut(view, camera));
  expect(seen).toEqual({ x0: 20, y0: 150, x1: 60, y1: 170 });
  expect(inView(view, laidOut(view, camera), 1)).toEqual({ x0: 0, y0: 130, x1: 100, y1: 190 });
});

test('a scale bar has a round length in the shown unit and fits (property)', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.05, max: 200, noNaN: true }), fc.constantFrom(1, 25.4), (scale, unit) => {
      const long = barLength(scale, unit, 120);
      expect(long * scale).toBeLessThanOrEqual(120 + 1e-6);
      expect(long * scale).toBeGreaterThan(120 / 2.6);
      const figure = long / unit / 10 ** Math.floor(Math.log10(long / unit) + 1e-9);
      expect([1, 2, 5].some((n) => Math.abs(figure - n) < 1e-6)).toBe(true);
    }),
  );
});
