import { sayLength } from '@/core/units/say';
import { HaloText } from '../board-view/halo-text';

/** A place in the strip: mm along the section from its start, and a height. */
export interface StripPlace {
  along: number;
  z: number;
}

/** Two places between which is measured. */
export interface Measured {
  from: StripPlace;
  to: StripPlace;
}

/** Between two places: along, up or down, and straight, mm. */
export function between({ from, to }: Measured) {
  const [along, up] = [Math.abs(to.along - from.along), to.z - from.z];
  return { along, up, straight: Math.hypot(along, up) };
}

export function sayMeasured(m: Measured): string {
  const { along, up, straight } = between(m);
  const rise = Math.abs(up) < 0.005 ? 'level' : `${sayLength(Math.abs(up))} ${up > 0 ? 'up' : 'down'}`;
  return `${sayLength(along)} along, ${rise}, ${sayLength(straight)} straight`;
}

/** A line between two places of the strip, with its lengths. */
export function MeasureLine({
  measured,
  at,
  py,
  width,
}: {
  measured: Measured;
  /** Pixel of mm along. */
  at(along: number): number;
  py(z: number): number;
  width: number;
}) {
  const { from, to } = measured;
  const [x1, y1, x2, y2] = [at(from.along), py(from.z), at(to.along), py(to.z)];
  const middle = Math.min(width - 130, Math.max(130, (x1 + x2) / 2));
  return (
    <g pointerEvents="none" data-testid="measure">
      <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="var(--color-accent)" strokeWidth={1.5} />
      {[
        [x1, y1],
        [x2, y2],
      ].map(([x, y], i) => (
        <circle key={String(i)} cx={x} cy={y} r={3} fill="var(--color-accent)" stroke="var(--color-base-100)" />
      ))}
      <HaloText x={middle} y={Math.min(y1, y2) - 8} textAnchor="middle" fontSize={12.5} fontWeight={600} rim={4}>
        {sayMeasured(measured)}
      </HaloText>
    </g>
  );
}
