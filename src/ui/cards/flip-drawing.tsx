import type { Flip } from '@/core/doc/parts';
import { FLIP_WORDS } from '@/core/setup/frame';

/** A small board that turns over about the axis that was chosen; it stands still for who wants no motion. */
export function FlipDrawing({ flip, x, y }: { flip: Flip; x: number; y: number }) {
  const scale = Math.min(96 / x, 56 / y);
  const [w, h] = [Math.max(14, x * scale), Math.max(10, y * scale)];
  const upright = flip === 'about-y';
  const side =
    'absolute inset-0 flex items-center justify-center rounded border border-(--wood-line) text-xs backface-hidden';
  return (
    <figure
      role="img"
      aria-label={`The board is turned over ${FLIP_WORDS[flip]}`}
      className="relative my-1 flex h-20 items-center justify-center rounded border border-base-300 bg-(--paper) perspective-midrange"
    >
      <span
        aria-hidden
        className={`absolute border-dashed border-base-content/60 ${upright ? 'inset-y-1 left-1/2 border-l' : 'inset-x-3 top-1/2 border-t'}`}
      />
      <span
        aria-hidden
        className={`relative transform-3d ${upright ? 'flip-about-y' : 'flip-about-x'}`}
        style={{ width: w, height: h }}
      >
        <span className={`${side} bg-(--wood)`}>face</span>
        <span
          className={`${side} bg-[color-mix(in_oklab,var(--wood)_60%,var(--wood-line))] ${upright ? 'rotate-y-180' : 'rotate-x-180'}`}
        >
          back
        </span>
      </span>
    </figure>
  );
}
