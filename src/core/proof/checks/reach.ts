import { inSetup } from '../../doc/edits';
import type { Fix, Found } from '../../findings/finding';
import { clean } from '../../units/round';
import { type BodyMet, type BodyPart, bodyOf } from '../body';
import { standingUnder } from '../parted-offset';
import { type AfterRun, aboutRun, type Rule } from './rule';
import { endOf, isRapid, worstMove } from './run-places';

/** Less than this is rounding, mm. */
const LEAST = 0.05;

/**
 * The move at which the shank of a bit that is as wide as its flutes stands deepest beside a wall that is left, and how deep, mm; null
 * when nowhere. Such a shank meets only walls that its own flutes have cut, and rubs there.
 */
function rubsAt({ run }: AfterRun, { radius, height }: BodyPart): BodyMet | null {
  // Cells of about 0.4 mm that are wholly material.
  const tall = standingUnder(run.after, { cell: 0.4, kind: 'min', R: radius, wider: 1 });
  const [move, deep] = worstMove(run, (i) => {
    if (isRapid(run, i)) return 0;
    const p = endOf(run, i);
    return tall(p.x, p.y) - (p.z + height);
  });
  return deep > LEAST ? { name: 'shank', radius, height, move, deep } : null;
}

/** A longer stick-out keeps the holder out; longer flutes of another bit of the job keep the shank out. */
function fixes({ view, run }: AfterRun, { name, deep }: BodyMet): Fix[] {
  const { cutter } = run;
  if (name === 'holder') {
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

/** Shank and holder in the wood: those wider than the bit at any moment, rapids too; a shank as wide as the bit along the walls that are left. */
export const reach: Rule = {
  id: 'reach',
  run(at) {
    const { run } = at;
    const { cutter } = run;
    const [shank] = bodyOf(cutter);
    const even = Math.abs(shank.radius - cutter.diameter / 2) < LEAST && !run.met.some((m) => m.name === 'shank');
    const rubbing = even ? rubsAt(at, shank) : null;
    return [...(rubbing ? [rubbing] : []), ...run.met].map((hit): Found => {
      const rubs = hit === rubbing;
      return {
        rule: 'reach',
        severity: rubs ? 'warning' : 'error',
        subject: aboutRun(at, hit.move),
        place: endOf(run, hit.move),
        figures: { part: hit.name, bit: cutter.name, rubs, deep: hit.deep, rapid: isRapid(run, hit.move) },
        fixes: fixes(at, hit),
      };
    });
  },
};
