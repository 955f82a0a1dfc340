import { inSetup } from '../doc/edits';
import type { Found, Subject } from '../findings/finding';
import type { SetupView } from '../setup/view';

/** Thickness of a spoilboard that is laid under a board (common practice, no source), mm. */
export const SPOILBOARD = 12;

/** Something that goes through the board where there is no spoilboard under it. */
export function bedFinding(
  view: SetupView,
  {
    subject,
    what,
    into,
    place,
  }: { subject: Subject; what: string; into: number; place: { x: number; y: number } | null },
): Found[] {
  if (view.setup.spoilboard !== null) return [];
  return [
    {
      rule: 'no-spoilboard',
      severity: 'error',
      subject,
      place,
      figures: { what, into },
      fixes: [
        {
          id: 'lay-spoilboard',
          figures: { thickness: SPOILBOARD },
          edits: [{ set: inSetup(view, 'spoilboard'), to: SPOILBOARD }],
        },
      ],
    },
  ];
}
