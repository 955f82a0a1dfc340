'use client';
import { type Cutter, chipLoad, stepoverBase } from '@/core/cutter/cutter';
import { applyEdits } from '@/core/doc/edits';
import { cutterOf } from '@/core/doc/job';
import type { Pass } from '@/core/doc/pass';
import { PASS_KINDS } from '@/core/passes/registry';
import { variantsOf } from '@/core/plan/variants';
import { formatDuration, formatLength, trimNumber } from '@/core/units/length';
import type { CardProps } from '@/ui/cards/card-props';
import { api, type PlanInfo } from '../api';
import { Choice, FeedField, Folded } from '../controls/fields';
import { Card, Figures, Sentence } from './card';
import { CutterFields, CutterMark } from './cutter-fields';
import type { Edited } from './kind-card';
import { cardOf } from './kind-registry';
import { addPass, takeCutter } from './pass-edit';
import { useWhatIf } from './use-what-if';

interface Props extends CardProps {
  id: string;
  pass: Pass;
  plan: PlanInfo | null;
  fresh: boolean;
  onSelect(id: string): void;
  onSetup(id: string): void;
}

/** A saving of less is not worth a question, s. */
const WORTH = 60;

/** The way to clear level fields that this setup does not have, where it saves time. */
function FlatsOffer({ job, change, saves, onSelect }: Pick<Props, 'job' | 'change' | 'onSelect'> & { saves: number }) {
  const offer = variantsOf(job.document, job.setup.id).find((v) => v.id === 'with-flats');
  const pass = offer?.edits.flatMap((e) => ('insert' in e ? [e.value as Pass] : [])).at(-1);
  if (!offer || !pass || saves <= WORTH) return null;
  return (
    <div className="mb-2 rounded-lg border border-primary px-3 py-2 text-sm leading-snug">
      There are level fields: cleared with {cutterOf(job, pass)?.name} first, the whole takes{' '}
      <b>{formatDuration(saves)}</b> less, and they come out without ridges.
      <button
        type="button"
        className="btn btn-sm mt-2 w-full"
        onClick={() => {
          change((j) => applyEdits(j.document, offer.edits));
          onSelect(pass.id);
        }}
      >
        Clear the flats
      </button>
    </div>
  );
}

/** Buttons that add a pass of each kind, with a bit that the job has where it suits. */
function KindButtons({
  bit,
  change,
  library,
  onSelect,
}: Pick<Props, 'change' | 'library' | 'onSelect'> & { bit?: Cutter }) {
  return (
    <div className="grid grid-cols-2 gap-1.5 pt-1">
      {PASS_KINDS.map((kind) => (
        <button
          key={kind.kind}
          type="button"
          title={kind.sentence}
          className="btn btn-sm px-1"
          onClick={() => {
            let made: string | null = null;
            change((j) => (made = addPass(j, kind.kind, bit, library?.cutters ?? [])));
            if (made) onSelect(made);
          }}
        >
          {cardOf(kind).label}
        </button>
      ))}
    </div>
  );
}

/** Buttons that add a pass of each kind, and the one that takes this pass away. */
function AddAndRemove({ job, change, library, pass, onSelect }: Props) {
  const index = job.passes.indexOf(pass);
  return (
    <>
      <p className="soft pt-1 text-sm">Add one more for</p>
      <KindButtons bit={cutterOf(job, pass)} {...{ change, library, onSelect }} />
      <button
        type="button"
        className="btn btn-sm mt-2 w-full"
        onClick={() => {
          const next = job.passes[index === 0 ? 1 : index - 1];
          if (next) onSelect(next.id);
          change((j) => {
            j.passes = j.passes.filter((p) => p.id !== pass.id);
            const used = new Set(
              j.document.boards.flatMap((b) => b.setups.flatMap((s) => s.passes.map((p) => p.cutter))),
            );
            if (used.size > 0) j.cutters = j.cutters.filter((c) => used.has(c.id));
          });
        }}
      >
        Remove this pass
      </button>
    </>
  );
}

