import fc from 'fast-check';
import { expect, test } from 'vitest';
import { boardGrid } from '../field/height-field';
import type { Frame } from '../setup/frame';
import { replaceSurface, standsEverywhere, surfaceOf, wholeBoard, woodUnder } from './solid';

const grid = boardGrid(4, 3, 1);
const n = grid.width * grid.height;
/** The other side seen after turning about either axis; null for the same side. */
const WAYS = [null, 'about-y', 'about-x'] as const;
type Turned = (typeof WAYS)[number];
const frame = (turned: Turned): Frame => ({
  turned: turned && { about: turned, over: turned === 'about-y' ? 4 : 3 },
  thickness: 10,
});

const cuts = fc.array(
  fc.record({
    turned: fc.constantFrom(...WAYS),
    depths: fc.array(fc.integer({ min: 0, max: 12 }), { minLength: n, maxLength: n }),
  }),
  { maxLength: 4 },
);

test('setups leave the wood that is in neither cut, whichever side is up and however often; what one has left stays its own', () => {
  fc.assert(
    fc.property(cuts, (all) => {
      const solid = wholeBoard(grid, 10);
      // By the plain definition: of every cell the highest and the lowest that still stands, in the first frame.
      const top = new Array(n).fill(0);
      const bottom = new Array(n).fill(-10);
      const left: [Float32Array, Float32Array][] = [];
      for (const { turned, depths } of all) {
        const f = frame(turned);
        const cut = surfaceOf(solid, f);
        const stood = cut.data.slice();
        for (let k = 0; k < n; k++) cut.data[k] = Math.min(cut.data[k], -depths[k]);
        const wood = woodUnder(solid, f, cut.data).data;
        const before = replaceSurface(solid, f, cut.data);
        expect(Array.from(before.data)).toEqual(Array.from(stood));
        before.data.fill(99);
        left.push([cut.data, cut.data.slice()]);
        for (let k = 0; k < n; k++) {
          const [i, j] = [k % 4, Math.floor(k / 4)];
          const own = turned === 'about-y' ? 4 * j + 3 - i : turned === 'about-x' ? 4 * (2 - j) + i : k;
          // What a setup sees of the wood while it cuts is what the solid holds afterwards.
          expect(wood[k]).toBe(Math.max(0, solid.top[own] - solid.bottom[own]));
          if (top[own] <= bottom[own]) continue;
          if (turned) bottom[own] = Math.max(bottom[own], depths[k] - 10);
          else top[own] = Math.min(top[own], -depths[k]);
        }
      }
      expect(Array.from(solid.top, (t, k) => Math.max(0, t - solid.bottom[k]))).toEqual(
        top.map((t, k) => Math.max(0, t - bottom[k])),
      );
      for (const [now, then] of left) expect(now).toEqual(then);
    }),
    { numRuns: 200 },
  );
});

test('a board stands everywhere where the thinnest of its wood is thicker', () => {
  fc.assert(
    fc.property(cuts, fc.constantFrom(...WAYS), fc.integer({ min: 0, max: 10 }), (all, turned, least) => {
      const solid = wholeBoard(grid, 10);
      for (const { turned: up, depths } of all) {
        const cut = surfaceOf(solid, frame(up));
        for (let k = 0; k < n; k++) cut.data[k] = Math.min(cut.data[k], -depths[k]);
        replaceSurface(solid, frame(up), cut.data);
      }
      const surface = surfaceOf(solid, frame(turned));
      const wood = woodUnder(solid, frame(turned), surface.data);
      expect(standsEverywhere(solid, frame(turned), surface.data, least)).toBe(wood.data.every((v) => v > least));
    }),
  );
});
