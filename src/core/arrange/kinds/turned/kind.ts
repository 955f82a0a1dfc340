import type { LayerOf } from '../../../doc/layer';
import { type Drum, unrolled } from '../../../field/drum';
import { AIR, makeField } from '../../../field/height-field';
import { outlinePolygon } from '../../../outline/shapes';
import { clean } from '../../../units/round';
import { copiesOf } from '../../copies';
import { frameOf, type Piece, windowGrid, windowOf } from '../../window';
import { NO_FACTS, type OnGround, type PieceAt, type SourceKind } from '../kind';
import { turnedForm } from './forms';
import { fromBlank } from './fresh';

/** Places this near to a form's edge belong to it, mm. */
const EDGE = 1e-6;

/** Narrowest ground that grooves are worked out for, as a share of the blank's radius. */
const LEAST = 0.2;
const NOTHING = {
  window: { i: 0, j: 0, width: 0, height: 0 },
  heights: new Float32Array(0),
  below: null,
  thinCells: 0,
  edge: null,
};

/** A form of turned work on the rays of a drum; nothing on a board that lies flat, which is a problem of its own. All but flats go all round. */
function piece({ layer, frame, grid }: PieceAt<'turned'>): Piece {
  const { form } = layer.source;
  const [cx, cy] = [frame[4], frame[5]];
  const round = form.kind !== 'flat';
  if (!grid.drum) return NOTHING;
  const { radius } = grid.drum;
  // What goes all round is drawn once, whatever turns its layer comes by in.
  if (round && (cy < 0 || cy >= unrolled(radius))) return NOTHING;
  const { x } = layer.size;
  const y = round ? 2 * unrolled(radius) : layer.size.y;
  const window = windowOf(grid, cx - x / 2, cy - y / 2, cx + x / 2, cy + y / 2);
  const g = windowGrid(grid, window);
  const heights = makeField(g, AIR).data;
  const depth = turnedForm(form, { radius, x, rise: layer.rise });
  const way = layer.mirror ? -1 : 1;
  const carved = !fromBlank(form);
  for (let j = 0; j < g.height; j++) {
    const dy = g.originY + j * g.cell - cy;
    if (Math.abs(dy) > y / 2 + EDGE) continue;
    for (let i = 0; i < g.width; i++) {
      const dx = g.originX + i * g.cell - cx;
      if (Math.abs(dx) > x / 2 + EDGE) continue;
      // Where the ground is narrower a groove may be where it is not on the blank.
      heights[j * g.width + i] = depth(way * dx, dy) ?? (carved ? 0 : AIR);
    }
  }
  return { ...NOTHING, window, heights };
}

/** Grooves of all copies on the ground that they are carved into; forms that count from the blank do not ask for it. */
function onGround(l: LayerOf<'turned'>): ((drum: Drum) => OnGround) | null {
  const { form } = l.source;
  if (fromBlank(form)) return null;
  const middles = copiesOf(l.copies).map((c) => frameOf(l, c));
  const way = l.mirror ? -1 : 1;
  return ({ radius }) => {
    const depth = turnedForm(form, { radius, x: l.size.x, rise: l.rise });
    return (x, y, ground) => {
      let most: number | null = null;
      for (const [, , , , cx, cy] of middles) {
        if (Math.abs(x - cx) > l.size.x / 2 + EDGE) continue;
        const deep = depth(way * (x - cx), y - cy, Math.max(LEAST * radius, radius + ground));
        if (deep !== null && (most === null || deep > most)) most = deep;
      }
      return most;
    };
  };
}

/** Forms of turned work: tenons, contours, beads, flats, flutes and knurls, exact round a drum. */
export const turned: SourceKind<'turned'> = {
  kind: 'turned',
  name: 'turned form',
  described: 'turned form',
  alongAxis: true,
  files: () => [],
  contentKey: () => 'turned',
  passing: false,
  load: async () => ({}),
  facts: async () => NO_FACTS,
  outline: ({ size }) => outlinePolygon({ kind: 'rectangle' }, size.x, size.y),
  piece,
  onGround,
  scaleLengths: ({ source: { form } }, k) => {
    if (form.kind === 'flutes' && form.section.kind === 'ball') form.section.radius = clean(form.section.radius * k);
  },
};
