'use client';
import type { PlanInfo } from '@/contract/plans';
import type { Cutter } from '@/core/cutter/cutter';
import { setupsOf } from '@/core/doc/job';
import type { Finding, Fix } from '@/core/findings/finding';
import { textOf } from '@/core/findings/texts/text-of';
import { isThrough } from '@/core/passes/order';
import { withDrawer } from '@/core/plan/drawer';
import { type Bar, plainBar } from '@/core/proof/bar';
import type { TabFound } from '@/core/proof/connect';
import type { Opening } from '@/core/proof/web';
import type { SetupView } from '@/core/setup/view';
import { trimNumber } from '@/core/units/length';
import { sayLength, sayNumber } from '@/core/units/say';
import type { Act } from '../controls/act';
import { StudyFold } from '../study/study-fold';
import { Card, Figures, Sentence } from './card';
import { EyeLine } from './eye-line';
import { FindingList } from './finding-list';
import { GivenPrograms } from './given-programs';
import { ProgramFigures } from './program-figures';

const weakest = (tabs: TabFound[]) => tabs.reduce((a, b) => (b.section < a.section ? b : a));

/** Where the board is open, and whether it is meant to be. */
function Openings({ openings }: { openings: Opening[] }) {
  return openings.map((o) => (
    <p key={`${o.x} ${o.y}`} className={`text-sm ${o.wanted ? 'soft' : 'text-accent'}`}>
      {o.wanted ? 'Open on purpose' : 'Open'}: {trimNumber(o.area, 0)} mm² at {sayNumber(o.x, 0)}, {sayLength(o.y, 0)}{' '}
      of the face
    </p>
  ));
}

/** What is left of a drum, and where it bends first. */
function BarLine({ bar: { core, weakest: w } }: { bar: Bar }) {
  return (
    <p className="mt-2 text-sm leading-snug">
      Inside it lies a core <b>{sayLength(2 * core.radius, 1)}</b> across. It bends first at x {sayLength(w.x, 0)},
      where <b>{trimNumber(w.area, 0)} mm²</b> are left: as soon as a plain bar{' '}
      <b>{sayLength(plainBar(w.modulus), 1)}</b> across.
    </p>
  );
}

