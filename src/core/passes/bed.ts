import { inSetup } from '../doc/edits';
import type { Found, Subject } from '../findings/finding';
import type { SetupView } from '../setup/view';

/** Thickness of a spoilboard that is laid under a board (common practice, no source), mm. */
export const SPOILBOARD = 12;

/** What stays of a spoilboard under the deepest cut into it, mm. */
export const UNDER_IT = 2;

/** Something that goes through the board, and through the spoilboard under it as well, or where there is none. */
export function bedFinding(
  view: SetupView,
  {
    subject,
    what,
    into,
    place,
  }: { subject: Subject; what: string; into: number; place: { x: number; y: number } | null },
): Found[] {
  const spoilboard = view.setup.spoilboard ?? 0;
  if (spoilboard > 0 && into < spoilboard) return [];
  const thickness = Math.max(SPOILBOARD, into + UNDER_IT);
  return [
    {
      rule: 'no-spoilboard',
      severity: 'error',
      subject,
      place,
      figures: { what, into, spoilboard },
      fixes: [
        {
          id: 'lay-spoilboard',
          figures: { thickness },
          edits: [{ set: inSetup(view, 'spoilboard'), to: thickness }],
        },
      ],
    },
  ];
}
