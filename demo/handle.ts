import { flatAcross } from '@/core/arrange/kinds/turned/forms';
import { deepenTurned, newTurned } from '@/core/arrange/kinds/turned/fresh';
import type { TurnedForm } from '@/core/arrange/kinds/turned/schema';
import { newShape } from '@/core/arrange/new-layer';
import { DRAWER, materialNamed, ROTARY_MACHINE } from '@/core/doc/defaults';
import { makeDrum } from '@/core/doc/drum';
import { applyEdits } from '@/core/doc/edits';
import type { Job } from '@/core/doc/job';
import type { Layer } from '@/core/doc/layer';
import { addPass } from '@/core/passes/add-pass';
import { plainJob } from '@/core/plan/propose';
import { type SetupView, setupView } from '@/core/setup/view';
import { clean } from '@/core/units/round';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
/** A square length of beech that a drum of 32 mm comes out of, and the handle in it, mm. */
const STOCK = { x: 220, diameter: 32, square: 34 };
const HANDLE = { from: 36, to: 194 };
/** Diameters along the handle, from the blade of the peel on, mm. */
const ACROSS = [30, 30, 25.5, 30.5, 26];
/** The flat that lies against the blade, its distance from the axis, and the screw holes in it, mm. */
const FLAT = { from: 46, to: 80, left: 10, holes: [54, 72], deep: 12 };
/** Flutes where the hand lies, rounder than the larger ball, so that its rows meet in them, mm. */
const FLUTES = { from: 92, to: 158, count: 8, twist: 40, deep: 1.2, radius: 5 };
/** A hollow for the thumb, opposite the flat, mm. */
const THUMB = { x: 172, long: 22, wide: 15, deep: 1.6 };

/** A turned form from here to there along a drum, so deep. */
function along(
  pin: SetupView,
  name: string,
  form: TurnedForm,
  { from, to, deep }: { from: number; to: number; deep: number },
) {
  const layer = newTurned(name.toLowerCase().replace(/ /g, '-'), name, form, pin.board);
  layer.size.x = to - from;
  layer.centre.x = (from + to) / 2;
  deepenTurned(layer, clean(deep));
  return layer;
}

/** The layers of the handle, from the lowest up: its contour, flutes in it, a hollow for the thumb, and the flat, which cuts through all of them. */
function layers(drum: SetupView): Layer[] {
  const radius = STOCK.diameter / 2;
  const deep = radius - Math.min(...ACROSS) / 2;
  const points = ACROSS.map((d, i) => ({ along: i / (ACROSS.length - 1), down: clean((radius - d / 2) / deep) }));
  const flat = along(drum, 'Flat', { kind: 'flat' }, { ...FLAT, deep: radius - FLAT.left });
  // On the seam of the sheet, which is nowhere on the wood.
  flat.centre.y = 0;
  flat.size.y = clean(flatAcross(radius, radius - FLAT.left));
  return [
    along(drum, 'Contour', { kind: 'contour', points, curved: true }, { ...HANDLE, deep }),
    along(
      drum,
      'Flutes',
      {
        kind: 'flutes',
        count: FLUTES.count,
        twist: FLUTES.twist,
        section: { kind: 'ball', radius: FLUTES.radius },
      },
      FLUTES,
    ),
    {
      ...newShape(
        { id: 'thumb', name: 'Thumb' },
        { kind: 'oval' },
        { kind: 'bevel', width: THUMB.wide / 2, band: false },
        drum.board,
      ),
      size: { x: THUMB.long, y: THUMB.wide },
      centre: { x: THUMB.x, y: clean(drum.board.y / 2) },
      rise: THUMB.deep,
      join: 'carve',
    },
    flat,
  ];
}

/**
 * A handle for an oven peel: square beech turned round, a contour with flutes in it, a flat with two screw holes where it lies against the blade, a hollow
 * for the thumb, and a groove at both ends in which it is sawn off.
 */
export function peelHandle(): Job {
  const job = plainJob({
    machine: ROTARY_MACHINE,
    rough: bit('em6'),
    finish: bit('ball6'),
    name: 'Peel handle',
    order: 'OE-109',
    board: { x: STOCK.x, y: STOCK.x, thickness: STOCK.diameter / 2, material: materialNamed('beech') },
  });
  const drum = setupView(job);
  makeDrum(drum.board, STOCK.diameter);
  Object.assign(drum.board, { web: 4, grain: 'along-x' });
  drum.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
  drum.layers = layers(drum);
  for (const kind of ['turn', 'part'] as const) applyEdits(job, addPass(setupView(job), kind, bit('em6')));
  applyEdits(job, addPass(setupView(job), 'hole', bit('drill6')));
  for (const p of drum.passes) {
    if (p.kind === 'turn') p.blank = { kind: 'square', side: STOCK.square };
    if (p.kind === 'hole') Object.assign(p, { places: FLAT.holes.map((x) => ({ x, y: 0 })), depth: FLAT.deep });
    if (p.kind === 'part') Object.assign(p, { along: [HANDLE.from + 2, HANDLE.to - 2], left: 8 });
    if (p.kind === 'finish') Object.assign(p, { lines: 'rows', stepover: 0.35 });
  }
  return job;
}
