import { freshForm, newTurned } from '../arrange/kinds/turned/fresh';
import type { TurnedForm } from '../arrange/kinds/turned/schema';
import { newShape } from '../arrange/new-layer';
import type { Cutter } from '../cutter/cutter';
import { HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { applyEdits } from '../doc/edits';
import { type Layer, type LayerOf, PLAIN_LAYER } from '../doc/layer';
import type { PassKindName, PassOf } from '../doc/pass';
import { addPass } from '../passes/add-pass';
import { addDowels } from '../passes/dowels';
import type { HolePass } from '../passes/hole/schema';
import type { SetupView } from '../setup/view';
import type { LoadContent } from './composing';
import { drumJob, hollow } from './drum-test-kit';
import { DISHED, dishes, drawerBit, plainSetup } from './plan-test-kit';

export const BOARD = { x: 100, y: 76, thickness: 15, material: materialNamed('maple') };
/** A board of dishes with room for dowels, and one with them. */
export const ROOMY = { ...DISHED, y: 100 };
export function coarse(both: ReturnType<typeof dishes>): ReturnType<typeof dishes> {
  both.face.cell = 0.3;
  return both;
}
export function doweled(edit: (p: HolePass, j: SetupView) => unknown): SetupView {
  const { face, back } = coarse(dishes(ROOMY));
  applyEdits(face.document, addDowels(face)!);
  back.setup.register = 'dowels';
  for (const p of face.passes) if (p.kind === 'hole') edit(p, face);
  return face;
}

/** A panel of 50 x 30 x 4 on a board with room around it. */
export function plain(edit: (j: SetupView) => void = () => {}): SetupView {
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
export const shape = (id: string, x: number, y: number, rise: number, more: Partial<Layer> = {}): Layer => ({
  ...newShape({ id: id, name: id }, { kind: 'rounded', radius: 3 }, { kind: 'flat' }, BOARD),
  size: { x, y },
  centre: { x: 50, y: 38 },
  rise,
  ...more,
});
/** A small drum with a hollow on its seam. */
export const turned = (edit: (j: SetupView) => unknown) =>
  drumJob([hollow('seam', 22, 0)], (j) => {
    j.cell = 0.4;
    j.passes = j.passes.filter((p) => p.kind === 'finish');
    edit(j);
  });
/** The same with a turned form, changed. */
export const formed = (kind: TurnedForm['kind'], change: (l: LayerOf<'turned'>) => unknown) =>
  turned((j) => {
    const layer = newTurned(kind, kind, freshForm(kind, j.board), j.board);
    change(layer);
    j.layers = [layer];
  });
/** The same with one more pass, changed. */
export const roundPass = (kind: 'hole' | 'turn' | 'part', bit: Cutter, change: object) =>
  turned((j) => {
    applyEdits(j.document, addPass(j, kind, bit));
    for (const p of j.passes) {
      if (p.kind === 'hole') p.places = [{ x: 24, y: 30 }];
      if (p.kind === kind) Object.assign(p, change);
    }
  });
/** The panel with sloping sides, which are roughed in steps. */
export const bevelled = (edit: (j: SetupView) => void) =>
  plain((j) => {
    const relief = { kind: 'bevel', width: 2, band: false } as const;
    j.layers[0].source = { kind: 'shape', outline: { kind: 'rounded', radius: 3 }, edge: { kind: 'plain' }, relief };
    edit(j);
  });
/** A job with one more pass, changed. */
export function withPass<K extends PassKindName>(
  kind: K,
  bit: Cutter,
  change: (p: PassOf<K>, j: SetupView) => void = () => {},
) {
  return plain((j) => {
    applyEdits(j.document, addPass(j, kind, bit));
    change(j.passes.find((p) => p.kind === kind) as PassOf<K>, j);
  });
}
export const em6 = () => drawerBit('em6');
export const vee = (angle: number, more: Partial<Layer> = {}) =>
  shape('groove', 20, 3, 1.2, {
    join: 'carve',
    source: { kind: 'shape', outline: { kind: 'rectangle' }, edge: { kind: 'plain' }, relief: { kind: 'vee', angle } },
    ...more,
  });

/** Stands in for files: a mesh of a box, an image of a slope in few levels. */
export const files: LoadContent = async (l) => {
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
export const BOX = (() => {
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
export const file = { file: 'a.stl', hash: '0'.repeat(64) };

/** A mesh of the box as a layer. */
export const box = (id: string): Layer => ({
  ...PLAIN_LAYER,
  id,
  name: id,
  source: { kind: 'mesh', ...file, unit: 'mm', turns: [0, 0, 0], flip: false, base: 0 },
  size: { x: 20, y: 20 },
  centre: { x: 50, y: 38 },
  rise: 2,
});

/** A rule with fixes, and a job in which it comes about; one that takes long and is not the first of its kind is tried by hand. */
export type Scene = [rule: string, make: () => SetupView, long?: 'long'];
