'use client';
import type { TabFound } from '@/core/proof/connect';
import type { Finding } from '@/core/proof/finding';
import { formatLength, trimNumber } from '@/core/units/length';
import type { PlanInfo } from '../api';
import { Card, Figures, Sentence } from './card';

const TONES = { error: 'border-l-accent', warning: 'border-l-warning', note: 'border-l-base-300' } as const;

const weakest = (tabs: TabFound[]) => tabs.reduce((a, b) => (b.section < a.section ? b : a));

/** What the cut, simulated from the written programs, shows. */
export function ProofCard({
  plan,
  fresh,
  picked,
  onPick,
}: {
  plan: PlanInfo | null;
  fresh: boolean;
  picked: Finding | null;
  onPick(f: Finding): void;
}) {
  const s = fresh ? plan?.summary : null;
  if (!s) {
    return (
      <Card title="Proof" subtitle="the written programs, read back and cut">
        <Sentence>
          {plan?.status === 'failed' ? plan.message : 'The board has not been cut yet with this plan.'}
        </Sentence>
      </Card>
    );
  }
  const errors = s.findings.filter((f) => f.severity === 'error').length;
  return (
    <Card title="Proof" subtitle="the written programs, read back and cut">
      <Sentence>
        {errors > 0 ? (
          <b className="text-accent">
            Do not cut this yet: {errors} {errors === 1 ? 'thing is' : 'things are'} wrong.
          </b>
        ) : (
          <>
            Cut from the programs as written: nothing too deep, no rapid in wood, <b>{formatLength(s.thinnest)}</b> left
            at the thinnest.
          </>
        )}
      </Sentence>
      <Figures
        items={[
          [formatLength(s.deepest), 'deepest cut'],
          [formatLength(s.thinnest), 'thinnest left'],
          [`${trimNumber(s.leftShare * 100, 1)} %`, 'stands over 0.1 mm high'],
        ]}
      />
      {s.cutouts.map((c) => (
        <p key={c.pass} className="mt-3 text-sm leading-snug">
          {c.joined ? (
            <b className="text-accent">After the cut-out the piece is still joined to its frame beside its tabs.</b>
          ) : c.tabs.length === 0 ? (
            'After the cut-out nothing joins the piece to its frame.'
          ) : (
            <>
              After the cut-out the piece hangs by {c.tabs.length === 1 ? 'one tab' : `${c.tabs.length} tabs`} and by
              nothing else; the weakest is <b>{formatLength(weakest(c.tabs).length, 'mm', 1)}</b> long and{' '}
              <b>{formatLength(weakest(c.tabs).thickness, 'mm', 1)}</b> thick,{' '}
              <b>{trimNumber(weakest(c.tabs).section, 0)} mm²</b>.
            </>
          )}
        </p>
      ))}
      <h3 className="mt-4 mb-1 font-semibold">
        {s.findings.length === 0
          ? 'No findings'
          : `${s.findings.length} ${s.findings.length === 1 ? 'finding' : 'findings'}`}
      </h3>
      <ul className="space-y-2">
        {s.findings.map((f) => (
          <li key={`${f.rule}${f.message}`}>
            <button
              type="button"
              onClick={() => onPick(f)}
              aria-pressed={picked === f}
              className={`w-full cursor-pointer rounded border border-l-4 border-base-300 ${TONES[f.severity]} px-3 py-2 text-left text-sm ${picked === f ? 'bg-base-200' : 'bg-(--paper)'}`}
            >
              <span className="block">
                <b className={f.severity === 'error' ? 'text-accent' : ''}>{f.severity}</b>: {f.message}
              </span>
              <span className="soft block">{f.remedy}</span>
              <span className="soft block text-[12.5px]">
                at x {f.x.toFixed(1)}, y {f.y.toFixed(1)} mm from the near left corner
              </span>
            </button>
          </li>
        ))}
      </ul>
    </Card>
  );
}
