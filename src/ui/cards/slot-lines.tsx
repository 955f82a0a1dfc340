import { hangsAt } from '@/core/passes/hang/plan';
import type { HangPass } from '@/core/passes/hang/schema';
import { type Layout, onScreen } from '../board-view/layout';

/** The ways of hanging slots on the board, from where a screw's head goes in to where the piece hangs. */
export function SlotLines({ pass, layout }: { pass: HangPass; layout: Layout }) {
  const { px, py } = onScreen(layout);
  return pass.places.map((p) => {
    const end = hangsAt(pass, p);
    return (
      <line
        key={`${p.x} ${p.y}`}
        x1={px(p.x)}
        y1={py(p.y)}
        x2={px(end.x)}
        y2={py(end.y)}
        stroke="var(--color-accent)"
        strokeWidth={2}
        strokeDasharray="7 4"
        pointerEvents="none"
      />
    );
  });
}
