import type { Cutter } from '@/core/cutter/cutter';
import { type Side, sideView } from '@/core/cutter/side-view';
import { sayLength } from '@/core/units/say';

/** Room of the drawing, in its own units. */
const [WIDE, HIGH, EDGE] = [260, 260, 14];
/** Room for what is written beside it. */
const WRITTEN = 92;

/** Both sides of an outline as a path, about the axis. */
function pathOf(side: Side, x: (r: number) => number, y: (z: number) => number): string {
  const right = side.map(([r, z]) => `${x(r).toFixed(2)} ${y(z).toFixed(2)}`);
  const left = side.map(([r, z]) => `${x(-r).toFixed(2)} ${y(z).toFixed(2)}`).reverse();
  return `M${right.join('L')}L${left.join('L')}Z`;
}

/** A bit from the side, to scale, with how deep it reaches beside a wall. */
export function BitDrawing({ cutter }: { cutter: Cutter }) {
  const view = sideView(cutter);
  const top = view.holder[1][1];
  const half = Math.max(cutter.holderDiameter, cutter.shankDiameter, cutter.diameter) / 2;
  const scale = Math.min((WIDE - 2 * EDGE - WRITTEN) / (2 * half), (HIGH - 2 * EDGE) / top);
  const middle = EDGE + half * scale;
  const x = (r: number) => middle + r * scale;
  const y = (z: number) => HIGH - EDGE - z * scale;
  const marks: [number, string][] = [
    [0, 'tip'],
    [view.shank[0][1], `flutes ${sayLength(cutter.fluteLength)}`],
    [view.holder[0][1], `sticks out ${sayLength(cutter.stickOut)}`],
  ];
  const free = cutter.shankDiameter < cutter.diameter ? cutter.stickOut : cutter.fluteLength;
  return (
    <figure className="mb-3 self-start rounded border border-base-300 bg-(--paper) p-2">
      <svg
        viewBox={`0 0 ${WIDE} ${HIGH}`}
        role="img"
        aria-label={`${cutter.name} from the side, to scale`}
        className="mx-auto block h-64 w-full"
      >
        <path d={pathOf(view.holder, x, y)} fill="var(--color-base-300)" stroke="currentColor" strokeWidth="1" />
        <path d={pathOf(view.shank, x, y)} fill="var(--color-base-200)" stroke="currentColor" strokeWidth="1" />
        <path d={pathOf(view.cutting, x, y)} fill="var(--hatch)" stroke="currentColor" strokeWidth="1.4" />
        <line
          x1={middle}
          x2={middle}
          y1={EDGE / 2}
          y2={HIGH - EDGE / 2}
          stroke="currentColor"
          strokeDasharray="6 3 1 3"
          opacity="0.5"
        />
        {marks.map(([z, text]) => (
          <g key={text}>
            <line
              x1={middle + half * scale + 4}
              x2={WIDE - WRITTEN}
              y1={y(z)}
              y2={y(z)}
              stroke="currentColor"
              opacity="0.6"
            />
            <text x={WIDE - WRITTEN + 3} y={y(z) + 3.5} fontSize="12.5" fill="currentColor">
              {text}
            </text>
          </g>
        ))}
      </svg>
      <figcaption className="soft text-[13px] leading-snug">
        Cuts {sayLength(cutter.diameter, 3)} wide. Beside an upright wall it reaches {sayLength(free)} deep,
        {cutter.shankDiameter < cutter.diameter
          ? ' where its holder comes to the board.'
          : ' where its shank comes to the wall.'}
      </figcaption>
    </figure>
  );
}
