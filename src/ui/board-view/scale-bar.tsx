import { saidUnit, sayLength } from '@/core/units/say';
import { barLength } from './camera';
import { HaloText } from './halo-text';

/** Pixels that it may be long. */
const ROOM = 130;

/** A length of the board as long as it is shown, in the lower left corner of the view. */
export function ScaleBar({ scale, height }: { scale: number; height: number }) {
  const long = barLength(scale, saidUnit() === 'in' ? 25.4 : 1, ROOM);
  const [x, y] = [12, height - 10];
  return (
    <g pointerEvents="none" aria-hidden>
      <path
        d={`M${x} ${y - 5}v5h${long * scale}v-5`}
        fill="none"
        stroke="var(--color-base-100)"
        strokeWidth={4}
        strokeOpacity={0.8}
      />
      <path
        d={`M${x} ${y - 5}v5h${long * scale}v-5`}
        fill="none"
        stroke="var(--color-base-content)"
        strokeWidth={1.5}
      />
      <HaloText x={x + (long * scale) / 2} y={y - 4} textAnchor="middle" fontSize={12}>
        {sayLength(long, 3)}
      </HaloText>
    </g>
  );
}