/** What was found in the job's other setups; a press goes there. */
function Elsewhere({ job, findings, onPick }: { job: SetupView; findings: Finding[]; onPick(f: Finding): void }) {
  if (findings.length === 0) return null;
  const names = new Map(setupsOf(job.document).map(({ setup }) => [setup.id, setup.name]));
  return (
    <>
      <h3 className="mt-4 mb-1 font-semibold">In other setups</h3>
      <ul className="space-y-1">
        {findings.map((f) => (
          <li key={f.id}>
            <button
              type="button"
              onClick={() => onPick(f)}
              className="w-full cursor-pointer rounded border border-base-300 bg-(--paper) px-3 py-1.5 text-left text-sm"
            >
              {names.get(f.subject.setup ?? '')},{' '}
              <b className={f.severity === 'error' ? 'text-accent' : ''}>{f.severity}</b>: {textOf(f).message}
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

interface ProofProps {
  id: string;
  plan: PlanInfo | null;
  fresh: boolean;
  /** What in the document stops planning. */
  stopping: Finding[];
  /** Seconds that the whole job takes; null while that is not known. */
  seconds: number | null;
  /** The setup that is shown. */
  job: SetupView;
  /** What else is in the drawer. */
  bits: Cutter[];
  bar: Bar | null;
  picked: Finding | null;
  onPick(f: Finding): void;
  onFix(f: Fix): void;
  /** What can be done with a finding. */
  acts(f: Finding): Act[];
}

/** What the cut, simulated from the written programs, shows. */
export function ProofCard(props: ProofProps) {
  const { id, plan, fresh, stopping, seconds, job, bits, bar, picked, onPick, onFix, acts } = props;
  const s = fresh ? plan?.summary : null;
  const listed = { id, revision: fresh ? (plan?.revision ?? '') : '', seconds, picked, onPick, onFix, acts };
  if (stopping.length > 0) {
    return (
      <Card title="Proof" subtitle="nothing is planned yet">
        <Sentence>
          <b className="text-accent">
            {stopping.length === 1 ? 'One thing stops' : `${stopping.length} things stop`} planning.
          </b>{' '}
          The job is kept as it is; mend {stopping.length === 1 ? 'it' : 'them'} and the board is cut.
        </Sentence>
        <FindingList {...listed} findings={stopping} />
      </Card>
    );
  }
  if (!s) {
    return (
      <Card title="Proof" subtitle="the written programs, read back and cut">
        <Sentence>
          {plan?.status === 'failed' ? plan.message : 'The board has not been cut yet with this plan.'}
        </Sentence>
      </Card>
    );
  }
  const through = isThrough(job.passes);
  const errors = [...s.findings, ...s.elsewhere].filter((f) => f.severity === 'error').length;
  return (
    <Card title="Proof" subtitle="the written programs, read back and cut">
      {plan?.older && (
        <p role="status" className="my-2 rounded border border-accent px-3 py-2 text-sm">
          Proven by an older version of this program. Prove it again before you cut it.
        </p>
      )}
      {plan?.again && !plan.older && (
        <p role="status" className="soft mb-2 text-sm">
          {plan.again === 'same'
            ? 'Proven again: the programs are the same as before.'
            : 'Proven again: the programs are not the same as before. Download them again.'}
        </p>
      )}
      <Sentence>
        {errors > 0 ? (
          <b className="text-accent">
            Do not cut this yet: {errors} {errors === 1 ? 'thing is' : 'things are'} wrong.
          </b>
        ) : (
          <>
            Cut from the programs as written: nothing too deep, no rapid in wood, <b>{sayLength(s.thinnest)}</b>{' '}
            {through ? 'left at the thinnest of piece and frame, beside what is cut through.' : 'left at the thinnest.'}
          </>
        )}
      </Sentence>
      <Figures
        items={[
          [sayLength(s.deepest), through ? 'deepest of the relief' : 'deepest cut'],
          [s.thinnest > 0 ? sayLength(s.thinnest) : 'open', through ? 'thinnest of what stays' : 'thinnest left'],
          [`${trimNumber(s.left.volume / 1000, 2)} cm³`, `left over, ${sayLength(s.left.deepest, 1)} at the highest`],
        ]}
      />
      <Openings openings={s.openings} />
      {bar && <BarLine bar={bar} />}
      <EyeLine {...s.eye} tooDeep={s.findings.some((f) => f.rule === 'gouge')} />
      <ProgramFigures programs={s.programs} holding={job.setup.holding} bits={job.cutters} />
      {s.cutouts.map((c) => (
        <p key={c.pass} className="mt-3 text-sm leading-snug">
          {c.joined ? (
            <b className="text-accent">After the cut-out the piece is still joined to its frame beside its tabs.</b>
          ) : c.tabs.length === 0 ? (
            'After the cut-out nothing joins the piece to its frame.'
          ) : (
            <>
              After the cut-out the piece hangs by {c.tabs.length === 1 ? 'one tab' : `${c.tabs.length} tabs`} and by
              nothing else; the weakest is <b>{sayLength(weakest(c.tabs).length, 1)}</b> long and{' '}
              <b>{sayLength(weakest(c.tabs).thickness, 1)}</b> thick,{' '}
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
      <FindingList {...listed} findings={withDrawer(s.findings, job, bits)} />
      <Elsewhere job={job} findings={s.elsewhere} onPick={onPick} />
      {plan && <StudyFold key={plan.id} job={job} plan={plan.id} />}
      <GivenPrograms id={id} picked={picked} onPick={onPick} />
    </Card>
  );
}
