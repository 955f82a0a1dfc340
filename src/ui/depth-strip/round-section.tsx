import type { SectionLine } from '@/ui/board-view/layout';
import type { Heights } from './section-solid';

/** How a drum lies in its drawing. */
interface Circle {
  /** Of the drum, mm. */
  radius: number;
  /** Pixels a mm. */
  scale: number;
  /** Its middle in the drawing, pixels. */
  middle: { x: number; y: number };
}

interface Props extends Circle {
  heights: Heights | null;
  section: SectionLine;
}

/** Where a place of the sheet lies in the drawing, at a distance from the axis, mm. */
const placeIn = ({ radius, scale, middle }: Circle, y: number, rho: number): string => {
  const a = y / radius;
  return `${(middle.x - rho * Math.sin(a) * scale).toFixed(1)} ${(middle.y + rho * Math.cos(a) * scale).toFixed(1)}`;
};

/** The ray through the place of the sheet that is pointed at. */
export function RayAt({ y, ...circle }: Circle & { y: number }) {
  const { radius, scale, middle } = circle;
  return (
    <path
      d={`M${middle.x} ${middle.y}L${placeIn(circle, y, radius + 3 / scale)}`}
      stroke="var(--color-primary)"
      strokeWidth={1.5}
    />
  );
}

/**
 * A section across a drum, as it is: seen from its right end, the middle of its sheet on top, y going to the right there. What is cut away is hatched, out
 * to the blank.
 */
export function RoundSection({ heights, section: { y0, y1 }, radius, scale, middle }: Props) {
  const place = (y: number, rho: number) => placeIn({ radius, scale, middle }, y, rho);
  const n = heights?.target.length ?? 0;
  const whole = Math.abs(y1 - y0) > 2 * Math.PI * radius - 0.5;
  const trace = (h: ArrayLike<number>) =>
    Array.from({ length: n }, (_, i) =>
      place(y0 + ((y1 - y0) * i) / Math.max(1, n - 1), radius + Math.max(-radius, h[i])),
    ).join('L');
  const closed = (h: ArrayLike<number>) => (whole ? `M${trace(h)}Z` : `M${middle.x} ${middle.y}L${trace(h)}Z`);
  const solid = heights && (heights.cut ?? heights.target);
  return (
    <g>
      <circle cx={middle.x} cy={middle.y} r={radius * scale} fill="url(#away)" stroke="var(--wood-line)" />
      {heights && solid && (
        <>
          <path d={closed(solid)} fill="var(--wood)" stroke="var(--color-base-content)" strokeWidth={1.5} />
          {heights.rough && (
            <path
              d={`M${trace(heights.rough)}`}
              fill="none"
              stroke="var(--soft)"
              strokeWidth={1.2}
              strokeDasharray="4 3"
            />
          )}
          {heights.cut && (
            <path d={`M${trace(heights.target)}`} fill="none" stroke="var(--color-primary)" strokeWidth={0.7} />
          )}
        </>
      )}
      <circle cx={middle.x} cy={middle.y} r={2} fill="var(--color-base-content)" />
    </g>
  );
}
