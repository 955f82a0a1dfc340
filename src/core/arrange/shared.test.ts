import fc from 'fast-check';
import { expect, test } from 'vitest';
import { applyEdits } from '../doc/edits';
import type { Job } from '../doc/job';
import { FLIPS } from '../doc/parts';
import { backFrom } from '../plan/backs';
import { dishes } from '../plan/plan-test-kit';
import { setupView } from '../setup/view';
import { followShared, makeIndependent, oneWith, putOnToo } from './shared';

/** A board whose back is its face's mirror, the two layers one. */
function mirrored(flip: (typeof FLIPS)[number] = 'about-y') {
  const { face } = dishes();
  face.board.setups.splice(1);
  face.board.flip = flip;
  const made = backFrom(face, 'mirror')!;
  applyEdits(face.document, made.edits);
  return { job: face.document, face, back: setupView(face.document, made.id) };
}

/** A change as the editor makes it. */
function change(job: Job, edit: (j: Job) => void): Job {
  const next = structuredClone(job);
  edit(next);
  followShared(job, next);
  return next;
}
const layersOf = (j: Job) => j.boards[0].setups.map((s) => s.layers[0]);

test('a mirror is one with its face: what is done to either is done to both, and twice over gives the first back', () => {
  const hundredths = (min: number, max: number) => fc.integer({ min: 100 * min, max: 100 * max }).map((v) => v / 100);
  fc.assert(
    fc.property(
      fc.constantFrom(...FLIPS),
      fc.integer({ min: 0, max: 1 }),
      hundredths(0, 60),
      hundredths(0, 50),
      hundredths(-179, 180),
      (flip, which, x, y, turn) => {
        const { job } = mirrored(flip);
        const now = change(job, (j) => Object.assign(layersOf(j)[which], { centre: { x, y }, turn, rise: 3.25 }));
        const [a, b] = layersOf(now);
        const board = now.boards[0];
        expect([a.rise, b.rise]).toEqual([3.25, 3.25]);
        expect(a.mirror).toBe(!b.mirror);
        const over =
          flip === 'about-y' ? { x: board.x - a.centre.x, y: a.centre.y } : { x: a.centre.x, y: board.y - a.centre.y };
        expect(b.centre.x).toBeCloseTo(over.x, 6);
        expect(b.centre.y).toBeCloseTo(over.y, 6);
        // Back on the other side it stands as it was put.
        const own = [a, b][which];
        const again = change(now, (j) => (layersOf(j)[1 - which].rise = 4));
        expect({ ...layersOf(again)[which], turn: 0 }).toEqual({ ...own, rise: 4, turn: 0 });
        expect((((layersOf(again)[which].turn - own.turn) % 360) + 360) % 360).toBeCloseTo(0, 6);
      },
    ),
    { numRuns: 60 },
  );
});

test('each keeps its name and its lock; a board of another size takes them along', () => {
  const { job } = mirrored();
  const named = change(job, (j) => Object.assign(layersOf(j)[1], { name: 'Behind', locked: true, rise: 2 }));
  expect(layersOf(named).map((l) => [l.name, l.locked, l.rise])).toEqual([
    [layersOf(job)[0].name, false, 2],
    ['Behind', true, 2],
  ]);
  const wider = change(named, (j) => (j.boards[0].x += 10));
  const [a, b] = layersOf(wider);
  expect(b.centre.x).toBeCloseTo(wider.boards[0].x - a.centre.x, 6);
});

test('made independent, neither follows any more', () => {
  const { job, face } = mirrored();
  expect(oneWith(face.board, face.layers[0])).toHaveLength(1);
  const apart = change(job, (j) => makeIndependent(j.boards[0], layersOf(j)[0]));
  expect(layersOf(apart).map((l) => l.shared)).toEqual([null, null]);
  const now = change(apart, (j) => (layersOf(j)[0].rise = 1));
  expect(layersOf(now)[1].rise).toBe(layersOf(job)[1].rise);
});

test('a layer put on the back too lies where it is seen through the board, and follows from then on', () => {
  const { job } = mirrored();
  const put = change(job, (j) => {
    const [face, back] = j.boards[0].setups;
    back.layers = [];
    putOnToo(j.boards[0], face, face.layers[0], back, 'too');
  });
  const [a, b] = layersOf(put);
  expect([b.id, b.shared, b.centre.x]).toEqual(['too', a.shared, put.boards[0].x - a.centre.x]);
  const moved = change(put, (j) => (layersOf(j)[1].size = { x: 11, y: 12 }));
  expect(layersOf(moved)[0].size).toEqual({ x: 11, y: 12 });
});
