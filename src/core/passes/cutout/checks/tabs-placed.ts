import type { Found } from '../../../findings/finding';
import { ringLengths } from '../../../outline/flatten';
import { NearestOutline } from '../../../outline/nearest';
import { aboutPass, type PassDone } from '../../kind';
import { setOf, setValue } from '../../pass-problems';
import type { CutoutFacts } from '../plan';
import type { CutoutPass } from '../schema';

type Done = PassDone<CutoutPass, CutoutFacts>;

/** Another number of tabs than was asked for: every piece gets one, and a short line has no room for many. */
export function tabsPlaced(d: Done): Found[] {
  const { pass, facts } = d;
  const placed = facts.tabs.length;
  if (pass.depth !== null || facts.rings.length === 0 || placed === pass.tabs.count) return [];
  return [
    {
      rule: 'tabs-placed',
      severity: placed < pass.tabs.count ? 'warning' : 'note',
      subject: aboutPass(d),
      place: null,
      figures: { asked: pass.tabs.count, placed, lines: facts.rings.length },
      fixes: [setValue(d, 'tabs.count', placed)],
    },
  ];
}

/** How near two tabs of a line come to each other, mm along it, and where; null where there are no two on one. */
function nearest({ rings, tabs }: CutoutFacts): { apart: number; at: { x: number; y: number } } | null {
  let best: ReturnType<typeof nearest> = null;
  const lines = rings.map((r) => Float64Array.from(r));
  const near = new NearestOutline(lines, 1000);
  const hit = { distance: 0, along: 0, ring: 0 };
  const on = tabs.map(({ x, y }) => ({ at: { x, y }, ring: near.find(x, y, hit).ring, along: hit.along }));
  for (const [k, ring] of lines.entries()) {
    const { total } = ringLengths(ring);
    const mine = on.filter((t) => t.ring === k).sort((a, b) => a.along - b.along);
    for (const [i, t] of mine.entries()) {
      if (mine.length < 2) break;
      const next = mine[(i + 1) % mine.length];
      const apart = i + 1 < mine.length ? next.along - t.along : next.along + total - t.along;
      if (!best || apart < best.apart) best = { apart, at: t.at };
    }
  }
  return best;
}

/** Tabs set by hand so near to each other that they are one. */
export function tabsOverlap(d: Done): Found[] {
  const { facts } = d;
  const close = facts.tabs.length > 1 ? nearest(facts) : null;
  if (!close || close.apart >= 2 * facts.reach) return [];
  return [
    {
      rule: 'tabs-overlap',
      severity: 'warning',
      subject: aboutPass(d),
      place: close.at,
      figures: { apart: close.apart, least: 2 * facts.reach },
      fixes: [{ id: 'place-tabs', figures: {}, edits: [setOf(d, 'tabs.at', null)] }],
    },
  ];
}
