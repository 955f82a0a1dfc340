import { describe, expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { withEdits } from '../doc/edits';
import { FLIPS } from '../doc/parts';
import { makeField } from '../field/height-field';
import { addPass } from '../passes/add-pass';
import { highestAbout, thicknessAlong } from '../passes/underside';
import { MOTION, readProgram } from '../program/reader';
import { setupView } from '../setup/view';
import { backFrom } from './backs';
import { dishes, drawerBit, errorsOf, planWhole } from './plan-test-kit';

const SIZE = { x: 70, y: 60, thickness: 12 };

/** A round boss of 30 mm on both faces of a board, aside from its middle, cut out from the back. */
function stamped(flip: (typeof FLIPS)[number]) {
  const { face } = dishes({ ...SIZE, material: dishes().face.board.material });
  face.board.flip = flip;
  face.board.setups.splice(1);
  face.seat = { mode: 'raised', skin: 0, drop: 0, press: null };
  face.layers = [
    {
      ...newShape({ id: 'disc', name: 'Disc' }, { kind: 'oval' }, { kind: 'flat' }, SIZE),
      size: { x: 30, y: 30 },
      centre: { x: 30, y: 27 },
      rise: 2.5,
    },
  ];
  face.cell = 0.3;
  for (const p of face.passes) if (p.kind === 'finish') p.stepover = 0.4;
  const made = backFrom(face, 'mirror')!;
  const back = setupView(withEdits(face.document, made.edits), made.id);
  const cut = addPass(back, 'cutout', drawerBit('em3'));
  const whole = setupView(withEdits(back.document, cut), made.id);
  const pass = whole.passes.find((p) => p.kind === 'cutout');
  if (pass?.kind === 'cutout') Object.assign(pass.tabs, { count: 4, length: 6, thickness: 3 });
  return whole;
}

describe.each(FLIPS)('turned over %s', (flip) => {
  test('a cut-out from the back goes down to what the face has left, and its tabs hang on wood', async () => {
    const back = stamped(flip);
    const plan = await planWhole(back.document);
    expect(errorsOf(plan)).toEqual([]);
    const program = plan.summary.programs.filter((p) => p.setup === back.setup.id).at(-1)!;
    const { motions } = readProgram(program.text, program.file, program.cutter);
    let low = 0;
    for (let m = 0; m < motions.length; m += MOTION) if (motions[m + 6] !== 1) low = Math.min(low, motions[m + 5]);
    // The face is cleared by 2.5 mm around the disc, where roughing alone has been 1 mm stands over that; the cut goes 0.5 mm further.
    expect(low).toBeLessThanOrEqual(-(12 - 2.5) - 0.5 + 0.01);
    expect(low).toBeGreaterThanOrEqual(-(12 - 2.5 + 1) - 0.5 - 0.1);
    const [cutout] = plan.summary.setups[1].cutouts;
    expect(cutout.joined).toBeNull();
    expect(cutout.tabs).toHaveLength(4);
    for (const tab of cutout.tabs) {
      expect(tab.holds).toBe(true);
      // As thick as was asked for to a fifth of a mm, where a ball has left a hollow under it; where roughing alone has been on the face, its stock thicker.
      expect(tab.thickness).toBeGreaterThan(2.75);
      expect(tab.thickness).toBeLessThan(4.2);
    }
  });
});

test('the highest cell about a place is that of the plain definition, and beyond a field there is none', () => {
  const f = makeField({ width: 9, height: 7, cell: 0.5, originX: 3, originY: 2 }, 0);
  f.data.forEach((_, k) => {
    f.data[k] = -((k * 37) % 11);
  });
  for (let x = 2; x < 8.5; x += 0.3)
    for (let y = 1; y < 6.5; y += 0.3) {
      let plain: number | null = null;
      for (let k = 0; k < f.data.length; k++) {
        const [cx, cy] = [3 + (k % 9) * 0.5, 2 + Math.floor(k / 9) * 0.5];
        // The nearest place of its square: a cell reaches half of itself beyond its middle.
        const [nx, ny] = [Math.min(cx + 0.25, Math.max(cx - 0.25, x)), Math.min(cy + 0.25, Math.max(cy - 0.25, y))];
        if (Math.hypot(nx - x, ny - y) <= 0.6) plain = plain === null ? f.data[k] : Math.max(plain, f.data[k]);
      }
      expect(highestAbout(f, x, y, 0.6)).toBe(plain);
    }
});

test('along a ring the deepest wood counts; nothing cut from below is the whole board', () => {
  const ring = { ring: [0, 0, 20, 0, 20, 10, 0, 10] };
  const board = { thickness: 12 };
  expect(thicknessAlong({ under: null, board }, [ring], 3)).toEqual({ most: 12, least: 12 });
  const under = { key: '', cell: 0.2, lowest: (x: number) => (x > 15 ? -9 : -7) };
  expect(thicknessAlong({ under, board }, [ring], 3)).toEqual({ most: 9, least: 7 });
  expect(thicknessAlong({ under: { key: '', cell: 0.2, lowest: () => 0 }, board }, [ring], 3).most).toBe(0);
});
