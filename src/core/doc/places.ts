import { clean } from '../units/round';
import type { Pass } from './pass';
import type { Setup } from './setup';

interface Place {
  x: number;
  y: number;
}

/** Where a pass's own places go: frames, holes, slots, tabs set by hand, and where a board was measured. */
export function mapPassPlaces(p: Pass, to: (at: Place) => Place): void {
  if ('area' in p && p.area.kind === 'frame') {
    const [a, b] = [to({ x: p.area.x0, y: p.area.y0 }), to({ x: p.area.x1, y: p.area.y1 })];
    Object.assign(p.area, { x0: clean(a.x), y0: clean(a.y), x1: clean(b.x), y1: clean(b.y) });
  }
  if ('places' in p) p.places = p.places.map((at) => cleaned(to(at)));
  if ('points' in p) p.points = p.points.map((at) => ({ ...at, ...cleaned(to(at)) }));
  if ('tabs' in p) p.tabs.at = p.tabs.at?.map((at) => cleaned(to(at))) ?? null;
  if ('along' in p) p.along = p.along.map((x) => clean(to({ x, y: 0 }).x));
}

const cleaned = ({ x, y }: Place): Place => ({ x: clean(x), y: clean(y) });

/** Moves everything that a setup has on its board by one distance, mm: layers, places of passes, what holds it, and its references. */
export function shiftSetup(s: Setup, dx: number, dy: number): void {
  const to = ({ x, y }: Place): Place => ({ x: clean(x + dx), y: clean(y + dy) });
  for (const l of s.layers) l.centre = to(l.centre);
  for (const p of s.passes) mapPassPlaces(p, to);
  for (const h of s.holding) h.outline = h.outline.map(to);
  const { cross, ticks, spots } = s.references;
  s.references = { cross: cross && to(cross), ticks: ticks.map(to), spots: spots.map(to) };
}
