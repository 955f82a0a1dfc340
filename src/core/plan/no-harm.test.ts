import { describe, expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { DRAWER, materialNamed, SHOP_MACHINE } from '../doc/defaults';
import type { Layer } from '../doc/layer';
import { boardGrid, makeField } from '../field/height-field';
import { cutBoardPlainly } from '../proof/plain-harm-test-kit';
import type { SetupView } from '../setup/view';
import { plainSetup, planShapes, proposed } from './plan-test-kit';

const board = { x: 60, y: 50, thickness: 20, material: materialNamed('maple') };
const bit = (id: string) => structuredClone(DRAWER.find((c) => c.id === id)!);
type Size = { x: number; y: number };

const block = (id: string, centre: Size, size: Size, rise: number, turn = 0): Layer => ({
  ...newShape({ id, name: id }, { kind: 'rectangle' }, { kind: 'flat' }, board),
  size,
  centre,
  rise,
  turn,
});
const dome = (id: string, centre: Size, size: Size, rise: number): Layer => ({
  ...newShape({ id, name: id }, { kind: 'oval' }, { kind: 'dome' }, board),
  size,
  centre,
  rise,
  join: 'highest',
});

/** A rectangle carved half a millimetre deep, for its outline. */
const carved = (id: string, centre: Size, size: Size): Layer => ({ ...block(id, centre, size, 0.5), join: 'carve' });
/** A V groove of 60 degrees along a rectangle. */
const groove = (centre: Size, size: Size): Layer => ({
  ...newShape({ id: 'groove', name: 'groove' }, { kind: 'rectangle' }, { kind: 'vee', angle: 60 }, board),
  size,
  centre,
  rise: 2,
  join: 'carve',
});

/** A board of such layers that an end mill of 6.35 mm roughs and a bit finishes. */
function job(layers: Layer[], finish = 'ball3', change: (v: SetupView) => void = () => {}): SetupView {
  const view = plainSetup({
    name: 'Shapes',
    order: '',
    machine: SHOP_MACHINE,
    rough: bit('em6'),
    finish: bit(finish),
    board,
  });
  view.layers = layers;
  view.document.cell = 0.15;
  change(view);
  return view;
}

/** What breaks a bit or spoils a board. */
const HARM = ['bite', 'chip-area', 'load', 'plunge-deep', 'plunge-fast', 'gouge', 'rapid-through-material'];

const JOBS: [string, () => SetupView][] = [
  [
    'a dome without roughing',
    () => job([dome('dome', { x: 30, y: 25 }, { x: 26, y: 22 }, 9)], 'ball3', (v) => v.passes.shift()),
  ],
  ['a dome whose sides come to 45 degrees', () => job([dome('dome', { x: 30, y: 25 }, { x: 28, y: 28 }, 5)])],
  ['a dome finished with a bull-nose', () => job([dome('dome', { x: 30, y: 25 }, { x: 26, y: 22 }, 6)], 'bull6')],
  ['a ridge 1.5 mm thin and 12 mm tall', () => job([block('ridge', { x: 30, y: 25 }, { x: 26, y: 1.5 }, 12)])],
  ['a block at the edge of the board', () => job([block('block', { x: 8, y: 25 }, { x: 16, y: 20 }, 8)])],
  [
    'a ball after a larger one',
    () =>
      job(
        [dome('a', { x: 24, y: 24 }, { x: 20, y: 20 }, 6), dome('b', { x: 37, y: 27 }, { x: 18, y: 20 }, 6)],
        'ball3',
        (v) => {
          v.cutters.push(bit('ball6'));
          v.passes.splice(1, 0, { ...proposed('finish', v, bit('ball6')), id: 'larger' });
        },
      ),
  ],
  [
    'legs with gaps of 4 and 5 mm, 12 mm deep',
    () =>
      job([
        block('a', { x: 18, y: 25 }, { x: 6, y: 22 }, 12),
        block('b', { x: 28, y: 25 }, { x: 6, y: 22 }, 12),
        block('c', { x: 39, y: 25 }, { x: 6, y: 22 }, 12),
      ]),
  ],
  [
    'a stepdown of 9 mm asked of a bit of 3 mm',
    () =>
      job([block('block', { x: 30, y: 25 }, { x: 24, y: 18 }, 10)], 'ball3', (v) => {
        v.cutters[0] = { ...bit('em3'), fluteLength: 14 };
        Object.assign(v.passes[0], { cutter: 'em3', stepdown: 9, stepover: 1.2 });
      }),
  ],
  [
    'a V groove over the edge of a dome',
    () =>
      job(
        [dome('dome', { x: 30, y: 25 }, { x: 28, y: 26 }, 7), groove({ x: 30, y: 25 }, { x: 34, y: 3 })],
        'ball3',
        (v) => {
          v.document.cell = 0.1;
          v.cutters.push(bit('v60'));
          v.passes.push(proposed('letter', v, bit('v60')));
        },
      ),
  ],
  [
    'a pocket with a neck of its bit’s own width, and an island',
    () =>
      job(
        [
          carved('left', { x: 19, y: 25 }, { x: 20, y: 24 }),
          carved('neck', { x: 34, y: 25 }, { x: 12, y: 6.5 }),
          carved('right', { x: 45, y: 25 }, { x: 12, y: 16 }),
          block('island', { x: 19, y: 25 }, { x: 5, y: 5 }, 0.5),
        ],
        'ball3',
        (v) => {
          v.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
          const pass = proposed('pocket', v, bit('em6'));
          const outline = { ...pass.outline, of: ['left', 'neck', 'right'], less: ['island'] };
          v.passes = [{ ...pass, outline, depth: 9 }];
        },
      ),
  ],
];

describe.each(JOBS)('%s', (_, make) => {
  test('is cut without a plunge or a bite over a limit and without a gouge, by the plain definition', async () => {
    const view = make();
    const { summary } = await planShapes(view);
    const harmful = summary.findings.filter((f) => HARM.includes(f.rule));
    expect(harmful.map((f) => [f.rule, f.figures, f.subject.line])).toEqual([]);
    const programs = summary.programs.map(({ file, text, cutter }) => ({ file, text, tool: cutter }));
    const { harms } = cutBoardPlainly(view, makeField(boardGrid(board.x, board.y, 0.5)), programs);
    expect(harms).toEqual([]);
    // No trembling: a way into the wood is a few moves.
    for (const p of summary.passes) expect(p.moves).toBeLessThan(4 * p.cutLength);
  });
});
