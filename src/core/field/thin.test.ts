import * as fc from 'fast-check';
import { expect, test } from 'vitest';
import { thinly, thinOut } from './thin';

const size = fc.integer({ min: 1, max: 90 });
const grids = fc.record({ width: size, height: size }).map((s) => ({ ...s, cell: 0.2, originX: 0.1, originY: 0.1 }));
const named = (width: number, height: number) => Float32Array.from({ length: width * height }, (_, k) => k);

test('what is left of a grid are cells of it, at their own places, evenly and no more than asked for (property)', () => {
  fc.assert(
    fc.property(grids, fc.integer({ min: 1, max: 40 }), (g, most) => {
      const thin = thinly(g, most);
      const out = thinOut(named(g.width, g.height), g, thin);
      expect(Math.max(thin.grid.width, thin.grid.height)).toBeLessThanOrEqual(most);
      expect(thin.grid.cell).toBeCloseTo(0.2 * thin.step, 9);
      for (let k = 0; k < out.length; k++) {
        const x = thin.grid.originX + (k % thin.grid.width) * thin.grid.cell;
        const y = thin.grid.originY + Math.floor(k / thin.grid.width) * thin.grid.cell;
        expect(x).toBeCloseTo(g.originX + (out[k] % g.width) * g.cell, 6);
        expect(y).toBeCloseTo(g.originY + Math.floor(out[k] / g.width) * g.cell, 6);
      }
    }),
  );
});

test('a part of a grid is covered by the cells that come of it, as finely as their number allows (property)', () => {
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(grids, fc.tuple(share, share, share, share), fc.integer({ min: 4, max: 40 }), (g, s, most) => {
      const [wide, high] = [g.width * g.cell, g.height * g.cell];
      const box = {
        x0: Math.min(s[0], s[1]) * wide,
        x1: Math.max(s[0], s[1]) * wide,
        y0: Math.min(s[2], s[3]) * high,
        y1: Math.max(s[2], s[3]) * high,
      };
      const { grid, step, i, j } = thinly(g, most, box);
      // One more than asked for where the part's ends lie between cells, on either side.
      expect(Math.max(grid.width, grid.height)).toBeLessThanOrEqual(most + 2);
      const cells = Math.max(box.x1 - box.x0, box.y1 - box.y0) / g.cell + 1;
      if (cells <= most) expect(step).toBe(1);
      const end = { x: grid.originX + (grid.width - 1) * grid.cell, y: grid.originY + (grid.height - 1) * grid.cell };
      const rim = g.cell * step;
      expect(grid.originX - Math.max(box.x0, g.originX)).toBeLessThanOrEqual(rim);
      expect(Math.min(box.x1, g.originX + (g.width - 1) * g.cell) - end.x).toBeLessThanOrEqual(rim);
      expect(grid.originY - Math.max(box.y0, g.originY)).toBeLessThanOrEqual(rim);
      expect(Math.min(box.y1, g.originY + (g.height - 1) * g.cell) - end.y).toBeLessThanOrEqual(rim);
      expect(i + (grid.width - 1) * step).toBeLessThan(g.width);
      expect(j + (grid.height - 1) * step).toBeLessThan(g.height);
    }),
  );
});
