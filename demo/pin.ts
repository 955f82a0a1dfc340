import { newShape } from '@/core/arrange/new-layer';
import { DRAWER, materialNamed, ROTARY_MACHINE } from '@/core/doc/defaults';
import { makeDrum } from '@/core/doc/drum';
import type { Job } from '@/core/doc/job';
import type { Layer } from '@/core/doc/layer';
import type { ReliefOf } from '@/core/doc/relief-of';
import { plainJob } from '@/core/plan/propose';
import { type SetupView, setupView } from '@/core/setup/view';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
/** A dowel of beech, turned to 50 mm. */
const PIN = { x: 300, diameter: 50 };
/** Cells of the comb around the pin, and pairs of columns along it; how wide the wax between them is, how deep they are, and how wide their sloping sides are, mm. */
const COMB = { around: 12, columns: 9, wax: 1.6, deep: 1, sides: 2.2 };
/** Bees around the pin, rings of them along it and how far those lie apart, how deep they are, and how wide their sloping sides, mm. */
const BEES = { around: 3, along: 2, apart: 96, deep: 1.7, sides: 1.6 };
/** Ovals of a bee that flies along the pin: half axes, middle, and how they are turned, degrees; mm, y down. */
const OVALS = [
  { name: 'body', a: 6, b: 3.4, x: -2.6, y: 0, turn: 0 },
  { name: 'head', a: 2.5, b: 2.7, x: 6.6, y: 0, turn: 0 },
  { name: 'wing', a: 4.6, b: 2.5, x: 1, y: -6.6, turn: 70 },
  { name: 'other wing', a: 4.6, b: 2.5, x: 1, y: 6.6, turn: -70 },
];

/** An oval as SVG path data. */
function oval({ a, b, x, y, turn }: (typeof OVALS)[number]): string {
  const t = (turn * Math.PI) / 180;
  const [dx, dy] = [a * Math.cos(t), a * Math.sin(t)].map((v) => Number(v.toFixed(4)));
  return `M${x - dx} ${y - dy}A${a} ${b} ${turn} 1 1 ${x + dx} ${y + dy}A${a} ${b} ${turn} 1 1 ${x - dx} ${y - dy}Z`;
}

/** One of the two layers that make the comb: every other column of cells. */
function cells(pin: SetupView, id: string, name: string, columns: number, aside: number): Layer {
  const pitch = pin.board.y / COMB.around;
  const apart = (pitch * Math.sqrt(3)) / 2;
  const across = pitch - COMB.wax;
  const relief: ReliefOf = { kind: 'bevel', width: COMB.sides, band: false };
  return {
    ...newShape({ id, name }, { kind: 'polygon', sides: 6 }, relief, pin.board),
    // A regular hexagon with a corner at its top is 2 / sqrt 3 times as high as it is wide; on its side, the comb's columns interlock.
    size: { x: across, y: (2 / Math.sqrt(3)) * across },
    turn: 90,
    rise: COMB.deep,
    join: 'carve',
    centre: { x: PIN.x / 2, y: pin.board.y / 2 + aside * pitch },
    copies: { kind: 'rows', columns: COMB.around, rows: columns, dx: pitch, dy: -2 * apart },
  };
}

/** The bees: hollows in the pin, so that they stand on the comb in dough. */
function bees(pin: SetupView): Layer {
  const relief: ReliefOf = { kind: 'bevel', width: BEES.sides, band: false };
  const bee = newShape({ id: 'bees', name: 'Bees' }, { kind: 'path', d: OVALS.map(oval).join('') }, relief, pin.board);
  return {
    ...bee,
    size: { x: 17.7, y: 21.9 },
    centre: { x: PIN.x / 2, y: pin.board.y / 2 },
    // Turned over they are hollows, whose rims lie at the pin's surface.
    invert: true,
    rise: BEES.deep,
    lift: -BEES.deep,
    join: 'lowest',
    copies: { kind: 'rows', columns: BEES.along, rows: BEES.around, dx: BEES.apart, dy: pin.board.y / BEES.around },
  };
}

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
  // Its web is the wood that has to stay around the axis.
  makeDrum(pin.board, PIN.diameter);
  Object.assign(pin.board, { web: 8, grain: 'along-x' });
  pin.layers = [
    cells(pin, 'comb', 'Comb', COMB.columns, 0),
    cells(pin, 'between', 'Comb between', COMB.columns - 1, 0.5),
    bees(pin),
  ];
  pin.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
  // What is sunk so little a ball takes by itself.
  pin.passes = pin.passes.filter((p) => p.kind === 'finish');
  for (const p of pin.passes) if (p.kind === 'finish') p.lines = 'rows';
  return job;
}
