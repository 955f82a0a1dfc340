import fc from 'fast-check';
import { expect, test } from 'vitest';
import { withEdits } from '../doc/edits';
import { FLIPS } from '../doc/parts';
import { DISHED, dishes, drawerBit } from '../plan/plan-test-kit';
import { setupView } from '../setup/view';
import { addDowels, dowelFault, dowelPlaces, playOf } from './dowels';

/** Half a turn about an axis through the board's middle, seen from above: what was right lies left, or what was near lies far. */
const over = (flip: (typeof FLIPS)[number], p: { x: number; y: number }, b: { x: number; y: number }) =>
  flip === 'about-y' ? { x: b.x - p.x, y: p.y } : { x: p.x, y: b.y - p.y };

test('dowels are set on the axis, clear of what both sides cut and of clamps, and the board fits on them in one way alone', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...FLIPS),
      fc.integer({ min: 60, max: 200 }),
      fc.integer({ min: 60, max: 200 }),
      fc.integer({ min: 0, max: 60 }),
      (flip, x, y, clampAt) => {
        const board = { ...DISHED, x, y };
        const { face } = dishes(board);
        face.board.flip = flip;
        const clamp = { x0: clampAt, y0: clampAt, x1: clampAt + 10, y1: clampAt + 10 };
        const { x0, y0, x1, y1 } = clamp;
        const outline = [
          { x: x0, y: y0 },
          { x: x1, y: y0 },
          { x: x1, y: y1 },
          { x: x0, y: y1 },
        ];
        face.setup.holding = [{ id: 'c', kind: 'clamp', outline, height: 20, keptFree: 2 }];
        const places = dowelPlaces(face, 6);
        if (!places) return;
        expect(places).toHaveLength(2);
        for (const p of places) {
          // On the axis: turned over it is where it was.
          const q = over(flip, p, board);
          expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeLessThan(0.001);
          expect(Math.min(p.x, p.y, x - p.x, y - p.y)).toBeGreaterThanOrEqual(6 - 1e-6);
          // The dishes lie at 30, 25 with radii of 18 and 15 seen from the face; the back's are seen through the board.
          const back = flip === 'about-y' ? { x: 30, y: 25 } : { x: x - 30, y: y - 25 };
          expect(Math.hypot((p.x - 30) / 18, (p.y - 25) / 15)).toBeGreaterThan(1);
          expect(Math.hypot(p.x - back.x, p.y - back.y)).toBeGreaterThan(15 + 3);
          const [dx, dy] = [Math.max(x0 - p.x, p.x - x1, 0), Math.max(y0 - p.y, p.y - y1, 0)];
          expect(Math.hypot(dx, dy)).toBeGreaterThanOrEqual(3 + 2);
        }
        expect(dowelFault(face, { places, diameter: 6 })).toBeNull();
      },
    ),
  );
});

test.each(FLIPS)('a clamp where a dowel would stand moves it, turned over %s', (flip) => {
  const { face, back } = dishes({ ...DISHED, x: 120, y: 140 });
  face.board.flip = flip;
  const free = dowelPlaces(face, 6)!;
  for (const view of [face, back]) {
    // Of either setup: on the axis a place lies in the same spot from both sides, and a clamp around it reaches 8 mm to every side.
    const [{ x, y }] = free;
    const outline = [-5, 5].flatMap((dx) => [-5, 5].map((dy) => ({ x: x + dx, y: y + dy })));
    view.setup.holding = [{ id: 'c', kind: 'clamp', outline, height: 20, keptFree: 3 }];
    const moved = dowelPlaces(face, 6)!;
    for (const p of moved) expect(Math.max(Math.abs(p.x - x), Math.abs(p.y - y))).toBeGreaterThanOrEqual(8 + 3);
    view.setup.holding = [];
  }
  expect(dowelPlaces(face, 6)).toEqual(free);
});

test.each([
  ['one', [{ x: 45, y: 10 }], 'alone'],
  [
    'beyond the edge',
    [
      { x: 45, y: 1 },
      { x: 45, y: 60 },
    ],
    'outside',
  ],
  [
    'beside the axis',
    [
      { x: 46, y: 10 },
      { x: 45, y: 60 },
    ],
    'off-axis',
  ],
  [
    'even about the middle',
    [
      { x: 45, y: 10 },
      { x: 45, y: 60 },
    ],
    'symmetric',
  ],
  [
    'right',
    [
      { x: 45, y: 10 },
      { x: 45, y: 50 },
    ],
    null,
  ],
  [
    'a pair beside the axis, each where the other comes to lie',
    [
      { x: 20, y: 10 },
      { x: 70, y: 10 },
    ],
    null,
  ],
])('dowels %s', (_, places, fault) => {
  const { face } = dishes({ ...DISHED, x: 90, y: 70 });
  expect(dowelFault(face, { places, diameter: 6 })).toBe(fault);
});

test('the play of dowels: arithmetic, and no rigid motion that the clearance lets happen moves a corner further', () => {
  const { face } = dishes({ ...DISHED, x: 200, y: 120 });
  const pass = {
    places: [
      { x: 100, y: 10 },
      { x: 100, y: 90 },
    ],
    diameter: 6.1,
    dowel: 6,
  };
  const play = playOf(face, pass)!;
  expect(play.shift).toBeCloseTo(0.1, 9);
  // Two ends that give way by 0.1 mm to opposite sides, 80 mm apart.
  expect(play.turn).toBeCloseTo((Math.asin(0.2 / 80) * 180) / Math.PI, 9);
  fc.assert(
    fc.property(
      fc.integer({ min: -1000, max: 1000 }),
      fc.integer({ min: -1000, max: 1000 }),
      fc.integer({ min: -1000, max: 1000 }),
      (a, u, v) => {
        const [angle, dx, dy] = [(a / 1000) * 0.003, (u / 1000) * 0.15, (v / 1000) * 0.15];
        const moved = (x: number, y: number) => {
          const [c, s] = [Math.cos(angle), Math.sin(angle)];
          const [px, py] = [x - 100, y - 50];
          return Math.hypot(px * c - py * s + dx - px, px * s + py * c + dy - py);
        };
        if (pass.places.some((p) => moved(p.x, p.y) > play.shift)) return;
        for (const [x, y] of [
          [0, 0],
          [200, 0],
          [0, 120],
          [200, 120],
        ])
          expect(moved(x, y)).toBeLessThanOrEqual(play.corner + 1e-9);
      },
    ),
    { numRuns: 2000 },
  );
  expect(playOf(face, { ...pass, dowel: null })).toBeNull();
});

test('holes for dowels come with their bit, go through into the spoilboard, and a board without room has none', () => {
  const { face } = dishes({ ...DISHED, x: 60, y: 100 });
  face.cutters.push(drawerBit('drill6'));
  const made = setupView(withEdits(face.document, addDowels(face)!));
  const pass = made.passes.find((p) => p.kind === 'hole');
  expect(pass).toMatchObject({ diameter: 6, dowel: 5.9, depth: null, into: 8, cutter: 'drill6' });
  // An end mill makes them as wide as the dowel and its clearance ask.
  const { face: milled } = dishes({ ...DISHED, x: 60, y: 100 });
  const other = setupView(withEdits(milled.document, addDowels(milled)!));
  expect(other.passes.find((p) => p.kind === 'hole')).toMatchObject({ diameter: 6.1, dowel: 6 });
  expect(addDowels(dishes().face)).toBeNull();
});
