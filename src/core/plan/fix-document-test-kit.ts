import { deepenTurned, newTurned } from '../arrange/kinds/turned/fresh';
import type { Scene } from './fix-jobs-test-kit';
import { em6, formed, plain, roundPass, shape, turned, withPass } from './fix-jobs-test-kit';
import { drawerBit, proposed } from './plan-test-kit';

/** What stands in the document. */
export const IN_DOCUMENT: Scene[] = [
  ['value', () => plain((j) => Object.assign(j.passes[0], { rampAngle: 60 }))],
  ['id-twice', () => plain((j) => j.layers.push(shape('panel', 10, 10, 1)))],
  ['layer-missing', () => plain((j) => (j.layers[0].mask = { kind: 'layer', layer: 'gone', grow: 0, outside: false }))],
  ['layer-missing', () => withPass('cutout', em6(), (p) => (p.outline.of = ['gone']))],
  [
    'layer-missing',
    () =>
      plain((j) =>
        j.gaps.push({ id: 'g', axis: 'x', of: 'panel', ofSide: 'low', from: 'gone', fromSide: 'low', distance: 3 }),
      ),
  ],
  ['one-file', () => plain((j) => (j.output.oneFile = true))],
  ['bit-missing', () => plain((j) => (j.passes[0].cutter = 'gone'))],
  ['bit-unsuited', () => withPass('cutout', em6(), (p) => (p.cutter = 'ball6'))],
  [
    'bit-wide',
    () =>
      plain((j) => {
        j.cutters.push({ ...em6(), id: 'huge', number: 9, diameter: 120, shankDiameter: 12 });
        Object.assign(j.passes[0], { cutter: 'huge', stepover: 40 });
      }),
  ],
  ['order', () => plain((j) => j.passes.reverse())],
  ['drum-machine', () => turned((j) => (j.machine.rotary = null))],
  ['drum-sheet', () => turned((j) => (j.board.y = 60))],
  ['drum-short', () => turned((j) => Object.assign(j.board.drum!, { chuck: 30, tailStock: 12 }))],
  ['drum-side', () => turned((j) => (j.setup.up = 'back'))],
  ['drum-pass', () => turned((j) => j.passes.push(proposed('cutout', j, j.cutters[0])))],
  ['round-rows', () => turned((j) => Object.assign(j.passes[0], { angle: 45 }))],
  ['round-rows', () => plain((j) => Object.assign(j.passes[1], { lines: 'spiral' }))],
  ['turned-flat-board', () => plain((j) => j.layers.push(newTurned('flat', 'Flat', { kind: 'flat' }, j.board)))],
  ['turned-askew', () => formed('flat', (l) => (l.turn = 30))],
  ['turned-deep', () => formed('cylinder', (l) => deepenTurned(l, 9.8))],
  ['flute-deep', () => formed('flutes', (l) => (l.rise = 2))],
  ['drum-only', () => withPass('part', em6())],
  ['hole-cone', () => roundPass('hole', { ...em6(), maxPlungeDepth: 3 }, { diameter: 12, depth: 4 })],
  ['hole-axis', () => roundPass('hole', drawerBit('drill6'), { depth: null, peck: 3 })],
  ['hole-dowel', () => roundPass('hole', drawerBit('drill6'), { depth: 4, dowel: 6 })],
  ['turn-small', () => roundPass('turn', em6(), { blank: { kind: 'round', diameter: 19 } })],
  ['turn-corner', () => roundPass('turn', em6(), { blank: { kind: 'square', side: 26 } })],
  ['part-narrow', () => roundPass('part', drawerBit('em3'), { along: [34], width: 2 })],
  ['part-nothing', () => roundPass('part', drawerBit('em3'), { along: [34], left: 22 })],
  ['part-held', () => roundPass('part', drawerBit('em3'), { along: [41] })],
  ['collar-place', () => turned((j) => (j.board.drum!.collar = { x: 4, width: 4 }))],
  ['stepover-wide', () => plain((j) => Object.assign(j.passes[0], { stepover: 5 }))],
  ['stepover-fine', () => plain((j) => Object.assign(j.passes[0], { stepover: 0.01 }))],
  ['skim-finished-face', () => withPass('skim', em6(), (_, j) => (j.board.face = 'painted'))],
  ['skim-uneven', () => withPass('skim', em6(), (p) => (p.points[0].thickness = 21))],
  ['hole-narrow', () => withPass('hole', em6(), (p) => (p.diameter = 5))],
  ['hole-wide', () => withPass('hole', drawerBit('drill6'), (p) => (p.diameter = 8))],
  ['hole-plunge', () => withPass('hole', em6(), (p) => (p.diameter = 6.35))],
  ['tab-places', () => withPass('cutout', em6(), (p) => (p.tabs.at = [{ x: 1, y: 1 }]))],
  ['floor-over-tabs', () => withPass('cutout', em6(), (p) => (p.floor = 9))],
];
