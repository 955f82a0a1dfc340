import { aroundOf } from '@/core/arrange/place';
import type { Bounds } from '@/core/outline/polygon';
import { sayLength } from '@/core/units/say';

/** Words over the board that stay readable on any ground. */
export function Label({
  x,
  y,
  text,
  anchor = 'middle',
}: {
  x: number;
  y: number;
  text: string;
  anchor?: 'start' | 'middle' | 'end';
}) {
  return (
    <text
      x={x}
      y={y}
      textAnchor={anchor}
      fontSize={12.5}
      fontWeight={600}
      fill="var(--color-base-content)"
      stroke="var(--color-base-100)"
      strokeWidth={4}
      paintOrder="stroke"
      pointerEvents="none"
    >
      {text}
    </text>
  );
}

/** How far it is from the layer to the edges of its field, or of the board, on all four sides. */
export function Margins({
  standing: s,
  field,
  board,
  px,
  py,
}: {
  standing: Bounds;
  field: Bounds | null;
  board: { x: number; y: number };
  px(x: number): number;
  py(y: number): number;
}) {
  const f = aroundOf(s, field, board);
  const [mx, my] = [(s.x0 + s.x1) / 2, (s.y0 + s.y1) / 2];
  const sides: [string, number, number, number, number, number][] = [
    ['left', s.x0 - f.x0, f.x0, my, s.x0, my],
    ['right', f.x1 - s.x1, s.x1, my, f.x1, my],
    ['near', s.y0 - f.y0, mx, f.y0, mx, s.y0],
    ['far', f.y1 - s.y1, mx, s.y1, mx, f.y1],
  ];
  return (
    <g pointerEvents="none" data-testid="margins">
      {sides
        .filter(([, d]) => d > 0.05)
        .map(([name, d, x0, y0, x1, y1]) => (
          <g key={name}>
            <line
              x1={px(x0)}
              y1={py(y0)}
              x2={px(x1)}
              y2={py(y1)}
              stroke="var(--color-primary)"
              strokeWidth={1}
              strokeDasharray="2 3"
            />
            {/* Beside an upright line, so that the knob that turns the layer stays free. */}
            <Label
              x={px((x0 + x1) / 2) + (x0 === x1 ? 12 : 0)}
              y={py((y0 + y1) / 2) + (x0 === x1 ? 4 : -5)}
              anchor={x0 === x1 ? 'start' : 'middle'}
              text={sayLength(d, 1)}
            />
          </g>
        ))}
    </g>
  );
}
