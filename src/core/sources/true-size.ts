import { MM_PER_INCH } from '../units/length';
import type { SourceInfo } from './inspect';

/** Plan size and relief range that a file would have on a board, mm: a model's own, else as they were said; null where neither is known. */
export function trueSize(
  info: Pick<SourceInfo, 'kind' | 'unit' | 'size'>,
  said: { size: { x: number; y: number } | null; rise: number | null },
): { x: number; y: number; z: number } | null {
  if (info.kind === 'mesh') {
    const k = info.unit === 'in' ? MM_PER_INCH : 1;
    return { x: info.size.x * k, y: info.size.y * k, z: info.size.z * k };
  }
  return said.size ? { ...said.size, z: said.rise ?? 0 } : null;
}
