import * as fc from 'fast-check';
import { expect, test } from 'vitest';
import { fitted, onScreen, wayOnBoard } from './layout';

const mm = (most: number) => fc.integer({ min: 1, max: most * 10 }).map((v) => v / 10);
const view = fc.record({
  room: fc.record({ width: mm(2000), height: mm(2000) }),
  board: fc.record({ x: mm(2400), y: mm(1200) }),
  at: fc.record({ x: fc.double({ min: 0, max: 1, noNaN: true }), y: fc.double({ min: 0, max: 1, noNaN: true }) }),
});

test('a board lies in the middle of its room, inside the pad, and places go there and back (property)', () => {
  fc.assert(
    fc.property(view, fc.boolean(), ({ room, board, at }, turned) => {
      const layout = fitted(room, 26, board, turned);
      const { px, py, place } = onScreen(layout);
      expect((px(0) + px(board.x)) / 2).toBeCloseTo(room.width / 2, 6);
      expect((py(0) + py(board.y)) / 2).toBeCloseTo(room.height / 2, 6);
      expect(Math.abs(px(board.x) - px(0))).toBeCloseTo(board.x * layout.scale, 6);
      const p = { x: at.x * board.x, y: at.y * board.y };
      const back = place(px(p.x), py(p.y));
      expect(Math.abs(back.x - p.x) + Math.abs(back.y - p.y)).toBeLessThan(1e-6);
    }),
  );
});

test('as seen, everything lies half a turn from where it lies on the machine, and a way on the screen is the opposite way on the board', () => {
  fc.assert(
    fc.property(view, ({ room, board, at }) => {
      const lies = onScreen(fitted(room, 26, board, false));
      const seen = onScreen(fitted(room, 26, board, true));
      const p = { x: at.x * board.x, y: at.y * board.y };
      expect(seen.px(p.x)).toBeCloseTo(room.width - lies.px(p.x), 6);
      expect(seen.py(p.y)).toBeCloseTo(room.height - lies.py(p.y), 6);
    }),
  );
  expect(wayOnBoard({ turned: false }, [1, 2])).toEqual([1, 2]);
  expect(wayOnBoard({ turned: true }, [1, 2])).toEqual([-1, -2]);
});
