import { isBump } from '../../arrange/bump';
import { inSetup } from '../../doc/edits';
import type { Layer } from '../../doc/layer';
import type { Fix } from '../../findings/finding';
import { forLayers } from './layer-seen';
import type { BeforeCut, LayerSeen, Rule } from './rule';

/** Less of a layer than this share is as good as nothing. */
const NOTHING = 0.005;

/** A layer is far too large when it is so many times as long as the board. */
const FAR = 4;

const edit = (at: BeforeCut, l: Layer, field: string, to: unknown) => ({
  set: inSetup(at.view, 'layers', { id: l.id }, field),
  to,
});

const hide = (at: BeforeCut, l: Layer): Fix => ({
  id: 'hide-layer',
  figures: { layer: l.name },
  edits: [edit(at, l, 'hidden', true)],
});

/** Layers off the board are another rule's, and one that is blended in at nothing is meant to do nothing. */
const judged = (l: Layer, seen: LayerSeen) => seen.effect.stands && !(l.join === 'blend' && l.amount === 0);

/** A layer that is joined so that it changes nothing: what lies beneath it is higher, lower, or it has no height. */
export const layerIdle: Rule = {
  id: 'layer-idle',
  before: (at) =>
    forLayers(
      at,
      (l, seen) => {
        if (!judged(l, seen) || seen.effect.changed > NOTHING || seen.effect.visible > NOTHING) return null;
        return { severity: 'warning', figures: { layer: l.name, join: l.join, rise: l.rise }, fixes: [hide(at, l)] };
      },
      'layer-idle',
    ),
};

/** A layer of which nothing shows in the end: others lie over it. */
export const layerBuried: Rule = {
  id: 'layer-buried',
  before: (at) =>
    forLayers(
      at,
      (l, seen) => {
        const { changed, visible, lost } = seen.effect;
        if (!judged(l, seen) || changed <= NOTHING || visible > NOTHING || lost > 1 - NOTHING) return null;
        return { severity: 'warning', figures: { layer: l.name }, fixes: [hide(at, l)] };
      },
      'layer-buried',
    ),
};

/** A layer that goes below the base plane, where it is lost. */
export const layerLost: Rule = {
  id: 'layer-lost',
  before: (at) =>
    forLayers(
      at,
      (l, seen) => {
        if (!seen.effect.stands || seen.effect.lost <= NOTHING) return null;
        return { severity: 'warning', figures: { layer: l.name, share: 100 * seen.effect.lost }, fixes: [] };
      },
      'layer-lost',
    ),
};

/** A layer that is many times as large as the board: a unit was mistaken. */
export const layerHuge: Rule = {
  id: 'layer-huge',
  before: (at) =>
    forLayers(
      at,
      (l) => {
        const { board } = at.view;
        const times = Math.max(l.size.x, l.size.y) / Math.max(board.x, board.y);
        if (times < FAR) return null;
        const k = 0.8 * Math.min(board.x / l.size.x, board.y / l.size.y);
        const rise = Math.max(0.2, Math.min(l.rise * k, board.thickness / 2));
        const fixes: Fix[] = [
          {
            id: 'onto-board',
            figures: { layer: l.name },
            edits: [
              edit(at, l, 'size', { x: l.size.x * k, y: l.size.y * k }),
              edit(at, l, 'centre', { x: board.x / 2, y: board.y / 2 }),
              edit(at, l, 'rise', rise),
            ],
          },
        ];
        return {
          severity: 'error',
          figures: { layer: l.name, width: l.size.x, height: l.size.y, times },
          fixes: l.copies.kind === 'one' ? fixes : [],
        };
      },
      'layer-huge',
    ),
};

/** A model of a recess that is joined so that its rim makes a bump. */
export const layerBump: Rule = {
  id: 'layer-bump',
  before: (at) =>
    forLayers(
      at,
      (l, seen) => {
        if (!isBump(l, seen.recess)) return null;
        const fixes: Fix[] = [
          {
            id: 'let-dig',
            figures: { rise: l.rise },
            edits: [
              edit(at, l, 'join', 'carve'),
              edit(at, l, 'invert', true),
              edit(at, l, 'lift', Math.max(0, l.lift)),
            ],
          },
        ];
        return { severity: 'warning', figures: { layer: l.name }, fixes };
      },
      'layer-bump',
    ),
};
