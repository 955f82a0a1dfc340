import { newShape } from '@/core/arrange/new-layer';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '@/core/doc/defaults';
import { applyEdits } from '@/core/doc/edits';
import type { Job } from '@/core/doc/job';
import { addPass } from '@/core/passes/add-pass';
import type { CutoutPass } from '@/core/passes/cutout/schema';
import { addDowels } from '@/core/passes/dowels';
import { backFrom } from '@/core/plan/backs';
import { cutHalves } from '@/core/plan/halves';
import { plainJob } from '@/core/plan/propose';
import { setupView } from '@/core/setup/view';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
const BOARD = { x: 320, y: 240, thickness: 22, material: materialNamed('beech') };
const MIDDLE = { x: BOARD.x / 2, y: BOARD.y / 2 };
/** The board that is cut out of it, with its round corners, and how deep it is hollowed behind, mm. */
const PIECE = { x: 260, y: 160, radius: 26, recess: 3 };

/**
 * A bread board: a groove with a rope in it around its face, and behind a shallow recess on whose rim it stands, with a slot to hang it by. It is cut
 * out half from each side.
 */
export function breadBoard(): Job {
  const made = plainJob({
    machine: HOBBY_MACHINE,
    rough: bit('em6'),
    finish: bit('ball3'),
    name: 'Bread board',
    order: 'OE-106',
    board: BOARD,
  });
  const face = setupView(made);
  const rounded = (id: string, name: string, inset: number) => ({
    ...newShape({ id, name }, { kind: 'rounded', radius: PIECE.radius - inset }, { kind: 'flat' }, BOARD),
    size: { x: PIECE.x - 2 * inset, y: PIECE.y - 2 * inset },
    centre: { ...MIDDLE },
  });
  const piece = { ...rounded('piece', 'Outline', 0), hidden: true };
  const groove = { ...rounded('groove', 'Groove', 10), rise: 4, join: 'carve' as const };
  const rope = { ...rounded('rope', 'Rope', 13), rise: 2.5, join: 'stack' as const };
  if (groove.source.kind === 'shape') groove.source.relief = { kind: 'bead', width: 16, band: true };
  if (rope.source.kind === 'shape') rope.source.relief = { kind: 'rope', width: 10, pitch: 16, band: true };
  face.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
  face.layers = [piece, groove, rope];
  // The groove is narrow: its ball goes down in it by itself.
  face.passes = face.passes.filter((p) => p.kind === 'finish');
  applyEdits(made, addPass(face, 'cutout', bit('em6')));
  const along = face.passes.find((p): p is CutoutPass => p.kind === 'cutout')!;
  along.outline = { ...along.outline, of: ['piece'] };
  along.start = 'top';
  along.tabs = { ...along.tabs, count: 5, length: 14, thickness: 4 };
  const back = backFrom(face, 'recess')!;
  applyEdits(made, back.edits);
  const behind = setupView(made, back.id);
  for (const p of behind.passes)
    if (p.kind === 'pocket')
      Object.assign(p, { depth: PIECE.recess, outline: { ...p.outline, of: ['piece'], grow: -14 } });
  applyEdits(made, addPass(behind, 'hang', bit('slot9')));
  for (const p of behind.passes) if (p.kind === 'hang') Object.assign(p, { depth: 12 });
  applyEdits(made, cutHalves(face, along)!);
  face.cutters.push(bit('drill6'));
  applyEdits(made, addDowels(face)!);
  behind.setup.register = 'dowels';
  return made;
}
