import type { Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import type { LetterFacts } from '../plan';
import type { LetterPass } from '../schema';

/** Grooves that run over an edge of what lies beneath them. */
export function letterEdges(d: PassDone<LetterPass, LetterFacts>): Found[] {
  return d.facts.edges.map((e) => ({
    rule: 'groove-edge',
    severity: 'warning',
    subject: { ...aboutPass(d), layer: e.layer },
    place: { x: e.x, y: e.y },
    figures: { layer: d.view.layers.find((l) => l.id === e.layer)?.name ?? 'a groove', step: e.step },
  }));
}
