import { loaf, shapeMesh } from '../demo/shapes';
import { newShape } from '../src/core/arrange/new-layer';
import { HOBBY_MACHINE, materialNamed } from '../src/core/doc/defaults';
import type { Job } from '../src/core/doc/job';
import { drawerBit, plainSetup } from '../src/core/plan/plan-test-kit';
import { writeStl } from '../src/core/sources/stl';

const BOARD = { x: 40, y: 30, thickness: 12, material: materialNamed('maple') };

/** A small board with a dome, on a coarse grid: it plans in a second. */
export function smallJob(name: string, rise = 3): Job {
  const view = plainSetup({
    name,
    order: '',
    machine: HOBBY_MACHINE,
    rough: drawerBit('em6'),
    finish: drawerBit('ball6'),
    board: BOARD,
  });
  view.cell = 0.5;
  view.layers = [
    {
      ...newShape({ id: 'dome', name: 'Dome' }, { kind: 'oval' }, { kind: 'dome' }, BOARD),
      size: { x: 24, y: 16 },
      centre: { x: 20, y: 15 },
      rise,
    },
  ];
  return view.document;
}

/** A model of its own, told apart by its size. */
export const smallModel = (n: number): Uint8Array => {
  const mesh = shapeMesh(loaf, 3).map((v, i) => (i % 3 === 2 ? v * (1 + n / 1000) : v));
  return writeStl(Float32Array.from(mesh), `model ${n}`);
};
