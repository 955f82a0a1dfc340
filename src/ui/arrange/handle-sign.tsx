import type { Handle } from './shape-handles';

/** Each handle has a shape of its own, on the drawing and beside its number. */
const PATHS: Record<Handle, string> = {
  rise: 'M0 -6A6 6 0 1 1 0 6A6 6 0 1 1 0 -6Z',
  lift: 'M-5.5 -5.5H5.5V5.5H-5.5Z',
  slope: 'M0 -7.5L7.5 0L0 7.5L-7.5 0Z',
  thin: 'M-7 5.5L0 -7L7 5.5Z',
};

export function HandleSign({ handle, x, y }: { handle: Handle; x: number; y: number }) {
  return (
    <path
      d={PATHS[handle]}
      transform={`translate(${x} ${y})`}
      fill="var(--color-base-100)"
      stroke="var(--color-primary)"
      strokeWidth={2}
      strokeLinejoin="round"
    />
  );
}

/** The shape of a handle beside its number. */
export function HandleMark({ handle }: { handle: Handle }) {
  return (
    <svg viewBox="-10 -10 20 20" width={15} height={15} aria-hidden className="inline shrink-0">
      <HandleSign handle={handle} x={0} y={0} />
    </svg>
  );
}
