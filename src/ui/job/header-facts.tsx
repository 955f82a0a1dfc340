import type { PlanInfo } from '@/contract/plans';
import type { SurfaceFacts } from '@/core/arrange/compose';
import { seatedDepth } from '@/core/arrange/ledger';
import { isReserve } from '@/core/doc/pass';
import { bitChanges, isThrough } from '@/core/passes/order';
import type { Estimate } from '@/core/plan/estimate';
import type { SetupView } from '@/core/setup/view';
import { formatDuration } from '@/core/units/length';
import { sayLength, saySize } from '@/core/units/say';

function Fact({ value, label, alarm }: { value: string; label: string; alarm?: boolean }) {
  return (
    <div className="flex flex-col-reverse">
      <dt className="soft text-[13px] leading-tight whitespace-nowrap">{label}</dt>
      <dd className={`font-semibold whitespace-nowrap ${alarm ? 'text-accent' : ''}`}>{value}</dd>
    </div>
  );
}

/** Wood that is left, mm, or that none is. */
const leftOf = (left: number) => (left > 0 ? sayLength(left, 1) : 'open');

/** How far the shown version is proven. */
function proofOf(plan: PlanInfo | null, s: PlanInfo['summary']): { value: string; label: string; alarm?: boolean } {
  if (!s) return { value: 'not proven', label: 'of this version' };
  if (plan?.older) return { value: 'older proof', label: 'prove it again', alarm: true };
  const serious = [...s.findings, ...s.elsewhere].filter((f) => f.severity !== 'note');
  if (serious.length === 0) return { value: 'proven', label: 'no warnings' };
  return {
    value: `${serious.length} ${serious.length === 1 ? 'finding' : 'findings'}`,
    label: serious.some((f) => f.severity === 'error') ? 'do not cut it yet' : 'look before you cut',
    alarm: true,
  };
}

/** What a carver checks before pressing start. */
export function HeaderFacts({
  job,
  plan,
  fresh,
  facts,
  hours,
}: {
  job: SetupView;
  plan: PlanInfo | null;
  fresh: boolean;
  facts: SurfaceFacts | null;
  /** The hours as they will come out, more or less, while they are not planned. */
  hours: Estimate | null;
}) {
  const s = fresh && plan?.status === 'done' ? plan.summary : null;
  const { board, seat } = job;
  const depth = seatedDepth(seat, facts ?? { peak: 0, low: 0 }) + seat.skin;
  // Before its layers are joined for the first time nothing is known of their depth.
  const known = s !== null || facts !== null || job.layers.length === 0;
  const cut = job.passes.filter((p) => !isReserve(p));
  const bits = new Set(cut.map((p) => p.cutter)).size;
  const changes = bitChanges(
    s ? s.programs.flatMap((p) => p.passes.flatMap((id) => cut.find((o) => o.id === id) ?? [])) : cut,
  );
  const through = s !== null && isThrough(job.passes);
  const proof = proofOf(plan, s);
  return (
    <>
      <dl className="flex gap-4 xl:gap-6">
        {board.drum ? (
          <Fact
            value={saySize([board.x, 2 * board.thickness])}
            label={`${board.material.name} drum, long and across`}
          />
        ) : (
          <Fact value={saySize([board.x, board.y, board.thickness])} label={`${board.material.name} board`} />
        )}
        <Fact
          value={through ? 'through' : known ? sayLength(s?.deepest ?? depth, 1) : '–'}
          label={through ? `relief ${sayLength(s.deepest, 1)} deep` : s ? 'deepest cut' : 'deepest, planned'}
        />
        <Fact
          value={known ? leftOf(s?.thinnest ?? board.thickness - depth) : '–'}
          label={s ? (through ? 'thinnest of what stays' : 'thinnest left') : 'left, planned'}
          alarm={(s?.thinnest ?? board.thickness - depth) < board.web - 0.01}
        />
        <Fact
          value={s ? formatDuration(s.seconds) : hours ? `about ${formatDuration(hours.seconds)}` : '–'}
          label={`${bits} ${bits === 1 ? 'bit' : 'bits'}, ${changes} ${changes === 1 ? 'change' : 'changes'}`}
        />
        <Fact {...proof} />
      </dl>
      <p className="sr-only" role="status">
        {proof.value}, {proof.label}
      </p>
    </>
  );
}
