import { afterAll, describe, expect, test } from 'vitest';
import { deepenTurned, freshForm, newTurned } from '../arrange/kinds/turned/fresh';
import type { TurnedForm } from '../arrange/kinds/turned/schema';
import { newShape } from '../arrange/new-layer';
import type { Cutter } from '../cutter/cutter';
import { HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { applyEdits, withEdits } from '../doc/edits';
import type { Job } from '../doc/job';
import { type Layer, type LayerOf, PLAIN_LAYER } from '../doc/layer';
import type { PassKindName, PassOf } from '../doc/pass';
import { PLAIN_TONE } from '../doc/tone';
import type { Finding, Found } from '../findings/finding';
import { FIX_LABELS } from '../findings/texts/fixes';
import { KNOWN_RULES, labelOf, textOf } from '../findings/texts/text-of';
import { addPass } from '../passes/add-pass';
import { addDowels } from '../passes/dowels';
import type { HolePass } from '../passes/hole/schema';
import { joined } from '../proof/checks/joined';
import { heldHardly, loose } from '../proof/checks/loose';
import { type SetupView, setupView } from '../setup/view';
import type { LoadContent } from './composing';
import { drawerFindings } from './drawer';
import { drumJob, hollow } from './drum-test-kit';
import { DISHED, dishes, drawerBit, others, plainSetup, planWhole, proposed } from './plan-test-kit';
import { problems } from './problems';

const BOARD = { x: 100, y: 76, thickness: 15, material: materialNamed('maple') };
const tried = new Set<string>();
const fired = new Set<string>();

/** A board of dishes with room for dowels, and one with them. */
const ROOMY = { ...DISHED, y: 100 };
function coarse(both: ReturnType<typeof dishes>): ReturnType<typeof dishes> {
  both.face.cell = 0.3;
  return both;
}
function doweled(edit: (p: HolePass, j: SetupView) => unknown): SetupView {
  const { face, back } = coarse(dishes(ROOMY));
  applyEdits(face.document, addDowels(face)!);
  back.setup.register = 'dowels';
  for (const p of face.passes) if (p.kind === 'hole') edit(p, face);
  return face;
}

/** A panel of 50 x 30 x 4 on a board with room around it. */
function plain(edit: (j: SetupView) => void = () => {}): SetupView {
  const job = plainSetup({
    name: 'Fix',
    order: '',
    machine: HOBBY_MACHINE,
    rough: drawerBit('em6'),
    finish: drawerBit('ball6'),
    board: BOARD,
  });
  job.cell = 0.4;
  job.layers = [shape('panel', 50, 30, 4)];
  edit(job);
  return job;
}
const shape = (id: string, x: number, y: number, rise: number, more: Partial<Layer> = {}): Layer => ({
  ...newShape({ id: id, name: id }, { kind: 'rounded', radius: 3 }, { kind: 'flat' }, BOARD),
  size: { x, y },
  centre: { x: 50, y: 38 },
  rise,
  ...more,
});
/** A small drum with a hollow on its seam. */
const turned = (edit: (j: SetupView) => unknown) =>
  drumJob([hollow('seam', 22, 0)], (j) => {
    j.cell = 0.4;
    j.passes = j.passes.filter((p) => p.kind === 'finish');
    edit(j);
  });
/** The same with a turned form, changed. */
const formed = (kind: TurnedForm['kind'], change: (l: LayerOf<'turned'>) => unknown) =>
  turned((j) => {
    const layer = newTurned(kind, kind, freshForm(kind, j.board), j.board);
    change(layer);
    j.layers = [layer];
  });
/** The same with one more pass, changed. */
const roundPass = (kind: 'hole' | 'turn' | 'part', bit: Cutter, change: object) =>
  turned((j) => {
    applyEdits(j.document, addPass(j, kind, bit));
    for (const p of j.passes) {
      if (p.kind === 'hole') p.places = [{ x: 24, y: 30 }];
      if (p.kind === kind) Object.assign(p, change);
    }
  });
/** The panel with sloping sides, which are roughed in steps. */
const bevelled = (edit: (j: SetupView) => void) =>
  plain((j) => {
    const relief = { kind: 'bevel', width: 2, band: false } as const;
    j.layers[0].source = { kind: 'shape', outline: { kind: 'rounded', radius: 3 }, edge: { kind: 'plain' }, relief };
    edit(j);
  });
/** A job with one more pass, changed. */
function withPass<K extends PassKindName>(
  kind: K,
  bit: Cutter,
  change: (p: PassOf<K>, j: SetupView) => void = () => {},
) {
  return plain((j) => {
    applyEdits(j.document, addPass(j, kind, bit));
    change(j.passes.find((p) => p.kind === kind) as PassOf<K>, j);
  });
}
const em6 = () => drawerBit('em6');
const vee = (angle: number, more: Partial<Layer> = {}) =>
  shape('groove', 20, 3, 1.2, {
    join: 'carve',
    source: { kind: 'shape', outline: { kind: 'rectangle' }, edge: { kind: 'plain' }, relief: { kind: 'vee', angle } },
    ...more,
  });

/** Stands in for files: a mesh of a box, an image of a slope in few levels. */
const files: LoadContent = async (l) => {
  const facts = {
    depth: 8,
    step: l.source.kind === 'image' ? 0.1 : 0,
    missing: [],
    measured: l.id === 'words' ? { x: 20, y: 6 } : null,
    recess: l.id === 'recess',
  };
  if (l.source.kind === 'image') {
    const values = Float32Array.from({ length: 400 }, (_, k) => Math.round((k % 20) / 2) / 10 + 0.05);
    return { content: { image: { width: 20, height: 20, values, depth: 8 } as never }, facts };
  }
  return { content: l.source.kind === 'mesh' ? { mesh: { triangles: BOX } as never } : {}, facts };
};
/** A box of 10 x 10 x 4 as triangles. */
const BOX = (() => {
  const [x, y, z] = [10, 10, 4];
  const quad = (a: number[], b: number[], c: number[], d: number[]) => [a, b, c, a, c, d].flat();
  return Float32Array.from([
    ...quad([0, 0, 0], [0, y, 0], [x, y, 0], [x, 0, 0]),
    ...quad([0, 0, z], [x, 0, z], [x, y, z], [0, y, z]),
    ...quad([0, 0, 0], [x, 0, 0], [x, 0, z], [0, 0, z]),
    ...quad([0, y, 0], [0, y, z], [x, y, z], [x, y, 0]),
    ...quad([0, 0, 0], [0, 0, z], [0, y, z], [0, y, 0]),
    ...quad([x, 0, 0], [x, y, 0], [x, y, z], [x, 0, z]),
  ]);
})();
const file = { file: 'a.stl', hash: '0'.repeat(64) };

/** All that is said of a document: what stops planning, else what planning finds. */
async function saidOf(job: Job): Promise<Finding[]> {
  const wrong = problems(job);
  if (wrong.some((f) => f.stops)) return wrong;
  return (await planWhole(job, files)).summary.findings;
}
const errors = (list: Finding[]) =>
  others(list)
    .filter((f) => f.severity === 'error')
    .map((f) => f.rule);

/** A mesh of the box as a layer. */
const box = (id: string): Layer => ({
  ...PLAIN_LAYER,
  id,
  name: id,
  source: { kind: 'mesh', ...file, unit: 'mm', turns: [0, 0, 0], flip: false, base: 0 },
  size: { x: 20, y: 20 },
  centre: { x: 50, y: 38 },
  rise: 2,
});

/** Every way in which a rule with fixes comes about. */
const SCENES: [string, () => SetupView][] = [
  // What stands in the document.
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
  // What planning finds before anything is cut.
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
  ['no-spoilboard', () => doweled((_, j) => (j.setup.spoilboard = 6))],
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
  // What the proof finds in the written programs.
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
  ['dowel-places', () => doweled((p) => (p.places[1].x = 26))],
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
  ],
  // Dishes of both faces that meet.
  [
    'floor',
    () => {
      const { face, back } = dishes();
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

describe('every fix mends what it is offered for', () => {
  test.each(SCENES.map(([rule, make], i) => [`${rule} (${i + 1})`, rule, make] as const))(
    '%s',
    async (_, rule, make) => {
      const { document } = make();
      const before = await saidOf(document);
      const found = before.filter((f) => f.rule === rule && f.fixes.length > 0);
      expect(before.map((f) => f.rule)).toContain(rule);
      expect(
        found.length,
        `${rule} has no fix: ${JSON.stringify(before.filter((f) => f.rule === rule))}`,
      ).toBeGreaterThan(0);
      fired.add(rule);
      const [f] = found;
      expect(textOf(f).message).not.toContain('undefined');
      for (const fix of f.fixes) {
        tried.add(fix.id);
        expect(labelOf(fix)).not.toContain('undefined');
        const after = await saidOf(withEdits(document, fix.edits));
        expect(
          after.map((g) => g.id),
          `after ${fix.id}`,
        ).not.toContain(f.id);
        const fresh = errors(after).filter((r) => !errors(before).includes(r));
        expect(
          fresh,
          `new errors after ${fix.id}: ${JSON.stringify(after.filter((g) => fresh.includes(g.rule)))}`,
        ).toEqual([]);
      }
    },
    60_000,
  );

  test('a piece that is still joined is cut deeper', () => {
    const view = withPass('cutout', em6());
    const cutouts = [{ pass: 'cutout', joined: { x: 1, y: 2 }, tabs: [] }];
    const [f] = joined.cut!({ view, cutouts } as never);
    expect(f).toMatchObject({ rule: 'joined', severity: 'error', place: { x: 1, y: 2 } });
    const pass = withEdits(view.document, f.fixes![0].edits).boards[0].setups[0].passes.find(
      (p) => p.kind === 'cutout',
    );
    expect(pass).toMatchObject({ into: 1 });
    expect(joined.cut!({ view, cutouts: [{ ...cutouts[0], joined: null }] } as never)).toEqual([]);
    tried.add('cut-deeper');
    fired.add('joined');
  });

  test('what comes loose is held by tape, once a person says so', () => {
    const view = plain();
    const held = [
      { file: 'a.nc', loose: [{ x: 9, y: 9, area: 100 }], weak: [{ x: 30, y: 9, area: 50, neck: 0.3, section: 2 }] },
    ];
    const at = { view, program: { file: 'a.nc' }, held, cutouts: [], earlier: [] } as never;
    const taped = (f: Found) => setupView(withEdits(view.document, f.fixes![0].edits));
    for (const rule of [loose, heldHardly]) {
      const [f] = rule.program!(at);
      expect(f).toMatchObject({ rule: rule.id, subject: { file: 'a.nc' }, place: { y: 9 } });
      expect(rule.program!({ ...(at as object), view: taped(f) } as never)).toEqual([]);
      expect(problems(taped(f).document)).toEqual([]);
      // It is told once, of the program that frees it, and not where a cut-out without tabs says so already.
      expect(rule.program!({ ...(at as object), held: [...held, ...held] } as never)).toEqual([]);
      fired.add(rule.id);
    }
    const cutouts = [{ pass: 'c', rings: [[0, 0, 20, 0, 20, 20, 0, 20]], tabs: [], reach: 0, radius: 3 }];
    expect(loose.program!({ ...(at as object), cutouts } as never)).toEqual([]);
    tried.add('hold-by-tape');
  });

  test('figures that the shop has changed are taken, and only when asked for', () => {
    const view = plain();
    const shop = {
      machines: [HOBBY_MACHINE],
      cutters: [em6(), drawerBit('ball6')],
      materials: [materialNamed('maple')],
    };
    expect(drawerFindings(view.document, shop)).toEqual([]);
    const newer = structuredClone(shop);
    newer.cutters[0].feed = 2222;
    newer.cutters[0].number = 44;
    newer.machines[0].zTravel = 99;
    newer.materials[0].stepdown = 0.33;
    const found = drawerFindings(view.document, newer);
    expect(found.map((f) => f.figures.what).sort()).toEqual(['bit', 'machine', 'material']);
    for (const f of found) {
      const taken = withEdits(view.document, f.fixes[0].edits);
      expect(drawerFindings(taken, newer).map((g) => g.id)).not.toContain(f.id);
      // The number is the job's own.
      expect(taken.cutters.map((c) => c.number)).toEqual(view.cutters.map((c) => c.number));
    }
    tried.add('take-figures');
    fired.add('figures-changed');
  });

  afterAll(() => {
    // Nothing that can be offered goes untried.
    expect(Object.keys(FIX_LABELS).filter((id) => !tried.has(id))).toEqual([]);
    expect([...fired].filter((rule) => !KNOWN_RULES.includes(rule))).toEqual([]);
  });
});
