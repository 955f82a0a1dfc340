import type { CloseLook } from './looks';

const W = 270;
const H = 64;

/** A small section through the layer's middle: what lies beneath, what it makes of it, and what shows in the end. */
export function SectionDrawing({ section }: { section: NonNullable<CloseLook['section']> }) {
  const { x0, x1, beneath, withIt, end } = section;
  const all = [beneath, withIt, end].flatMap((a) => [Math.min(...a), Math.max(...a)]);
  const low = Math.min(0, ...all);
  const high = Math.max(1, ...all);
  const span = Math.max(x1 - x0, 1e-6);
  // Heights are drawn true to scale until they would be too flat to read.
  const k = Math.max((H - 8) / (high - low) / 4, Math.min((H - 8) / (high - low), W / span));
  const px = (i: number) => (W * i) / Math.max(1, beneath.length - 1);
  const py = (v: number) => H - 4 - (v - low) * k;
  const path = (a: Float32Array) =>
    Array.from(a, (v, i) => `${i === 0 ? 'M' : 'L'}${px(i).toFixed(1)} ${py(v).toFixed(1)}`).join('');
  const area = `${path(end)}L${W} ${H}L0 ${H}Z`;
  return (
    <figure className="mb-2">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="w-full rounded-lg border border-base-300 bg-(--paper)"
        role="img"
        aria-label="Section through the middle of the layer"
      >
        <path d={area} fill="var(--wood-line)" fillOpacity={0.35} />
        <path d={path(end)} fill="none" stroke="var(--color-base-content)" strokeWidth={1.4} />
        <path
          d={path(beneath)}
          fill="none"
          stroke="var(--color-base-content)"
          strokeOpacity={0.5}
          strokeWidth={1}
          strokeDasharray="3 3"
        />
        <path d={path(withIt)} fill="none" stroke="var(--color-primary)" strokeWidth={1.4} />
      </svg>
      <figcaption className="soft text-[12.5px] leading-tight">
        through its middle · dashed: beneath it · blue: with it · solid: in the end
      </figcaption>
    </figure>
  );
}
