import fc from 'fast-check';
import { beforeAll, describe, expect, test } from 'vitest';
import { applyEdits } from '../doc/edits';
import { addPass } from '../passes/add-pass';
import { MOTION, readProgram } from '../program/reader';
import { WayThinner } from '../proof/thin-ways';
import { WAY_ARRAYS, WAYS, type Ways } from '../proof/way-parts';
import { dishes, drawerBit, planShapes, type SetupPlan } from './plan-test-kit';

const START = WAYS.indexOf('start');
const placeOf = ({ places }: Pick<Ways, 'places'>, i: number) => WAY_ARRAYS.map((a) => places[a][i]);

describe('the ways of a plan', () => {
  let plan: SetupPlan;
  let ways: Ways;
  beforeAll(async () => {
    const { face } = dishes();
    face.board.setups = [face.setup];
    if (!face.passes.some((p) => p.kind === 'rough'))
      applyEdits(face.document, addPass(face, 'rough', drawerBit('em-6.35')));
    plan = await planShapes(face);
    ways = plan.ways;
  });

  test('are the motions of the written programs, one for one, with their lines and feeds', () => {
    let at = 0;
    for (const { file, text, cutter } of plan.summary.programs) {
      const { motions } = readProgram(text, file, cutter);
      const n = motions.length / MOTION;
      expect(ways.kind[at]).toBe(START);
      for (let i = 0; i < n; i++) {
        const m = i * MOTION;
        const k = at + 1 + i;
        expect(ways.places.x[k]).toBeCloseTo(motions[m + 3], 3);
        expect(ways.places.y[k]).toBeCloseTo(motions[m + 4], 3);
        expect(ways.places.z[k]).toBeCloseTo(motions[m + 5], 3);
        expect(ways.places.line[k]).toBe(motions[m + 8]);
        expect(ways.kind[k] === WAYS.indexOf('rapid')).toBe(motions[m + 6] === 1);
      }
      at += n + 1;
    }
    expect(at).toBe(ways.kind.length);
  });

  test('begin where their passes do; what cuts takes wood, what is in the air takes none, and each pass goes in', () => {
    expect(ways.passes.map((p) => p.pass)).toEqual(plan.summary.programs.flatMap((p) => p.passes));
    ways.passes.forEach(({ from }, p) => {
      const to = ways.passes[p + 1]?.from ?? ways.kind.length;
      const kinds = Array.from(ways.kind.subarray(from, to), (k) => WAYS[k]);
      expect(kinds).toContain('entry');
      expect(kinds.filter((k) => k === 'cut').length).toBeGreaterThan(10);
    });
    const chip = (name: (typeof WAYS)[number]) =>
      Array.from(ways.places.chip).filter((_, i) => WAYS[ways.kind[i]] === name);
    expect(Math.min(...chip('cut'))).toBeGreaterThan(0);
    expect(Math.max(...chip('cut'))).toBeGreaterThan(0.5);
  });
});

describe('thinned ways', () => {
  const walk = fc.array(
    fc.tuple(
      fc.double({ min: -3, max: 3, noNaN: true }),
      fc.double({ min: -3, max: 3, noNaN: true }),
      fc.integer({ min: 0, max: 4 }),
    ),
    { minLength: 2, maxLength: 60 },
  );
  /** Places one after the other, with what each is, how much it takes, and its line. */
  const wayOf = (steps: [number, number, number][]) => {
    let [x, y] = [0, 0];
    return steps.map(([dx, dy, kind], i) => {
      [x, y] = [x + dx, y + dy];
      return { kind: i === 0 ? START : kind, place: [x, y, 0, 100, (i * 7) % 5, (i * 3) % 4, i] };
    });
  };
  const apart = (p: number[], a: number[], b: number[]) => {
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const long = dx * dx + dy * dy;
    const t = long > 0 ? Math.min(1, Math.max(0, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / long)) : 0;
    return Math.hypot(a[0] + t * dx - p[0], a[1] + t * dy - p[1]);
  };

  test('lie within their figure of all that they leave out, and lose no kind, no wood and no bite (property)', () => {
    fc.assert(
      fc.property(walk, fc.double({ min: 0.1, max: 4, noNaN: true }), (steps, fine) => {
        const way = wayOf(steps);
        const thinner = new WayThinner({ x0: -1e3, y0: -1e3, x1: 1e3, y1: 1e3 }, fine);
        for (const { kind, place } of way) thinner.put(kind, place);
        const out = thinner.finish();
        expect(out.kind.length).toBeLessThanOrEqual(2 * way.length);
        for (let i = 1; i < way.length; i++) {
          if (way[i].kind === START) continue;
          const lines = Array.from(out.kind).flatMap((k, j) =>
            k === way[i].kind ? [{ a: placeOf(out, j - 1), b: placeOf(out, j) }] : [],
          );
          const near = Math.min(...lines.map(({ a, b }) => apart(way[i].place, a, b)));
          expect(near).toBeLessThanOrEqual(fine + 1e-4);
        }
        for (const of of [4, 5]) {
          const fed = way.filter((w, i) => i > 0 && w.kind !== START).map((w) => w.place[of]);
          if (fed.length > 0)
            expect(Math.max(...Array.from(out.places[WAY_ARRAYS[of]]))).toBeGreaterThanOrEqual(Math.max(...fed));
        }
      }),
    );
  });

  test('pass the rest of the board by, and are whole where nothing may be left out', () => {
    const way = wayOf([
      [0, 0, 0],
      [1, 0, 4],
      [1, 0, 4],
      [1, 0, 4],
      [1, 0, 4],
    ]);
    const box = { x0: 1.2, y0: -1, x1: 1.8, y1: 1 };
    const near = new WayThinner(box, 0.01);
    const all = new WayThinner({ x0: -9, y0: -9, x1: 9, y1: 9 }, 0);
    for (const { kind, place } of way) {
      near.put(kind, place);
      all.put(kind, place);
    }
    expect(Array.from(near.finish().places.x)).toEqual([1, 2]);
    expect(Array.from(all.finish().places.x)).toEqual([0, 1, 2, 3, 4]);
  });
});
