import { hangsAt } from '@/core/passes/hang/plan';
import type { HangPass } from '@/core/passes/hang/schema';
import type { Layout } from '../board-view/layout';

/** The ways of hanging slots on the board, from where a screw's head goes in to where the piece hangs. */
export function SlotLines({ pass, layout }: { pass: HangPass; layout: Layout }) {
  const x = (v: number) => layout.left + v * layout.scale;
  const y = (v: number) => layout.bottom - v * layout.scale;
  return pass.places.map((p) => {
    const end = hangsAt(pass, p);
    return (
      <line
        key={`${p.x} ${p.y}`}
        x1={x(p.x)}
        y1={y(p.y)}
        x2={x(end.x)}
        y2={y(end.y)}
        stroke="var(--color-accent)"
        strokeWidth={2}
        strokeDasharray="7 4"
        pointerEvents="none"
      />
    );
  });
}
