import type { Cutter } from '../../cutter/cutter';
import { inSetup } from '../../doc/edits';
import { WHOLE_PIECE } from '../../doc/outline-ref';
import type { Fix, Found } from '../../findings/finding';
import { bedFinding } from '../bed';
import { aboutPass, type PassDone } from '../kind';
import { setOf } from '../pass-problems';
import { stepdownFor } from '../proposals';
import type { CutoutFacts } from './plan';
import type { CutoutPass } from './schema';

type Done = PassDone<CutoutPass, CutoutFacts>;

/** A cut-out whose outline is empty, or too narrow for its bit. */
function noLine(d: Done): Found[] {
  const { view, pass, facts } = d;
  if (facts.rings.length > 0) return [];
  const remove: Fix = {
    id: 'remove-pass',
    figures: {},
    edits: [{ remove: inSetup(view, 'passes', { id: pass.id }) }],
  };
  const whole: Fix = {
    id: 'outline-whole',
    figures: {},
    edits: [setOf(d, 'outline', WHOLE_PIECE), setOf(d, 'side', 'outside')],
  };
  return [
    {
      rule: 'cutout-no-line',
      severity: 'error',
      subject: aboutPass(d),
      place: null,
      fixes: view.layers.some((l) => !l.hidden) && pass.outline.of !== null ? [whole, remove] : [remove],
    },
  ];
}

/** A cut-out into the machine's bed. */
function intoBed(d: Done): Found[] {
  if (d.facts.rings.length === 0) return [];
  return bedFinding(d.view, { subject: aboutPass(d), what: 'the cut-out', into: d.pass.into, place: null });
}

/** Upright tabs behind which the bit goes straight down deeper than it may. */
function tabPlunge(d: Done): Found[] {
  const { pass, cutter, facts } = d;
  const deep = (facts.tabTop - facts.bottom) / Math.max(1, facts.levels);
  if (facts.rings.length === 0 || pass.tabs.sloped || facts.tabs.length === 0 || deep <= cutter.maxPlungeDepth)
    return [];
  return [
    {
      rule: 'tab-plunge',
      severity: 'warning',
      subject: aboutPass(d),
      place: facts.tabs[0],
      figures: {
        bit: cutter.name,
        deep: Math.min(pass.stepdown, facts.tabTop - facts.bottom),
        most: cutter.maxPlungeDepth,
      },
      fixes: [{ id: 'slope-tabs', figures: {}, edits: [setOf(d, 'tabs.sloped', true)] }],
    },
  ];
}

/** Whether a bit gets down to the bottom from the ground that is open already: how it fails, or null. */
function reachOf(c: Cutter, facts: CutoutFacts): 'flutes' | 'holder' | 'reaches' {
  const below = facts.start - facts.bottom;
  if (c.fluteLength < below) return 'flutes';
  return c.stickOut < -facts.bottom && c.holderDiameter > c.diameter ? 'holder' : 'reaches';
}

/** Inside corners that the bit does not enter. */
function corners(d: Done): Found[] {
  const { view, cutter, facts } = d;
  if (facts.rings.length === 0) return [];
  return facts.corners.map((c) => {
    const fits = view.cutters
      .filter((b) => b.shape === 'endmill' && b.diameter <= c.most)
      .sort((a, b) => b.diameter - a.diameter)[0];
    const how = fits ? reachOf(fits, facts) : 'none';
    return {
      rule: 'corner',
      severity: 'note',
      subject: aboutPass(d),
      place: { x: c.x, y: c.y },
      figures: {
        bit: cutter.name,
        area: c.area,
        most: c.most,
        other: fits?.name ?? '',
        how,
        flutes: fits?.fluteLength ?? 0,
        below: facts.start - facts.bottom,
        stickOut: fits?.stickOut ?? 0,
        depth: -facts.bottom,
      },
      fixes:
        fits && how === 'reaches'
          ? [
              {
                id: 'use-bit',
                figures: { bit: fits.name },
                edits: [setOf(d, 'cutter', fits.id), setOf(d, 'stepdown', stepdownFor(fits, view.board.material))],
              },
            ]
          : [],
    };
  });
}

export const CUTOUT_CHECKS = [noLine, intoBed, tabPlunge, corners];
