'use client';
import type { SurfaceFacts } from '@/core/arrange/compose';
import { ledgerOf, seatedDepth } from '@/core/arrange/ledger';
import type { SetupView } from '@/core/setup/view';
import { trimNumber } from '@/core/units/length';
import { saidUnit, sayLength, sayNumber } from '@/core/units/say';

const told = (v: number) => sayNumber(v);

/** The board's thickness as a sum: skin above, the layers' depth, backing below. */
export function LedgerBar({ job, facts }: { job: SetupView; facts: SurfaceFacts | null }) {
  if (!facts) return null;
  const l = ledgerOf(job.layers, job.seat, job.board.thickness, facts);
  const over = l.backing < 0;
  const share = (v: number) => `${Math.max(0, (100 * v) / Math.max(l.thickness, l.depth + l.skin))}%`;
  const sunk = job.seat.mode === 'sunk';
  return (
    <section className="border-b border-base-300 px-4 py-2" aria-label="Depth budget" data-testid="ledger">
      <div className="flex h-3 overflow-hidden rounded-full border border-base-300" aria-hidden>
        <span style={{ width: share(l.skin) }} className="bg-base-300" />
        <span style={{ width: share(l.depth) }} className={over ? 'bg-accent' : 'bg-(--wood-line)'} />
        <span
          style={{ width: share(l.backing) }}
          className="bg-[color-mix(in_oklab,var(--wood-line)_35%,transparent)]"
        />
      </div>
      <p className="mt-1 text-[13px] leading-tight">
        <span className="soft">skin</span> <b>{told(l.skin)}</b> +{' '}
        <span className="soft">{sunk ? 'deepest' : 'highest'}</span> <b>{told(l.depth)}</b> +{' '}
        <span className="soft">backing</span> <b className={over ? 'text-accent' : ''}>{told(l.backing)}</b> ={' '}
        {sayLength(l.thickness)}
      </p>
      <p className={`text-[13px] leading-tight ${over ? 'text-accent' : 'soft'}`}>
        {over
          ? `${sayLength(-l.backing)} more than the board has`
          : `${trimNumber(100 * l.used, 0)} % of the board's depth used`}
        {facts.clipped.area > 0 && (
          <span className="text-accent">
            , up to {sayLength(facts.clipped.most)} {sunk ? 'over the top' : 'below the base'} is clipped
          </span>
        )}
      </p>
    </section>
  );
}

/** What each layer adds: its lift and rise, and where its own top would lie. */
export function LedgerLines({ job, facts }: { job: SetupView; facts: SurfaceFacts | null }) {
  if (!facts || job.layers.length === 0) return null;
  const sunk = job.seat.mode === 'sunk';
  const at = sunk ? facts.lowAt : facts.peakAt;
  const { lines } = ledgerOf(job.layers, job.seat, job.board.thickness, facts);
  return (
    <table className="mt-1 w-full text-[13px]">
      <thead className="soft text-left">
        <tr>
          <th className="font-normal">layer, in {saidUnit()}</th>
          <th className="pl-3 text-right font-normal">lift</th>
          <th className="pl-3 text-right font-normal">rise</th>
          <th className="pl-3 text-right font-normal" title="lift and rise together; carved ones go down">
            lift + rise
          </th>
        </tr>
      </thead>
      <tbody>
        {lines
          .slice()
          .reverse()
          .map((e) => (
            <tr key={e.id}>
              <td className="max-w-28 truncate">{e.name}</td>
              <td className="text-right">{told(e.lift)}</td>
              <td className="text-right">{told(e.rise)}</td>
              <td className="text-right">{told(e.top)}</td>
            </tr>
          ))}
      </tbody>
      <tfoot className="border-t border-base-300 font-semibold">
        <tr>
          <td colSpan={3}>
            {sunk ? 'deepest' : 'highest'}, joined, at {sayNumber(at.x, 0)}, {sayLength(at.y, 0)}
          </td>
          <td className="text-right">{told(seatedDepth(job.seat, facts))}</td>
        </tr>
      </tfoot>
    </table>
  );
}
