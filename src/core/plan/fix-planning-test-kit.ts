import { applyEdits } from '../doc/edits';
import { PLAIN_LAYER } from '../doc/layer';
import { PLAIN_TONE } from '../doc/tone';
import { addPass } from '../passes/add-pass';
import type { Scene } from './fix-jobs-test-kit';
import { bevelled, box, doweled, em6, file, plain, shape, turned, vee, withPass } from './fix-jobs-test-kit';
import { drawerBit } from './plan-test-kit';

/** What planning finds before anything is cut. */
export const IN_PLANNING: Scene[] = [
  ['round-copies', () => turned((j) => (j.layers[0].copies = { kind: 'rows', columns: 1, rows: 4, dx: 10, dy: 15 }))],
  ['thickness', () => plain((j) => (j.layers[0].rise = 16))],
  [
    'thickness',
    () =>
      plain((j) => {
        j.layers[0].rise = 6;
        j.seat.skin = 10;
      }),
  ],
  [
    'distance-off',
    () =>
      plain((j) =>
        j.gaps.push({ id: 'g', axis: 'x', of: 'panel', ofSide: 'low', from: 'board', fromSide: 'low', distance: 31 }),
      ),
  ],
  [
    'words-size',
    () =>
      plain((j) => {
        j.cell = 0.2;
        j.layers.push(shape('words', 15, 5, 1));
      }),
  ],
  ['layer-huge', () => plain((j) => j.layers.push(shape('huge', 4000, 3000, 5)))],
  ['layer-idle', () => plain((j) => j.layers.push(shape('low', 10, 10, 2, { join: 'highest' })))],
  [
    'layer-buried',
    () =>
      plain((j) => j.layers.unshift(shape('under', 10, 10, 2), shape('over', 20, 20, 3, { join: 'lowest', lift: -3 }))),
  ],
  ['layer-bump', () => plain((j) => j.layers.push(box('recess')))],
  ['layer-outside', () => plain((j) => (j.layers[0].centre = { x: 10, y: 38 }))],
  ['layer-outside', () => plain((j) => (j.layers[0].size = { x: 120, y: 60 }))],
  ['nothing-to-cut', () => plain((j) => (j.layers[0].centre = { x: 300, y: 38 }))],
  ['nothing-to-cut', () => plain((j) => (j.layers[0].hidden = true))],
  ['clipped', () => plain((j) => j.layers.push(shape('dig', 20, 10, 5, { join: 'carve' })))],
  ['clipped', () => plain((j) => (j.seat = { mode: 'sunk', skin: 0, drop: 2, press: null }))],
  [
    'base-lost',
    () =>
      plain((j) => {
        const source = { kind: 'mesh', ...file, unit: 'mm', turns: [0, 0, 0], flip: false, base: 0.3 } as const;
        j.layers = [
          {
            ...PLAIN_LAYER,
            id: 'box',
            name: 'box',
            source: { ...source, turns: [0, 0, 0] },
            size: { x: 30, y: 30 },
            rise: 3,
            centre: { x: 50, y: 38 },
          },
        ];
      }),
  ],
  [
    'image-steps',
    () =>
      plain((j) => {
        const source = { kind: 'image', ...file, blackIsGround: false, tone: PLAIN_TONE } as const;
        j.layers = [
          { ...PLAIN_LAYER, id: 'img', name: 'img', source, size: { x: 30, y: 30 }, rise: 3, centre: { x: 50, y: 38 } },
        ];
      }),
  ],
  [
    'groove-not-carved',
    () =>
      plain((j) => {
        j.layers.push(vee(60, { join: 'stack' }));
        applyEdits(j.document, addPass(j, 'letter', drawerBit('v60')));
      }),
  ],
  [
    'groove-uncut',
    () =>
      plain((j) => {
        j.layers.push(vee(60));
        j.cutters.push(drawerBit('v60'));
      }),
  ],
  [
    'groove-uncut',
    () =>
      plain((j) => {
        j.layers.push(vee(90));
        applyEdits(j.document, addPass(j, 'letter', drawerBit('v60')));
      }),
  ],
  ['feed', () => plain((j) => (j.cutters[0].feed = 9000))],
  [
    'trench-cutout',
    () =>
      withPass('cutout', { ...drawerBit('em6'), id: 'short', number: 8, stickOut: 14, holderDiameter: 20 }, (_, j) =>
        Object.assign(j.passes[0], { area: { kind: 'relief', trench: 12 } }),
      ),
  ],
  [
    'board-stands',
    () =>
      plain((j) => {
        const [l] = j.layers;
        if ('relief' in l.source) l.source.relief = { kind: 'bead', width: 4, band: true };
        Object.assign(j.passes[0], { area: { kind: 'relief', trench: 8 } });
        Object.assign(l, { size: { x: 44, y: 36 }, rise: 2 });
      }),
  ],
  ['trench-narrow', () => plain((j) => Object.assign(j.passes[0], { area: { kind: 'relief', trench: 5 } }))],
  ['trench-room', () => plain((j) => (j.layers[0].size = { x: 94, y: 40 }))],
  [
    'skim-thin',
    () =>
      withPass(
        'skim',
        em6(),
        (p) =>
          (p.points = [
            { x: 10, y: 10, thickness: 14 },
            { x: 60, y: 10, thickness: 15.5 },
          ]),
      ),
  ],
  ['rough-idle', () => bevelled((j) => Object.assign(j.passes[0], { stockToLeave: 9 }))],
  ['skim-nothing', () => withPass('skim', em6(), (p) => (p.points[0].thickness = 15))],
  [
    'no-spoilboard',
    () =>
      withPass('hole', drawerBit('drill6'), (p, j) => {
        p.depth = null;
        j.setup.spoilboard = null;
      }),
  ],
  // A spoilboard that is thinner than dowels stand in it.
  ['no-spoilboard', () => doweled((_, j) => (j.setup.spoilboard = 6)), 'long'],
  ['no-spoilboard', () => withPass('cutout', em6(), (_, j) => (j.setup.spoilboard = null))],
  [
    'cutout-no-line',
    () =>
      withPass('cutout', em6(), (p, j) => {
        j.layers.push(shape('slit', 4, 4, 1, { join: 'carve' }));
        Object.assign(p, { side: 'inside', outline: { ...p.outline, of: ['slit'] } });
      }),
  ],
  ['stepdown-deep', () => bevelled((j) => (j.cutters[0].maxStepdown = 1))],
  ['pocket-through', () => withPass('pocket', em6(), (p) => (p.depth = 20))],
  ['pocket-narrow', () => withPass('pocket', em6(), (p) => (p.allowance = -15))],
  [
    'pocket-relief',
    () =>
      withPass('pocket', em6(), (_, j) => {
        const relief = { kind: 'dome' } as const;
        j.layers[0].source = { kind: 'shape', outline: { kind: 'oval' }, edge: { kind: 'plain' }, relief };
      }),
  ],
  [
    'pocket-rest',
    () =>
      withPass('pocket', em6(), (p, j) => {
        j.layers.push(shape('notch', 12, 10, 1, { join: 'carve' }));
        j.cutters.push({ ...drawerBit('em3'), fluteLength: 12 });
        Object.assign(p, { depth: 6, outline: { ...p.outline, of: ['notch'] } });
      }),
  ],
  ['tabs-placed', () => withPass('cutout', em6(), (p) => (p.tabs.count = 40))],
  [
    'tabs-overlap',
    () =>
      withPass('cutout', em6(), (p) =>
        Object.assign(p.tabs, {
          count: 2,
          at: [
            { x: 48, y: 0 },
            { x: 52, y: 0 },
          ],
        }),
      ),
  ],
  ['tab-plunge', () => withPass('cutout', em6(), (p) => (p.tabs.sloped = false))],
  [
    'corner',
    () =>
      withPass('cutout', em6(), (p, j) => {
        j.cutters.push({
          ...drawerBit('em3'),
          diameter: 2,
          shankDiameter: 2,
          fluteLength: 25,
          stickOut: 40,
          maxStepdown: 2,
        });
        j.layers.push(shape('notch', 4, 8, 9, { centre: { x: 50, y: 25 }, join: 'carve' }));
        p.outline = { ...p.outline, of: ['panel'], less: ['notch'] };
      }),
  ],
];
