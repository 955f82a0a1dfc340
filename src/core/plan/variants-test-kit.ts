import { expect } from 'vitest';
import { demoJobOf } from '../../../demo/shop';
import { contentLoader } from '../../server/content';
import { DRAWER } from '../doc/defaults';
import type { SetupView } from '../setup/view';
import { setupView } from '../setup/view';
import { others, planShapes } from './plan-test-kit';

// The loaf in every way that it can be seated and cut, on a coarse grid: the proof of the written programs decides.
const demo = await demoJobOf('OE-103');
const load = contentLoader((h) => demo.files.get(h)!.bytes);

/** Stands on the board, as a piece of its own. */
export function raised(j: SetupView): void {
  j.seat.mode = 'raised';
  j.layers[0].join = 'stack';
}

/** The same mould at seven tenths: half as much to cut. */
function smaller(j: SetupView): void {
  const less = ({ x, y }: { x: number; y: number }) => ({ x: 0.7 * x, y: 0.7 * y });
  Object.assign(j.board, less(j.board));
  for (const l of j.layers) Object.assign(l, { size: less(l.size), centre: less(l.centre), rise: 0.7 * l.rise });
}

/** Gives a pass a bit of the drawer and a stepover. */
export function bit(j: SetupView, pass: number, id: string, stepover: number): void {
  const c = DRAWER.find((d) => d.id === id)!;
  if (!j.cutters.some((d) => d.id === id)) j.cutters.push(c);
  j.passes[pass].cutter = id;
  Object.assign(j.passes[pass], { stepover });
}

/** The loaf, changed, on a coarse grid: what its plan says, and what of it is worth a warning. */
export async function planLoaf(edit: (j: SetupView) => void) {
  const job = setupView(structuredClone(demo.job));
  job.cell = 0.2;
  edit(job);
  const { summary } = await planShapes(job, load);
  return {
    summary,
    found: others(summary.findings)
      .filter((f) => f.severity !== 'note')
      .map((f) => f.rule),
    bites: summary.findings.map((f) => f.rule).filter((r) => r === 'bite'),
  };
}

/** A loaf at seven tenths, changed, is cut with nothing to warn of. */
export async function expectClean(edit: (j: SetupView) => void): Promise<void> {
  const { found, summary } = await planLoaf((j) => {
    smaller(j);
    edit(j);
  });
  expect(found).toEqual([]);
  expect(summary.seconds).toBeGreaterThan(60);
  expect(summary.programs.length).toBeGreaterThan(0);
}
