import { newShape } from '@/core/arrange/new-layer';
import type { Cutter } from '@/core/cutter/cutter';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '@/core/doc/defaults';
import { applyEdits } from '@/core/doc/edits';
import type { Job } from '@/core/doc/job';
import type { Layer } from '@/core/doc/layer';
import { bitIn } from '@/core/doc/own-feeds';
import { addPass } from '@/core/passes/add-pass';
import { backFrom } from '@/core/plan/backs';
import { addJig } from '@/core/plan/jig';
import { fileLayer, plainJob } from '@/core/plan/propose';
import { tapeUnder } from '@/core/setup/holding';
import { setupView } from '@/core/setup/view';
import type { SourceInfo } from '@/core/sources/inspect';

const PLATE = { x: 110, y: 110, thickness: 4, material: materialNamed('brass') };
const MIDDLE = { x: PLATE.x / 2, y: PLATE.y / 2 };
/** A token: how wide it is, its rim, and how deep its field lies under it, mm. */
const TOKEN = { across: 30, apart: 48, deep: 0.6, motif: 20 };

/** A bit of the drawer as it runs in the plate's material. */
const bit = (id: string): Cutter => bitIn(DRAWER.find((c) => c.id === id)!, PLATE.material);

interface Taken {
  file: string;
  hash: string;
  info: SourceInfo;
}

/**
 * Four brass tokens from one plate: a field sunk into each, the mill's wheel on one side and an ear of wheat on the other. They are cut out of the face,
 * and lie in a jig when their backs are carved.
 */
export function tokens([wheel, ear]: Taken[]): Job {
  const made = plainJob({
    machine: HOBBY_MACHINE,
    rough: bit('em3'),
    finish: bit('taper1'),
    name: 'Mill tokens, four',
    order: 'OE-107',
    board: PLATE,
  });
  const face = setupView(made);
  face.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
  const four = { kind: 'rows', columns: 2, rows: 2, dx: TOKEN.apart, dy: TOKEN.apart } as const;
  const disc = (id: string, name: string, across: number): Layer => ({
    ...newShape({ id, name }, { kind: 'circle' }, { kind: 'flat' }, PLATE),
    size: { x: across, y: across },
    centre: { ...MIDDLE },
    copies: four,
  });
  const motif = (id: string, name: string, { file, hash, info }: Taken): Layer => {
    const k = TOKEN.motif / Math.max(info.size.x, info.size.y);
    return {
      ...fileLayer(id, file, hash, info),
      name,
      size: { x: k * info.size.x, y: k * info.size.y },
      rise: TOKEN.deep - 0.1,
      centre: { ...MIDDLE },
      copies: four,
      join: 'stack',
    };
  };
  face.layers = [
    { ...disc('token', 'Token', TOKEN.across), hidden: true },
    { ...disc('field', 'Field', TOKEN.across - 3), rise: TOKEN.deep, join: 'carve' },
    motif('wheel', 'Mill wheel', wheel),
  ];
  face.setup.holding.push(tapeUnder('tape', PLATE));
  const back = backFrom(face, 'mirror')!;
  applyEdits(made, back.edits);
  const behind = setupView(made, back.id);
  behind.layers = [...behind.layers.slice(0, 2), motif('ear', 'Ear of wheat', ear)];
  applyEdits(made, addPass(face, 'cutout', bit('em3')));
  for (const p of face.passes)
    if (p.kind === 'cutout') {
      p.outline = { ...p.outline, of: ['token'] };
      p.start = 'top';
      p.tabs = { ...p.tabs, count: 12, length: 3, thickness: 1.5 };
    }
  applyEdits(made, addJig(behind)!.edits);
  return made;
}
