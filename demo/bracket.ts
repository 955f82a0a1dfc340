import { DRAWER, HOBBY_MACHINE, materialNamed } from '@/core/doc/defaults';
import type { Job } from '@/core/doc/job';
import { PLAIN_LAYER } from '@/core/doc/layer';
import { cutout } from '@/core/passes/cutout/kind';
import { hole } from '@/core/passes/hole/kind';
import { plainJob } from '@/core/plan/propose';
import { tapeUnder } from '@/core/setup/holding';
import { setupView } from '@/core/setup/view';
import { SCROLL } from './shapes';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;

/** A bracket sawn as a scroll, with two holes to screw it on by: no file, no relief to speak of, and the cut-out is most of the work. */
export function bracket(): Job {
  const size = { x: 240, y: 96, thickness: 18, material: materialNamed('beech') };
  const made = plainJob({
    machine: HOBBY_MACHINE,
    rough: bit('em6'),
    finish: bit('ball6'),
    name: 'Scroll bracket',
    order: 'OE-104',
    board: { ...size, x: 280, y: 136 },
  });
  const job = setupView(made);
  job.layers = [
    {
      ...PLAIN_LAYER,
      id: 'scroll',
      name: 'Scroll',
      source: {
        kind: 'shape',
        outline: { kind: 'path', d: SCROLL },
        edge: { kind: 'plain' },
        relief: { kind: 'bevel', width: 3, band: false },
      },
      size: { x: size.x, y: size.y },
      rise: 3,
      centre: { x: 140, y: 68 },
    },
  ];
  // Between the turns of the scroll the cut-out frees slivers that no tab reaches: they are held from below.
  job.setup.holding.push(tapeUnder('tape', job.board));
  job.cutters.push(bit('drill6'));
  const sawn = cutout.propose(job, bit('em6'));
  job.passes.push(
    {
      ...hole.propose(job, bit('drill6')),
      places: [
        { x: 34, y: 86 },
        { x: 250, y: 90 },
      ],
      depth: null,
    },
    { ...sawn, tabs: { ...sawn.tabs, count: 5, length: 12 } },
  );
  return made;
}
