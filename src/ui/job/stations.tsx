import type { PlanInfo } from '@/contract/plans';
import type { SetupView } from '@/core/setup/view';
import { sayLength } from '@/core/units/say';
import { STATIONS, type Station } from '../editor/place';
import { FirstSteps } from './first-steps';

interface StationsProps {
  job: SetupView;
  plan: PlanInfo | null;
  fresh: boolean;
  /** How many things in the document stop planning. */
  stopping: number;
  current: Station;
  onGo(s: Station): void;
}

function stateOf({ job, plan, fresh, stopping }: StationsProps, station: Station): string {
  const s = fresh && plan?.status === 'done' ? plan.summary : null;
  const found = s ? s.findings.length + s.elsewhere.length : 0;
  switch (station) {
    case 'Board':
      return job.board.drum
        ? `${sayLength(2 * job.board.thickness, 1)} across`
        : `${sayLength(job.board.thickness, 1)} measured`;
    case 'Arrange':
      return job.layers.length === 0
        ? 'nothing yet'
        : `${job.layers.length} ${job.layers.length === 1 ? 'layer' : 'layers'}, ${job.seat.mode}`;
    case 'Passes':
      return `${job.passes.length} ${job.passes.length === 1 ? 'pass' : 'passes'}`;
    case 'Proof':
      if (stopping > 0) return `${stopping} ${stopping === 1 ? 'thing' : 'things'} to mend`;
      if (s && plan?.older) return 'prove again';
      if (s) return found === 0 ? 'cut, clean' : `cut, ${found} ${found === 1 ? 'finding' : 'findings'}`;
      return plan?.status === 'running' || plan?.status === 'queued' ? 'being cut' : 'not cut yet';
    case 'Run':
      return s ? `${s.programs.length} ${s.programs.length === 1 ? 'program' : 'programs'}` : 'waits for proof';
  }
}

/** The order of work, down a line of grain. */
export function Stations(props: StationsProps) {
  const { current, onGo } = props;
  return (
    <nav
      aria-label="Stations"
      className="relative isolate flex shrink-0 overflow-x-auto border-b border-base-300 bg-base-100 lg:w-[118px] lg:flex-col lg:gap-1 lg:border-r lg:border-b-0 lg:pt-4"
    >
      <svg
        width="24"
        height="430"
        viewBox="0 0 24 430"
        className="pointer-events-none absolute top-0 left-1.5 max-lg:hidden"
        aria-hidden
      >
        <path d="M13 0c-5 60 4 90 1 150s-6 80-1 140s5 80-1 140" fill="none" stroke="var(--wood-line)" strokeWidth="2" />
        <path
          d="M17 0c-4 60 3 95 1 150s-5 85-1 140s3 90-1 140"
          fill="none"
          stroke="var(--wood-line)"
          strokeWidth="0.8"
          opacity="0.7"
        />
      </svg>
      {STATIONS.map((s, i) => (
        <button
          key={s}
          type="button"
          aria-current={current === s ? 'step' : undefined}
          title={`${s} (${i + 1})`}
          onClick={() => onGo(s)}
          className={`min-h-11 min-w-fit flex-1 cursor-pointer px-2 py-1 text-center lg:ml-2 lg:min-h-16 lg:flex-none lg:rounded-l-lg lg:py-2 lg:pr-1 lg:pl-8 lg:text-left ${current === s ? 'border-b-2 border-primary bg-(--paper) lg:border lg:border-r-0 lg:border-base-300' : ''}`}
        >
          <span className="slab block text-[15px] leading-tight lg:text-[17px]">{s}</span>
          <span className="soft block text-[12.5px] leading-tight max-sm:hidden lg:text-[13px]">
            {stateOf(props, s)}
          </span>
        </button>
      ))}
      <FirstSteps
        className="max-lg:hidden"
        arranged={props.job.layers.length > 0}
        proven={props.fresh && props.plan?.status === 'done' && !props.plan.older}
        run={current === 'Run'}
      />
    </nav>
  );
}
