import { inSetup } from '../../doc/edits';
import { clean } from '../../units/round';
import type { Rule } from './rule';

/** A piece that is joined to its frame other than by its tabs. */
export const joined: Rule = {
  id: 'joined',
  cut({ view, cutouts }) {
    return cutouts.flatMap((c) => {
      if (!c.joined) return [];
      const pass = view.passes.find((p) => p.id === c.pass);
      const into = pass?.kind === 'cutout' ? clean(pass.into + 0.5) : 0.5;
      return [
        {
          rule: 'joined',
          severity: 'error' as const,
          subject: { setup: view.setup.id, pass: c.pass },
          place: c.joined,
          fixes: [
            {
              id: 'cut-deeper',
              figures: { into },
              edits: [{ set: inSetup(view, 'passes', { id: c.pass }, 'into'), to: into }],
            },
          ],
        },
      ];
    });
  },
};
