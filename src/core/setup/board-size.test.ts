import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Board } from '../doc/board';
import { FLIPS } from '../doc/parts';
import { ORIGINS } from '../doc/setup';
import { dishes } from '../plan/plan-test-kit';
import { resizeBoard } from './board-size';
import { frameBetween, placeThrough, zeroOf } from './frame';

/** Where the middle of each setup's layer lies from that setup's zero, and where the zero lies on the table. */
const seen = (board: Board) =>
  board.setups.map((s) => {
    const zero = zeroOf(board, s);
    const [{ centre }] = s.layers;
    return {
      piece: { x: centre.x - zero.x, y: centre.y - zero.y },
      table: { x: s.place.x + zero.x, y: s.place.y + zero.y },
    };
  });

const near = (a: { x: number; y: number }, b: { x: number; y: number }) =>
  expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(1e-3);

test('a board of another size leaves its piece to the zero of the first setup, and both faces over each other', () => {
  const size = fc.integer({ min: 50, max: 200 });
  fc.assert(
    fc.property(
      size,
      size,
      fc.constantFrom(...ORIGINS),
      fc.constantFrom(...ORIGINS),
      fc.constantFrom(...FLIPS),
      (x, y, ...how) => {
        const [first, second, flip] = how;
        const { face, back } = dishes();
        const { board } = face;
        board.flip = flip;
        face.setup.zero.origin = first;
        back.setup.zero.origin = second;
        const over = () => {
          const b = placeThrough(frameBetween(board, back.setup, face.setup), back.layers[0].centre);
          return { x: b.x - face.layers[0].centre.x, y: b.y - face.layers[0].centre.y };
        };
        const [was, lay] = [seen(board), over()];
        resizeBoard(board, { x, y });
        expect([board.x, board.y]).toEqual([x, y]);
        const now = seen(board);
        near(now[0].piece, was[0].piece);
        near(now[0].table, was[0].table);
        near(now[1].table, was[1].table);
        near(over(), lay);
      },
    ),
    { numRuns: 60 },
  );
});

test('what holds a board and finds it again goes with its piece, and so do places where it is open', () => {
  const { face } = dishes();
  const { board, setup } = face;
  setup.zero.origin = 'upper-right';
  setup.references = { cross: { x: 3, y: 4 }, ticks: [{ x: 1, y: 1 }], spots: [] };
  setup.holding = [{ id: 'c', kind: 'clamp', outline: [{ x: 2, y: 2 }], height: 5, keptFree: 1 }];
  board.openings = [{ x: 9, y: 9 }];
  resizeBoard(board, { x: board.x + 10 });
  expect(setup.references).toMatchObject({ cross: { x: 13, y: 4 }, ticks: [{ x: 11, y: 1 }] });
  expect(setup.holding[0].outline).toEqual([{ x: 12, y: 2 }]);
  expect(board.openings).toEqual([{ x: 19, y: 9 }]);
  board.setups = [];
  resizeBoard(board, { y: 70 });
  expect(board.y).toBe(70);
});
