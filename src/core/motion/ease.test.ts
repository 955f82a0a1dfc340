import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { DRAWER } from '../doc/defaults';
import { boardGrid, makeField } from '../field/height-field';
import { localHost } from '../kernels/host';
import { cutEased, EASED, easedShare } from './ease';
import { MOVES, Path } from './path';

// An end mill of 6.35 mm, 3.175 mm deep at most: its usual cut is 0.4 x 6.35 wide, 8.06 mm2, and one and a half times that 12.1.
const bit = { ...DRAWER[0], diameter: 6.35, maxStepdown: 3.175, feed: 1800, plunge: 500 };

/** A board of 60 x 40 mm cut by a path. */
async function eased(path: Path, from = 0) {
  const field = makeField(boardGrid(60, 40, 0.1), 0);
  await cutEased(localHost, field, { path, from, cutter: bit });
  return { path, field };
}

/** Moves as x, y, z and feed. */
const movesOf = ({ data }: Path) =>
  Array.from({ length: data.length / 4 }, (_, i) => [...data.subarray(4 * i, 4 * i + 4)]);

function slot(y: number, depth: number): Path {
  const path = new Path();
  path.rapid(5, y, 5);
  path.feed(5, y, -depth, bit.plunge, 'plunge');
  path.feed(55, y, -depth, bit.feed);
  return path;
}

describe('feeds by what is taken', () => {
  // Chip area of a full slot: its width times its depth; of a cut at the side: what it overlaps times its depth. By definition.
  test.each([
    [1.5, 1],
    [1.9, 1],
    [2.2, 0.8],
    [3.175, 0.6],
  ])('a full slot %s mm deep goes at %s of the feed', async (depth, share) => {
    const { path } = await eased(slot(20, depth));
    expect(movesOf(path).at(-1)).toEqual([55, 20, -depth, share * bit.feed]);
  });

  test('a cut of the usual width and a little more keeps its feed, whatever its length', async () => {
    const path = slot(20, 3.175);
    path.feed(55, 23.5, -3.175, bit.feed);
    path.feed(5, 23.5, -3.175, bit.feed);
    await eased(path);
    // At the slot's round end there is more to take.
    const back = movesOf(path).filter(([x, y]) => y === 23.5 && x < 40);
    expect(back[0][0]).toBeLessThan(5 + 6.35);
    expect(back[0][3]).toBe(bit.feed);
  });

  test('a long move is parted where it leaves open ground, and slow from there on', async () => {
    // Half of the board has been opened before.
    const path = new Path();
    path.rapid(5, 20, 5);
    path.feed(5, 20, -3.175, bit.plunge, 'plunge');
    path.feed(30, 20, -3.175, bit.feed);
    path.feed(5, 20, -3.175, bit.feed);
    path.at(['lap', 2, 2]);
    path.feed(55, 20, -3.175, bit.feed);
    await eased(path);
    const after = movesOf(path).slice(path.marks[0].move);
    expect(after.map((m) => m[3])).toEqual([bit.feed, 0.8 * bit.feed, 0.6 * bit.feed]);
    // Its feed falls where the front of the bit meets wood, within the length that the taking is meant over.
    expect(after[0][0]).toBeGreaterThan(30 - 2 * 6.35);
    expect(after[0][0]).toBeLessThan(30.1);
    expect(after[2].slice(0, 3)).toEqual([55, 20, -3.175]);
  });

  test('a short stretch between two slow ones does not speed up', async () => {
    const path = new Path();
    // A hole in the middle of the slot, cut before.
    path.rapid(30, 20, 5);
    path.feed(30, 20, -3.175, bit.plunge, 'plunge');
    path.rapid(30, 20, 5);
    path.rapid(5, 20, 5);
    path.feed(5, 20, -3.175, bit.plunge, 'plunge');
    path.feed(55, 20, -3.175, bit.feed);
    await eased(path);
    expect(movesOf(path).slice(-1)).toEqual([[55, 20, -3.175, 0.6 * bit.feed]]);
  });

  test('never more than few feeds, and never more a second than the stated factor', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3000 }), (v) => {
        const chip = v / 100;
        const share = easedShare(bit, chip);
        expect(EASED).toContain(share);
        if (share > EASED[EASED.length - 1]) expect(share * chip).toBeLessThanOrEqual(1.03 * 1.5 * 0.4 * 6.35 * 3.175);
        const quicker = EASED[EASED.indexOf(share) - 1];
        if (quicker) expect(quicker * chip).toBeGreaterThan(1.5 * 0.4 * 6.35 * 3.175);
      }),
    );
  });

  test('wherever it is slowed down, the tip goes the same way, and moves stay what they are', async () => {
    const place = fc.record({
      x: fc.integer({ min: 20, max: 580 }),
      y: fc.integer({ min: 20, max: 380 }),
      z: fc.integer({ min: -40, max: 10 }),
      kind: fc.constantFrom('cut' as const, 'link' as const, 'plunge' as const, 'rapid' as const),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(place, { minLength: 2, maxLength: 25 }), fc.nat(10), async (places, n) => {
        const path = new Path();
        path.rapid(3, 3, 5);
        for (const [i, { x, y, z, kind }] of places.entries()) {
          if (i % 4 === 0) path.at(['row', i, places.length]);
          if (kind === 'rapid') path.rapid(x / 10, y / 10, z / 10);
          else path.feed(x / 10, y / 10, z / 10, bit.feed, kind);
        }
        const was = { moves: movesOf(path), kinds: [...path.kinds], marks: path.marks.map((m) => m.move) };
        const from = Math.min(n, path.moves - 1);
        await eased(path, from);
        const now = movesOf(path);
        // Every former move's end is still there, in order, as what it was, and what lies between is on its line.
        let k = -1;
        was.moves.forEach((m, i) => {
          const begun = k + 1;
          do k++;
          while (k < now.length && !(now[k][0] === m[0] && now[k][1] === m[1] && now[k][2] === m[2]));
          expect(k).toBeLessThan(now.length);
          for (let q = begun; q <= k; q++) {
            expect(MOVES[path.kinds[q]]).toBe(MOVES[was.kinds[i]]);
            expect(now[q][3]).toBeLessThanOrEqual(m[3]);
            if (q === k) continue;
            const p = was.moves[i - 1];
            const long = Math.hypot(m[0] - p[0], m[1] - p[1], m[2] - p[2]);
            const via = Math.hypot(now[q][0] - p[0], now[q][1] - p[1], now[q][2] - p[2]);
            const rest = Math.hypot(m[0] - now[q][0], m[1] - now[q][1], m[2] - now[q][2]);
            expect(via + rest).toBeCloseTo(long, 9);
          }
          for (const [q, at] of was.marks.entries()) if (at === i) expect(path.marks[q].move).toBe(begun);
        });
        expect(k).toBe(now.length - 1);
      }),
      { numRuns: 60 },
    );
  });
});
