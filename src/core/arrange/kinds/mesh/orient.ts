import type { LayerOf } from '../../../doc/layer';
import type { SourceInfo } from '../../../sources/inspect';
import { MM_PER_INCH } from '../../../units/length';
import { clean } from '../../../units/round';
import type { MeshSource } from './schema';

/** The quarter turns after one more about an axis. */
export function turnedOnce(turns: MeshSource['turns'], axis: 0 | 1 | 2): MeshSource['turns'] {
  const [x, y, z] = turns.map((t, a) => (a === axis ? (t + 1) % 4 : t));
  return [x, y, z];
}

/** Takes a model as its file is in another unit: its size follows. */
export function takeUnit(l: LayerOf<'mesh'>, unit: MeshSource['unit']): void {
  if (l.source.unit === unit) return;
  const k = unit === 'in' ? MM_PER_INCH : 1 / MM_PER_INCH;
  l.source.unit = unit;
  l.size = { x: clean(l.size.x * k), y: clean(l.size.y * k) };
}

/** Lays a model another way: its size follows at the same scale, and its base plane is the one proposed for it. */
export function layOtherwise(
  l: LayerOf<'mesh'>,
  { turns, flip }: Pick<MeshSource, 'turns' | 'flip'>,
  was: Pick<SourceInfo, 'size'>,
  now: Pick<SourceInfo, 'size' | 'base'>,
): void {
  const k = l.size.x / was.size.x;
  Object.assign(l.source, { turns, flip, base: now.base });
  l.size = { x: clean(now.size.x * k), y: clean(now.size.y * k) };
}
