import { MM_PER_INCH } from '@/core/units/length';
import { saidUnit, sayNumber } from '@/core/units/say';
import { HaloText } from '../board-view/halo-text';
import { heightMarks } from './strip-place';

/** Pixels between two marks. */
const APART = 24;

/** Heights beside the strip, in the shown unit. */
export function HeightScale({
  top,
  low,
  v,
  py,
  right,
}: {
  top: number;
  low: number;
  /** Pixels a mm of height. */
  v: number;
  py(z: number): number;
  right: number;
}) {
  const unit = saidUnit() === 'in' ? MM_PER_INCH : 1;
  return (
    <g aria-hidden pointerEvents="none">
      {heightMarks(top, low, v, unit, APART).map((z) => (
        <g key={z}>
          <line x1={right - 5} x2={right} y1={py(z)} y2={py(z)} stroke="var(--color-base-content)" />
          <HaloText x={right - 8} y={py(z) + 4} textAnchor="end" fontSize={11.5}>
            {sayNumber(z)}
          </HaloText>
        </g>
      ))}
    </g>
  );
}
