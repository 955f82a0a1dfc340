import { encode } from 'fast-png';
import { DRAWER, HOBBY_MACHINE } from '@/core/plan/defaults';
import type { Job } from '@/core/plan/job';
import { proposeJob } from '@/core/plan/propose';
import { inspectSource, readSource } from '@/core/sources/inspect';
import { writeStl } from '@/core/sources/stl';
import { loaf, plaque, type Shape, shapeMesh } from './shapes';

/** A shape as a 16-bit grayscale PNG, black outside its outline, white at its rise. */
export function shapeImage(s: Shape, pixel: number): Uint8Array {
  const width = Math.round(s.width / pixel);
  const height = Math.round(s.height / pixel);
  const data = new Uint16Array(width * height);
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const x = (i + 0.5) * pixel - s.width / 2;
      const y = s.height / 2 - (j + 0.5) * pixel;
      if (s.inside(x, y)) data[j * width + i] = Math.round((s.at(x, y) / s.rise) * 65535);
    }
  }
  return encode({ width, height, data, depth: 16, channels: 1 });
}

export interface DemoJob {
  file: string;
  bytes: Uint8Array;
  job(hash: string): Job;
}

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;

function demoJob(
  file: string,
  bytes: Uint8Array,
  make: (hash: string, info: ReturnType<typeof inspectSource>) => Job,
): DemoJob {
  return { file, bytes, job: (hash) => make(hash, inspectSource(readSource(bytes, file))) };
}

/** The jobs that the sample shop starts with; all of it is made here. */
export function demoJobs(): DemoJob[] {
  const common = { machine: HOBBY_MACHINE, rough: bit('em6'), finish: bit('ball3') };
  const board = { x: 300, y: 200, thickness: 19, material: 'maple' };
  return [
    demoJob('wheat-sheaf.stl', writeStl(shapeMesh(plaque, 0.5), 'wheat-sheaf plaque'), (hash, info) =>
      proposeJob({
        ...common,
        name: 'Wheat-sheaf plaque',
        order: 'OE-101',
        file: 'wheat-sheaf.stl',
        hash,
        info,
        board,
        size: { x: 280 },
        rise: 10.6,
      }),
    ),
    demoJob('wheat-sheaf-heights.png', shapeImage(plaque, 0.2), (hash, info) =>
      proposeJob({
        ...common,
        name: 'Wheat-sheaf, from heights',
        order: 'OE-102',
        file: 'wheat-sheaf-heights.png',
        hash,
        info,
        board: { ...board, material: 'pine', origin: 'centre' },
        size: { x: 200 },
        rise: 8,
      }),
    ),
    demoJob('loaf.stl', writeStl(shapeMesh(loaf, 0.5), 'loaf for a cookie mould'), (hash, info) =>
      proposeJob({
        ...common,
        name: 'Cookie mould',
        order: 'OE-103',
        file: 'loaf.stl',
        hash,
        info,
        board: { x: 160, y: 110, thickness: 22, material: 'beech' },
        size: { x: 116 },
        rise: 9,
        mode: 'sunk',
        invert: true,
      }),
    ),
  ];
}