/** One pass: what it leaves, what it takes, and the few numbers that change it. */
export function PassCard(props: Props) {
  const { job, change, library, pass, plan, fresh, id } = props;
  const cutter = cutterOf(job, pass);
  const summary = fresh ? (plan?.summary ?? null) : null;
  const done = summary?.passes.find((p) => p.id === pass.id);
  const [variant] = variantsOf(job.document, job.setup.id);
  const otherwise = useWhatIf(id, summary ? (variant?.edits ?? null) : null, plan?.revision ?? '')?.seconds ?? null;
  const bits = [
    ...(library?.cutters ?? []).filter((c) => !job.cutters.some((d) => d.id === c.id)),
    ...job.cutters,
  ].sort((a, b) => a.number - b.number);
  const { label, Sentence: Told, Fields, More } = cardOf(pass);
  const bit = (
    <Choice
      label="Bit"
      value={pass.cutter}
      options={[
        ...(cutter ? [] : [[pass.cutter, `${pass.cutter}, missing`] as const]),
        ...bits.map((c) => [c.id, `${c.number}  ${c.name}`] as const),
      ]}
      onChange={(to) =>
        change((j) => {
          const c = bits.find((b) => b.id === to);
          if (c) takeCutter(j, pass.id, c);
        })
      }
      note="named by diameter; a tapered ball by its tip"
    />
  );
  if (!cutter)
    return (
      <Card title={label} subtitle="its bit is missing">
        <Sentence>The bit of this pass is not among the job's bits.</Sentence>
        {bit}
        <AddAndRemove {...props} />
      </Card>
    );
  const edited: Edited = {
    job,
    pass,
    cutter,
    change,
    onSetup: props.onSetup,
    set: (f) =>
      change((j) => {
        const own = j.passes.find((p) => p.id === pass.id);
        if (own) f(own);
      }),
  };
  const ofBit = (f: (c: Cutter) => void) =>
    change((j) => {
      const own = cutterOf(j, pass);
      if (own) f(own);
    });
  return (
    <Card
      title={label}
      subtitle={`${cutter.name}${cutter.shape === 'v' ? `, ${trimNumber(cutter.diameter, 3)}` : ''} mm (${formatLength(stepoverBase(cutter), 'in')})`}
      mark={<CutterMark shape={cutter.shape} />}
    >
      <Sentence>
        <Told job={job} pass={pass} cutter={cutter} done={done} summary={summary} otherwise={otherwise} />
      </Sentence>
      {summary && otherwise !== null && <FlatsOffer {...props} saves={summary.seconds - otherwise} />}
      {bit}
      <Fields {...edited} />
      <FeedField
        label="Feed"
        value={cutter.feed}
        onChange={(v) => ofBit((c) => (c.feed = v))}
        note={`${trimNumber(chipLoad(cutter.feed, cutter.rpm, cutter.flutes), 3)} mm a tooth at ${cutter.rpm} rpm`}
      />
      {done && (
        <Figures
          items={[
            [formatDuration(done.seconds), 'this pass'],
            [formatDuration(done.naiveSeconds), 'length over feed'],
            [`${trimNumber(done.cutLength / 1000, 1)} m`, 'of cutting'],
          ]}
        />
      )}
      <Folded title="More of this pass">
        {More && <More {...edited} />}
        <AddAndRemove {...props} />
      </Folded>
      <Folded title={`Bit ${cutter.number}: ${cutter.name}`}>
        <CutterFields cutter={cutter} onChange={ofBit} />
        <button type="button" className="btn btn-sm mt-1 w-full" onClick={() => void api.saveCutter(cutter)}>
          Keep in the drawer for other jobs
        </button>
      </Folded>
    </Card>
  );
}

/** A setup without a pass: what can be added. */
export function NoPassCard({ change, library, onSelect }: Omit<Props, 'pass' | 'plan' | 'fresh' | 'onSetup' | 'id'>) {
  return (
    <Card title="Passes" subtitle="nothing is cut in this setup yet">
      <Sentence>Add the first pass; its bit comes from the drawer.</Sentence>
      <KindButtons {...{ change, library, onSelect }} />
    </Card>
  );
}
