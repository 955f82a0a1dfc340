import type { Cutter } from '@/core/cutter/cutter';
import type { Library } from '@/core/doc/library';
import type { SetupView } from '@/core/setup/view';

/** What every card of a job is given: the setup that is shown, how it is changed, and what the shop holds. */
export interface CardProps {
  job: SetupView;
  change(edit: (job: SetupView) => void): void;
  library: Library | undefined;
  /** The drawer's bits, run as the drawer has it for this board's material. */
  bits: Cutter[];
}
