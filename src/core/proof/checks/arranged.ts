import { gapOff, keepGaps } from '../../arrange/place';
import { inSetup } from '../../doc/edits';
import { THE_BOARD } from '../../doc/layer';
import { forLayers } from './layer-seen';
import type { BeforeCut, Rule } from './rule';

/** A distance that is off by less is kept, and words of a size that differs by less have it, mm. */
const NEAR = 0.02;

/** Centres and lifts that keep all distances of a setup, as edits. */
function keptDistances({ view }: BeforeCut, moved: string[]) {
  const { gaps, board, seat } = view;
  const layers = structuredClone(view.layers);
  if (keepGaps({ layers, gaps, board, seat }, moved).length > 0) return [];
  const edits = layers.flatMap(({ id, centre, lift }, i) => {
    const was = view.layers[i];
    const at = (field: string) => inSetup(view, 'layers', { id }, field);
    return [
      ...(centre.x === was.centre.x && centre.y === was.centre.y ? [] : [{ set: at('centre'), to: centre }]),
      ...(lift === was.lift ? [] : [{ set: at('lift'), to: lift }]),
    ];
  });
  return [{ id: 'keep-distances', figures: {}, edits }];
}

/** A distance between layers that the document names and that is not there. */
export const distanceOff: Rule = {
  id: 'distance-off',
  before(at) {
    const { view } = at;
    const name = (id: string) => (id === THE_BOARD ? 'the board' : (view.layers.find((l) => l.id === id)?.name ?? id));
    return view.gaps.flatMap((g) => {
      const off = gapOff(g, view);
      if (off === null || Math.abs(off) <= NEAR) return [];
      return [
        {
          rule: 'distance-off',
          severity: 'warning' as const,
          subject: { setup: view.setup.id, layer: g.of },
          place: view.layers.find((l) => l.id === g.of)?.centre ?? null,
          figures: { of: name(g.of), from: name(g.from), wanted: g.distance, now: g.distance - off },
          fixes: keptDistances(at, [g.from]),
        },
      ];
    });
  },
};

/** Words whose size in the document is not what their font makes of them: they are cut as their font makes them. */
export const wordsSize: Rule = {
  id: 'words-size',
  before: (at) =>
    forLayers(
      at,
      (l, { measured }) => {
        if (!measured || Math.hypot(measured.x - l.size.x, measured.y - l.size.y) <= NEAR) return null;
        const edits = [{ set: inSetup(at.view, 'layers', { id: l.id }, 'size'), to: measured }];
        return {
          severity: 'warning',
          figures: { layer: l.name, width: measured.x, height: measured.y, saidWidth: l.size.x, saidHeight: l.size.y },
          fixes: [{ id: 'take-measure', figures: { width: measured.x, height: measured.y }, edits }],
        };
      },
      'words-size',
    ),
};
