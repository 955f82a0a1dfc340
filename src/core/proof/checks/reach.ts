import { inSetup } from '../../doc/edits';
import { poolField, sampleField } from '../../field/height-field';
import type { Fix, Found } from '../../findings/finding';
import { flatOffset } from '../../kernels/cutter-offset';
import { clean } from '../../units/round';
import { type AfterRun, aboutRun, type Rule } from './rule';
import { endOf, isRapid } from './run-places';

interface Part {
  name: 'shank' | 'holder';
  radius: number;
  /** Where it begins over the tip, mm. */
  height: number;
  /** Whether it only rubs along the wall that its own bit left. */
  rubs: boolean;
}

/** The move at which a part stands deepest in what is left, and how deep, mm; null when nowhere. */
function deepestAt({ run }: AfterRun, part: Part): { move: number; deep: number } | null {
  const factor = Math.max(1, Math.round(0.4 / run.after.cell));
  // Cells of about 0.4 mm that are wholly material.
  const walls = poolField(run.after, factor, 'min');
  const tall = { ...walls, data: flatOffset(walls, part.radius + walls.cell) };
  let move = -1;
  let deep = 0.05;
  for (let i = 0; i < run.bites.length; i++) {
    if (isRapid(run, i)) continue;
    const p = endOf(run, i);
    const over = sampleField(tall, p.x, p.y) - (p.z + part.height);
    if (over > deep) {
      deep = over;
      move = i;
    }
  }
  return move < 0 ? null : { move, deep };
}

/** A longer stick-out keeps the holder out; longer flutes of another bit of the job keep the shank out. */
function fixes({ view, run }: AfterRun, part: Part, deep: number): Fix[] {
  const { cutter } = run;
  if (part.name === 'holder') {
    const stickOut = clean(Math.ceil(2 * (cutter.stickOut + deep + 0.5)) / 2);
    return [
      {
        id: 'stick-out',
        figures: { bit: cutter.name, stickOut },
        edits: [{ set: ['cutters', { id: cutter.id }, 'stickOut'], to: stickOut }],
      },
    ];
  }
  const other = view.cutters.find(
    (c) =>
      c.id !== cutter.id &&
      c.shape === cutter.shape &&
      c.diameter === cutter.diameter &&
      c.fluteLength >= cutter.fluteLength + deep,
  );
  if (!other) return [];
  const own = view.passes.filter((p) => run.passes.includes(p.id) && p.cutter === cutter.id);
  return [
    {
      id: 'use-bit',
      figures: { bit: other.name },
      edits: own.map((p) => ({ set: inSetup(view, 'passes', { id: p.id }, 'cutter'), to: other.id })),
    },
  ];
}

/**
 * Shank and holder against the walls that are left standing: what remains after the run was certainly there while it ran.
 */
export const reach: Rule = {
  id: 'reach',
  run(at) {
    const { run } = at;
    const { cutter } = run;
    const parts: Part[] = [
      {
        name: 'shank',
        radius: cutter.shankDiameter / 2,
        height: cutter.fluteLength,
        rubs: cutter.shankDiameter <= cutter.diameter,
      },
      { name: 'holder', radius: cutter.holderDiameter / 2, height: cutter.stickOut, rubs: false },
    ];
    return parts.flatMap((part): Found[] => {
      if (part.radius < cutter.diameter / 2 - 0.05) return [];
      const hit = deepestAt(at, part);
      if (!hit) return [];
      return [
        {
          rule: 'reach',
          severity: part.rubs ? 'warning' : 'error',
          subject: aboutRun(at, hit.move),
          place: endOf(run, hit.move),
          figures: { part: part.name, bit: cutter.name, rubs: part.rubs, deep: hit.deep },
          fixes: fixes(at, part, hit.deep),
        },
      ];
    });
  },
};
