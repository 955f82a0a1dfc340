import type { Layer, LayerOf } from '../../../doc/layer';
import type { Words } from '../../../doc/words';
import { applyPoint, invertAffine, placing } from '../../../outline/polygon';
import { clean } from '../../../units/round';

type Point = { x: number; y: number };

/** From words' own frame (their layout, y up) to the board. */
const frameOf = (l: Pick<Layer, 'mirror' | 'turn' | 'centre'>) =>
  placing(l.mirror ? -1 : 1, 1, l.turn, l.centre.x, l.centre.y);

/** A point of the curve that words run on (y down, as SVG has it) on the board. @param origin of the curve in the words' frame */
export function curveToBoard(l: Layer, origin: Point, p: Point): Point {
  const [x, y] = applyPoint(frameOf(l), p.x + origin.x, origin.y - p.y);
  return { x, y };
}

/** A place of the board as a point of the curve that words run on. */
export function boardToCurve(l: Layer, origin: Point, p: Point): Point {
  const [u, v] = applyPoint(invertAffine(frameOf(l)), p.x, p.y);
  return { x: u - origin.x, y: origin.y - v };
}

/** Gives a layer words on a changed curve, which stays where it is on the board: what moves is the middle of the letters' box. */
export function bendWords(l: LayerOf<'words'>, words: Words, was: Point, now: { origin: Point; size: Point }): void {
  const from = applyPoint(frameOf(l), was.x, was.y);
  const to = applyPoint(frameOf(l), now.origin.x, now.origin.y);
  l.centre = { x: clean(l.centre.x + from[0] - to[0]), y: clean(l.centre.y + from[1] - to[1]) };
  l.size = { x: clean(now.size.x), y: clean(now.size.y) };
  l.source.words = words;
}
