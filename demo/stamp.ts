import { newShape } from '@/core/arrange/new-layer';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '@/core/doc/defaults';
import { applyEdits } from '@/core/doc/edits';
import type { Job } from '@/core/doc/job';
import type { Layer } from '@/core/doc/layer';
import { addPass } from '@/core/passes/add-pass';
import type { CutoutPass } from '@/core/passes/cutout/schema';
import { addDowels } from '@/core/passes/dowels';
import { backFrom } from '@/core/plan/backs';
import { cutHalves } from '@/core/plan/halves';
import { fileLayer, plainJob } from '@/core/plan/propose';
import { setupView } from '@/core/setup/view';
import type { SourceInfo } from '@/core/sources/inspect';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
const BOARD = { x: 140, y: 180, thickness: 18, material: materialNamed('maple') };
const MIDDLE = { x: BOARD.x / 2, y: BOARD.y / 2 };
/** The disc's diameter, how high it stands on each side, and its motif on it, mm. */
const DISC = { across: 90, rise: 4, motif: 2 };

/** A notch of its rim, mm. */
const NOTCH = { width: 6, depth: 2 };

interface Taken {
  file: string;
  hash: string;
  info: SourceInfo;
}

/** A motif on the disc, as wide as the disc leaves room for. */
function motif(id: string, name: string, { file, hash, info }: Taken, size: { x: number; y: number }): Layer {
  return { ...fileLayer(id, file, hash, info), name, size, rise: DISC.motif, centre: { ...MIDDLE }, join: 'stack' };
}

/**
 * A bread stamp: a maple disc with a notched rim, a wheat sheaf on one face and the mill's wheel on the other. It is turned over left to right on two
 * dowels, and cut out half from each side.
 */
export function stamp([sheaf, wheel]: Taken[]): Job {
  const made = plainJob({
    machine: HOBBY_MACHINE,
    rough: bit('em6'),
    finish: bit('ball3'),
    name: 'Bread stamp',
    order: 'OE-105',
    board: BOARD,
  });
  const face = setupView(made);
  const disc = newShape({ id: 'disc', name: 'Disc' }, { kind: 'circle' }, { kind: 'flat' }, BOARD);
  if (disc.source.kind === 'shape') disc.source.edge = { kind: 'notched', count: 24, ...NOTCH };
  face.layers = [
    { ...disc, size: { x: DISC.across, y: DISC.across }, centre: { ...MIDDLE }, rise: DISC.rise },
    motif('sheaf', 'Wheat sheaf', sheaf, { x: 56, y: (56 * sheaf.info.size.y) / sheaf.info.size.x }),
  ];
  const back = backFrom(face, 'mirror')!;
  applyEdits(made, back.edits);
  face.cutters.push(bit('drill6'));
  applyEdits(made, addDowels(face)!);
  const behind = setupView(made, back.id);
  behind.setup.register = 'dowels';
  behind.layers = [behind.layers[0], motif('wheel', 'Mill wheel', wheel, { x: 64, y: 64 })];
  applyEdits(made, addPass(face, 'cutout', bit('em6')));
  const along = face.passes.find((p): p is CutoutPass => p.kind === 'cutout')!;
  // Round: its bit is wider than a notch, and the band between both rims stays whole.
  along.outline = { ...along.outline, smooth: NOTCH.width };
  along.tabs = { ...along.tabs, count: 4, length: 12, thickness: 3 };
  applyEdits(made, cutHalves(face, along)!);
  return made;
}
