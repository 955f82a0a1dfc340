import { newShape } from '@/core/arrange/new-layer';
import { DRAWER, materialNamed, ROTARY_MACHINE } from '@/core/doc/defaults';
import { asDrum } from '@/core/doc/drum';
import type { Job } from '@/core/doc/job';
import type { Layer } from '@/core/doc/layer';
import { plainJob } from '@/core/plan/propose';
import { setupView } from '@/core/setup/view';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
/** A dowel of beech, turned to 50 mm. */
const PIN = { x: 300, diameter: 50 };
/** Cells of the comb around the pin, and pairs of columns along it; how wide the wax between them is, and how deep they are, mm. */
const COMB = { around: 12, columns: 9, wax: 1.6, deep: 1.4 };

/**
 * A rolling pin that presses a honeycomb with bees into dough: cells sunk into it all around, twelve of them to a turn, so that the comb meets itself
 * without a seam, and bees that sit on it.
 */
export function rollingPin(): Job {
  const job = plainJob({
    machine: ROTARY_MACHINE,
    rough: bit('em3'),
    finish: bit('ball3'),
    name: 'Rolling pin',
    order: 'OE-108',
    board: { x: PIN.x, y: PIN.x, thickness: PIN.diameter / 2, material: materialNamed('beech') },
  });
  const pin = setupView(job);
  Object.assign(pin.board, asDrum(PIN.diameter));
  // Its web is the wood that has to stay around the axis.
  Object.assign(pin.board, { web: 8, grain: 'along-x' });
  const pitch = pin.board.y / COMB.around;
  const apart = (pitch * Math.sqrt(3)) / 2;
  const across = pitch - COMB.wax;
  const first = PIN.x / 2 - (COMB.columns - 1) * apart;
  const cells = (id: string, name: string, dx: number, dy: number, columns: number): Layer => ({
    ...newShape({ id, name }, { kind: 'polygon', sides: 6 }, { kind: 'dome' }, pin.board),
    // A regular hexagon with a corner at its top is 2 / sqrt 3 times as high as it is wide; on its side, the comb's columns interlock.
    size: { x: across, y: (2 / Math.sqrt(3)) * across },
    turn: 90,
    rise: COMB.deep,
    join: 'carve',
    centre: { x: first + (columns - 1) * apart + dx, y: pin.board.y / 2 + dy },
    copies: { kind: 'rows', columns: COMB.around, rows: columns, dx: pitch, dy: -2 * apart },
  });
  pin.layers = [
    cells('comb', 'Comb', 0, 0, COMB.columns),
    cells('between', 'Comb between', apart, pitch / 2, COMB.columns - 1),
  ];
  pin.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
  // What is sunk so little a ball takes by itself.
  pin.passes = pin.passes.filter((p) => p.kind === 'finish');
  for (const p of pin.passes) if (p.kind === 'finish') Object.assign(p, { angle: 0, lines: 'rows' });
  return job;
}
