import { applyEdits } from '../doc/edits';
import { addDowels } from '../passes/dowels';
import type { Scene } from './fix-jobs-test-kit';
import { bevelled, coarse, doweled, em6, plain, ROOMY, shape, withPass } from './fix-jobs-test-kit';
import { dishes, drawerBit } from './plan-test-kit';

/** What the proof finds in the written programs. */
export const IN_PROOF: Scene[] = [
  [
    'bite',
    () =>
      bevelled((j) => {
        j.layers[0].rise = 9;
        j.passes.shift();
      }),
  ],
  [
    'left-over',
    () =>
      plain((j) => {
        // A slot that the ball of the job is too wide for, and one of its other bits is not.
        j.layers[0].rise = 7;
        j.layers.push(shape('slot', 20, 4, 5, { join: 'carve' }));
        j.cutters.push(drawerBit('ball3'));
      }),
  ],
  ['beyond-board', () => plain((j) => (j.layers[0].size = { x: 99, y: 40 }))],
  ['outside-machine', () => plain((j) => (j.setup.place.x = 560))],
  ['z-travel', () => plain((j) => (j.setup.heights.everything = 60))],
  [
    'z-travel',
    () =>
      plain((j) => {
        j.machine = { ...j.machine, bedToNose: 60 };
        j.cutters[0].stickOut = 40;
      }),
  ],
  ['z-travel', () => plain((j) => (j.machine = { ...j.machine, bedToNose: 140, zTravel: 80 }))],
  [
    'reach',
    () =>
      plain((j) => {
        j.layers[0].rise = 10;
        j.cutters[0] = { ...j.cutters[0], stickOut: 7, fluteLength: 6.5 };
      }),
  ],
  [
    'reach',
    () =>
      plain((j) => {
        j.layers[0].rise = 10;
        j.cutters.push({ ...j.cutters[0], id: 'long', number: 7, name: 'long end mill' });
        j.cutters[0] = { ...j.cutters[0], fluteLength: 5 };
      }),
  ],
  ['floor', () => plain((j) => (j.layers[0].rise = 14))],
  ['unregistered', () => coarse(dishes(ROOMY)).face],
  [
    'unregistered',
    () => {
      const { face, back } = coarse(dishes(ROOMY));
      applyEdits(face.document, addDowels(face)!);
      back.setup.register = 'none';
      return face;
    },
  ],
  ['dowel-tight', () => doweled((p) => (p.dowel = 7))],
  ['dowel-blind', () => doweled((p) => (p.depth = 4))],
  ['dowel-places', () => doweled((p) => p.places.pop())],
  ['dowel-places', () => doweled((p) => (p.places[1].x = 26)), 'long'],
  [
    'dowel-places',
    () =>
      doweled(
        (p) =>
          (p.places = [
            { x: 30, y: 45 },
            { x: 30, y: 55 },
          ]),
      ),
    'long',
  ],
  // Dishes of both faces that meet.
  [
    'floor',
    () => {
      const { face, back } = coarse(dishes());
      face.layers[0].rise = 6;
      back.layers[0].rise = 6.5;
      return face;
    },
  ],
  [
    'floor',
    () =>
      plain((j) => {
        j.layers[0].rise = 6;
        j.seat.skin = 8;
      }),
  ],
  ['no-tabs', () => withPass('cutout', em6(), (p) => (p.tabs.count = 0))],
  ['tab-holds', () => withPass('cutout', em6(), (p) => Object.assign(p.tabs, { count: 1, thickness: 0.4, at: null }))],
  [
    'tab-holds',
    () =>
      withPass('cutout', em6(), (p, j) => {
        // At the board's own edge, where no frame goes on.
        j.layers[0] = { ...j.layers[0], size: { x: 70, y: 40 }, centre: { x: 60, y: 38 } };
        Object.assign(p.tabs, { count: 1, at: [{ x: 96, y: 38 }] });
        p.outline.grow = 3;
      }),
  ],
  ['spindle-speed', () => plain((j) => (j.cutters[0].rpm = 30000))],
  [
    'gouge',
    () =>
      plain((j) => {
        j.cell = 0.8;
        j.layers[0] = shape('dome', 40, 30, 6, {
          source: { kind: 'shape', outline: { kind: 'oval' }, edge: { kind: 'plain' }, relief: { kind: 'dome' } },
        });
      }),
  ],
];
