import { isGroove, veesOf } from '../../arrange/grooves';
import { inSetup } from '../../doc/edits';
import { plannedCutter } from '../../doc/job';
import type { Layer } from '../../doc/layer';
import type { Fix } from '../../findings/finding';
import { addPass } from '../../passes/add-pass';
import { cutsGroove } from '../../passes/letter/plan';
import type { SetupView } from '../../setup/view';
import type { Rule } from './rule';

/** A pass with a V bit of the groove's angle, or the groove shaped for the V bit that there is. */
function fixes(view: SetupView, layer: Layer, angle: number): Fix[] {
  const bit = view.cutters.find((c) => cutsGroove(c, { angle }));
  if (bit) return [{ id: 'add-letters', figures: { bit: bit.name }, edits: addPass(view, 'letter', bit) }];
  const other = view.passes.map((p) => plannedCutter(view, p)).find((c) => c.shape === 'v');
  if (!other) return [];
  return [
    {
      id: 'shape-for-bit',
      figures: { bit: other.name, angle: other.includedAngle },
      edits: [{ set: inSetup(view, 'layers', { id: layer.id }, 'source', 'relief', 'angle'), to: other.includedAngle }],
    },
  ];
}

/** A groove that no pass cuts. */
export const grooveUncut: Rule = {
  id: 'groove-uncut',
  before: ({ view }) =>
    veesOf(view.layers)
      .filter(({ layer, angle }) => {
        const cut = view.passes.some((p) => p.kind === 'letter' && cutsGroove(plannedCutter(view, p), { angle }));
        return isGroove(layer) && !cut;
      })
      .map(({ layer, angle }) => ({
        rule: 'groove-uncut',
        severity: 'warning',
        subject: { setup: view.setup.id, layer: layer.id },
        place: layer.centre,
        figures: { layer: layer.name, angle },
        fixes: fixes(view, layer, angle),
      })),
};
