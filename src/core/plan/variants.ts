import { inSetup } from '../doc/edits';
import type { Job } from '../doc/job';
import type { Edit } from '../findings/edit';
import { addPass } from '../passes/add-pass';
import { kindOf } from '../passes/registry';
import { type SetupView, setupView } from '../setup/view';

/** Another way to do a job: a labelled change of its document, planned when somebody looks at it or the machine is idle. */
export interface Variant {
  id: string;
  edits: Edit[];
}

/** Whether level fields are cleared by a bit with a flat bottom or left to the ball: the other way of what a setup does. */
function flatsOtherwise(view: SetupView): Variant | null {
  const { passes, board } = view;
  // Round a drum nothing is level.
  if (board.drum) return null;
  const flats = passes.filter((p) => p.kind === 'flat');
  if (flats.length > 0)
    return {
      id: 'without-flats',
      edits: flats.map((p) => ({ remove: inSetup(view, 'passes', { id: p.id }) })),
    };
  const rough = passes.find((p) => p.kind === 'rough');
  const bit = rough && view.cutters.find((c) => c.id === rough.cutter);
  if (!bit || kindOf('flat').unsuited(bit) !== null || !passes.some((p) => p.kind === 'finish')) return null;
  return { id: 'with-flats', edits: addPass(view, 'flat', bit) };
}

/** The variants of a setup that are worth a look. */
export function variantsOf(job: Job, setup: string): Variant[] {
  const v = flatsOtherwise(setupView(job, setup));
  return v ? [v] : [];
}
