import type { Cutter, CutterShape } from '../cutter/cutter';
import { materialNamed } from '../doc/default-materials';
import type { Library } from '../doc/library';
import { fitsCollet, type Machine } from '../doc/machine';
import type { Material } from '../doc/material';
import { bitsIn } from '../doc/own-feeds';

/** A bit as a machine can run it: its speed within the spindle's range, feeds by the same chip load and within what its axes do. */
export function fittedTo({ minRpm, maxRpm, maxFeed }: Machine, cutter: Cutter): Cutter {
  const rpm = Math.min(maxRpm, Math.max(minRpm, cutter.rpm));
  const share = rpm / cutter.rpm;
  return {
    ...cutter,
    rpm,
    feed: Math.min(Math.floor(cutter.feed * share), maxFeed.x, maxFeed.y),
    plunge: Math.min(Math.floor(cutter.plunge * share), maxFeed.z),
  };
}

/** The first bit of a shape whose shank fits a collet of the machine; the first of all where none does, which the proof tells. */
function firstOf(shape: CutterShape, machine: Machine, cutters: Cutter[]): Cutter | null {
  const all = cutters.filter((c) => c.shape === shape);
  const bit = all.find((c) => fitsCollet(machine, c)) ?? all[0];
  return bit ? fittedTo(machine, bit) : null;
}

/** What new boards are made of: maple, or the shop's first material. */
export const newBoardOf = (materials: Material[]): Material =>
  materials.find((m) => m.name === 'maple') ?? materials[0] ?? materialNamed('maple');

/** The machine and the bits that a new job on a material begins with; null where the shop has no machine, no end mill or no ball. */
export function atHand(
  { machines, cutters }: Pick<Library, 'machines' | 'cutters'>,
  material: Material,
): { machine: Machine; rough: Cutter; finish: Cutter } | null {
  const [machine] = machines;
  if (!machine) return null;
  const bits = bitsIn(cutters, material);
  const [rough, finish] = [firstOf('endmill', machine, bits), firstOf('ball', machine, bits)];
  return rough && finish ? { machine, rough, finish } : null;
}
