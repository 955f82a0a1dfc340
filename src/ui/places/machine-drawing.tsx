import type { Machine } from '@/core/doc/machine';
import { sayLength } from '@/core/units/say';

/** Room of the drawing, in its own units. */
const [WIDE, HIGH, EDGE] = [300, 150, 22];

/** A machine's table from above, to scale, with a sheet of paper of 297 x 210 mm to compare. */
export function MachineDrawing({ machine }: { machine: Machine }) {
  const sheet = { x: 297, y: 210 };
  const scale = Math.min(
    (WIDE - 2 * EDGE) / Math.max(machine.x, sheet.x),
    (HIGH - 2 * EDGE) / Math.max(machine.y, sheet.y),
  );
  const box = ({ x, y }: { x: number; y: number }) => ({
    x: EDGE,
    y: HIGH - EDGE - y * scale,
    width: x * scale,
    height: y * scale,
  });
  return (
    <figure className="mb-3 rounded border border-base-300 bg-(--paper) p-2">
      <svg
        viewBox={`0 0 ${WIDE} ${HIGH}`}
        role="img"
        aria-label={`the table of ${machine.name}, to scale`}
        className="block w-full"
      >
        <rect {...box(machine)} fill="var(--hatch)" stroke="currentColor" />
        <rect {...box(sheet)} fill="none" stroke="currentColor" strokeDasharray="4 3" opacity="0.6" />
        <text x={EDGE} y={HIGH - 6} fontSize="12.5" fill="currentColor">
          {sayLength(machine.x)} × {sayLength(machine.y)}
        </text>
      </svg>
      <figcaption className="soft text-[13px] leading-snug">
        The table from above. Dashed, to compare: a sheet of paper of 297 × 210 mm.
      </figcaption>
    </figure>
  );
}
