import { describe, expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { withEdits } from '../doc/edits';
import { FLIPS } from '../doc/parts';
import { cellAt, cellPlace } from '../field/height-field';
import { placeThrough, turningOf } from '../setup/frame';
import { setupView } from '../setup/view';
import { backFrom } from './backs';
import { DISHED, dishes, errorsOf, planWhole, setupPlan, wrongIn } from './plan-test-kit';
import { problems } from './problems';

/** A face with one lopsided boss that stands in cleared ground. */
function bossed(flip: (typeof FLIPS)[number]) {
  const { face } = dishes();
  face.board.flip = flip;
  face.board.setups.splice(1);
  face.seat = { mode: 'raised', skin: 0, drop: 0, press: null };
  face.layers = [
    {
      ...newShape({ id: 'boss', name: 'Boss' }, { kind: 'rectangle' }, { kind: 'dome' }, DISHED),
      size: { x: 24, y: 14 },
      centre: { x: 24, y: 20 },
      turn: 25,
      rise: 2,
    },
  ];
  face.cell = 0.4;
  for (const p of face.passes) if (p.kind === 'finish') p.stepover = 0.4;
  return face;
}

describe.each(FLIPS)('turned over %s', (flip) => {
  test('the mirror of a face lies over it, place by place', async () => {
    const face = bossed(flip);
    const made = backFrom(face, 'mirror')!;
    const document = withEdits(face.document, made.edits);
    expect(problems(document)).toEqual([]);
    const plan = await planWhole(document);
    expect(errorsOf(plan)).toEqual([]);
    const [front, rear] = [setupPlan(plan, 0).target, setupPlan(plan, 1).target];
    const turned = { turned: turningOf(document.boards[0]), thickness: DISHED.thickness };
    let differ = 0;
    let stands = 0;
    for (let k = 0; k < front.data.length; k++) {
      const { x, y } = placeThrough(turned, cellPlace(front, k));
      const there = rear.data[cellAt(rear, x, y)];
      if (Math.abs(front.data[k] - there) > 0.02) differ++;
      if (front.data[k] > -1.9) stands++;
    }
    expect(stands).toBeGreaterThan(300);
    // Cells of an upright edge may fall to either side.
    expect(differ).toBeLessThan(0.02 * front.data.length);
  });

  test('a recess stays inside the outline of the face, which it names, and is a quarter of the board deep', async () => {
    const face = bossed(flip);
    face.layers[0].size = { x: 40, y: 34 };
    face.layers[0].centre = { x: 28, y: 24 };
    face.layers[0].turn = 0;
    const made = backFrom(face, 'recess')!;
    const document = withEdits(face.document, made.edits);
    expect(wrongIn({ document })).toBe('');
    const pocket = setupView(document, made.id).passes[0];
    expect(pocket).toMatchObject({ kind: 'pocket', outline: { of: ['boss'], grow: -8 } });
    const plan = await planWhole(document);
    expect(errorsOf(plan)).toEqual([]);
    const back = setupPlan(plan, 1).cut;
    const turned = { turned: turningOf(document.boards[0]), thickness: DISHED.thickness };
    const deep = (x: number, y: number) => {
      const p = placeThrough(turned, { x, y });
      return -back.data[cellAt(back, p.x, p.y)];
    };
    expect(deep(28, 24)).toBeCloseTo(3, 1);
    // 8 mm inside the boss, whose sides lie at 8 and 48, 7 and 41.
    for (const [x, y] of [
      [14, 24],
      [42, 24],
      [28, 13],
      [28, 35],
    ])
      expect(deep(x, y)).toBeCloseTo(0, 6);
    for (const [x, y] of [
      [18, 24],
      [38, 24],
      [28, 17],
      [28, 31],
    ])
      expect(deep(x, y)).toBeCloseTo(3, 1);
  });
});

test('nothing follows from a face without layers', () => {
  const { face } = dishes();
  face.layers = [];
  expect(backFrom(face, 'mirror')).toBeNull();
  expect(backFrom(face, 'recess')).toBeNull();
});
