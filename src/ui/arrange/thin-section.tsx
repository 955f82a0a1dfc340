import { AIR } from '@/core/field/height-field';
import type { ThinSection as Heights } from './looks';

const [W, H] = [200, 24];

/** The heights that all sections of the list share, so that each is seen at its true height among the others, mm. */
export function commonRange(all: Record<string, Heights>): { low: number; high: number } {
  let [low, high] = [0, 1];
  for (const heights of Object.values(all)) {
    for (const v of heights) {
      if (v === AIR) continue;
      if (v < low) low = v;
      if (v > high) high = v;
    }
  }
  return { low, high };
}

/** A layer by itself as a thin section over the board's length: what it stands on is the line, what it digs lies below it. */
export function ThinSection({
  heights,
  range: { low, high },
}: {
  heights: Heights;
  range: ReturnType<typeof commonRange>;
}) {
  const n = heights.length;
  const x = (k: number) => ((W * k) / (n - 1)).toFixed(1);
  const y = (v: number) => (1 + ((high - v) / (high - low)) * (H - 2)).toFixed(1);
  let [up, down] = ['', ''];
  for (let k = 0; k < n; k++) {
    if (heights[k] === AIR) continue;
    const from = k;
    while (k < n && heights[k] !== AIR) k++;
    const last = k - 1;
    let d = `M${x(from)} ${y(0)}`;
    let sum = 0;
    for (let i = from; i <= last; i++) {
      d += `L${x(i)} ${y(heights[i])}`;
      sum += heights[i];
    }
    d += `L${x(last)} ${y(0)}Z`;
    if (sum < 0) down += d;
    else up += d;
  }
  return (
    <svg viewBox={`0 0 ${W} ${H}`} preserveAspectRatio="none" className="block h-6 w-full" aria-hidden>
      <line x1={0} x2={W} y1={y(0)} y2={y(0)} stroke="var(--wood-line)" vectorEffect="non-scaling-stroke" />
      <path d={up} fill="var(--wood)" stroke="var(--color-base-content)" vectorEffect="non-scaling-stroke" />
      <path
        d={down}
        fill="none"
        stroke="var(--color-base-content)"
        strokeDasharray="3 2"
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
