'use client';
import { Fragment, useState } from 'react';
import type { Summary } from '@/contract/wire';
import { cutterOf } from '@/core/doc/job';
import { isReserve, type Pass } from '@/core/doc/pass';
import { orderProblem } from '@/core/passes/order';
import type { Estimate } from '@/core/plan/estimate';
import type { SetupView } from '@/core/setup/view';
import { formatDuration } from '@/core/units/length';
import { CutterMark } from '../cards/cutter-fields';
import { cardOf } from '../cards/kind-registry';
import type { Act } from '../controls/act';
import { ActsMenu } from '../controls/acts-menu';

interface Props {
  job: SetupView;
  summary: Summary | null;
  /** The hours as they will come out, more or less, while they are not planned. */
  hours: Estimate | null;
  selected: string;
  onSelect(id: string): void;
  onMove(from: number, to: number): void;
  /** What can be done with a pass. */
  acts(pass: Pass): Act[];
}

/** Passes in the order they are cut; a block's length is its time. */
export function PassRibbon({ job, summary, hours, selected, onSelect, onMove, acts }: Props) {
  const [dragged, setDragged] = useState<number | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const move = (from: number, to: number) => {
    if (from === to || to < 0 || to >= job.passes.length) return;
    const order = job.passes.slice();
    order.splice(to, 0, ...order.splice(from, 1));
    const problem = orderProblem(order);
    setRefused(problem);
    if (!problem) onMove(from, to);
  };
  return (
    <div>
      <ol className="flex items-stretch gap-1 overflow-x-auto" aria-label="Passes in the order they are cut">
        {job.passes.map((p, i) => {
          const bit = cutterOf(job, p)?.name ?? `${p.cutter}, missing`;
          const guess = hours?.passes[p.id];
          const time = summary?.passes.find((s) => s.id === p.id)?.seconds ?? guess?.seconds;
          const said = time === undefined ? '' : `${guess?.about ? 'about ' : ''}${formatDuration(time)}`;
          const change = i > 0 && job.passes[i - 1].cutter !== p.cutter;
          const reserve = isReserve(p);
          return (
            <Fragment key={p.id}>
              {change && (
                <li className="soft flex w-6 shrink-0 items-center justify-center" title="change the bit">
                  <CutterMark shape={cutterOf(job, p)?.shape ?? 'endmill'} high={22} label="change the bit" />
                </li>
              )}
              <li className="min-w-32" style={{ flex: `${Math.max(time ?? 1, 1)} 1 8rem` }}>
                <ActsMenu
                  label={`What can be done with ${cardOf(p).label}`}
                  acts={() => acts(p)}
                  onOpen={() => onSelect(p.id)}
                >
                  <button
                    type="button"
                    draggable
                    aria-pressed={selected === p.id}
                    aria-label={`${cardOf(p).label} with ${bit}${said && `, ${said}`}${reserve ? ', in reserve' : ''}; Alt and an arrow key move it`}
                    onClick={() => onSelect(p.id)}
                    onDragStart={() => setDragged(i)}
                    onDragOver={(e) => e.preventDefault()}
                    onDrop={() => dragged !== null && move(dragged, i)}
                    onKeyDown={(e) => {
                      if (!e.altKey || (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight')) return;
                      e.preventDefault();
                      move(i, i + (e.key === 'ArrowLeft' ? -1 : 1));
                    }}
                    className={`h-full w-full cursor-pointer rounded-lg border px-3 py-2 text-left ${reserve ? 'border-dashed' : ''} ${
                      selected === p.id
                        ? 'border-2 border-primary bg-base-100'
                        : 'border-(--wood-line) bg-[color-mix(in_oklab,var(--wood)_30%,var(--color-base-100))]'
                    }`}
                  >
                    <span className="block text-sm font-semibold">
                      {cardOf(p).label}
                      {reserve && <span className="soft font-normal"> · in reserve</span>}
                    </span>
                    <span className="soft block text-[13px] leading-tight">
                      {bit}
                      {said && (
                        <>
                          {' '}
                          · <span className="whitespace-nowrap">{said}</span>
                        </>
                      )}
                    </span>
                  </button>
                </ActsMenu>
              </li>
            </Fragment>
          );
        })}
      </ol>
      {refused && (
        <p role="alert" className="mt-1 text-[13px] text-error">
          {refused}
        </p>
      )}
    </div>
  );
}
