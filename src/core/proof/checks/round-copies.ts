import { inSetup } from '../../doc/edits';
import type { Layer } from '../../doc/layer';
import type { Fix, Found } from '../../findings/finding';
import { clean } from '../../units/round';
import type { BeforeCut, Rule } from './rule';

/** Rows of copies that close a turn but for less than this, mm, meet at the seam. */
const MEETS = 0.01;
/** Rows whose gap or overlap is at least so large a share of their own step are not meant to go all round. */
const MEANT = 0.5;

/** Copies of a layer that follow each other around a drum: how many, how far apart, mm, and which of its figures says so; null where they run askew. */
function around({ copies, turn }: Layer): { count: number; step: number; field: 'dx' | 'dy' } | null {
  if (copies.kind !== 'rows' || turn % 90 !== 0) return null;
  // Copies stand in the layer's own directions.
  return turn % 180 === 0
    ? { count: copies.rows, step: copies.dy, field: 'dy' }
    : { count: copies.columns, step: copies.dx, field: 'dx' };
}

/** The step that lets so many copies close a turn, for the layer, with as many copies as asked. */
function spaced({ view }: BeforeCut, l: Layer, count: number, field: 'dx' | 'dy', id: string): Fix {
  const own = field === 'dy' ? 'rows' : 'columns';
  const sign = l.copies.kind === 'rows' && l.copies[field] < 0 ? -1 : 1;
  const step = clean(view.board.y / count);
  const at = inSetup(view, 'layers', { id: l.id }, 'copies');
  return {
    id,
    figures: { layer: l.name, count, step },
    edits: [
      { set: [...at, own], to: count },
      { set: [...at, field], to: sign * step },
    ],
  };
}

/** The size at which so many copies close a turn, as far apart for their size as they are; for the layer the same height. */
function sized(at: BeforeCut, l: Layer, count: number, step: number, field: 'dx' | 'dy'): Fix {
  const spacing = spaced(at, l, count, field, 'copies-size');
  const axis = field === 'dy' ? 'y' : 'x';
  const size = clean((l.size[axis] * Number(spacing.figures.step)) / step);
  const edit = { set: inSetup(at.view, 'layers', { id: l.id }, 'size', axis), to: size };
  return { ...spacing, figures: { ...spacing.figures, size }, edits: [edit, ...spacing.edits] };
}

/** Copies that go nearly all round a drum and do not close: a gap, or an overlap, where the last meets the first. */
export const roundCopies: Rule = {
  id: 'round-copies',
  before(at) {
    const { board, layers, setup } = at.view;
    if (!board.drum) return [];
    return layers.flatMap((l): Found[] => {
      const row = l.hidden ? null : around(l);
      if (!row || row.count < 2) return [];
      const step = Math.abs(row.step);
      const gap = board.y - row.count * step;
      if (Math.abs(gap) <= MEETS || Math.abs(gap) >= MEANT * step) return [];
      return [
        {
          rule: 'round-copies',
          severity: 'warning',
          subject: { setup: setup.id, layer: l.id },
          place: { x: l.centre.x, y: 0 },
          figures: { layer: l.name, count: row.count, step, gap, round: board.y },
          fixes: [spaced(at, l, row.count, row.field, 'copies-round'), sized(at, l, row.count, step, row.field)],
        },
      ];
    });
  },
};
