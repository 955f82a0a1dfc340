'use client';
import type { PlanInfo } from '@/contract/plans';
import type { Cutter } from '@/core/cutter/cutter';
import { applyEdits } from '@/core/doc/edits';
import { cutterOf } from '@/core/doc/job';
import type { Pass } from '@/core/doc/pass';
import { PASS_KINDS } from '@/core/passes/registry';
import { variantsOf } from '@/core/plan/variants';
import { formatDuration } from '@/core/units/length';
import { Card, Sentence } from './card';
import type { CardProps } from './card-props';
import { cardOf } from './kind-registry';
import { addPass, removePass } from './pass-edit';

export interface PassCardProps extends CardProps {
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
export function FlatsOffer({
  job,
  change,
  saves,
  onSelect,
}: Pick<PassCardProps, 'job' | 'change' | 'onSelect'> & { saves: number }) {
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
  job,
  change,
  bits,
  onSelect,
}: Pick<PassCardProps, 'job' | 'change' | 'bits' | 'onSelect'> & { bit?: Cutter }) {
  // Round a drum not all of them work.
  const kinds = PASS_KINDS.filter((k) => (job.board.drum ? k.round : !k.roundOnly));
  return (
    <div className="grid grid-cols-2 gap-1.5 pt-1">
      {kinds.map((kind) => (
        <button
          key={kind.kind}
          type="button"
          title={kind.sentence}
          className="btn btn-sm px-1"
          onClick={() => {
            let made: string | null = null;
            change((j) => (made = addPass(j, kind.kind, bit, bits)));
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
export function AddAndRemove({ job, change, bits, pass, onSelect }: PassCardProps) {
  const index = job.passes.indexOf(pass);
  return (
    <>
      <p className="soft pt-1 text-sm">Add one more for</p>
      <KindButtons bit={cutterOf(job, pass)} {...{ job, change, bits, onSelect }} />
      <button
        type="button"
        className="btn btn-sm mt-2 w-full"
        onClick={() => {
          const next = job.passes[index === 0 ? 1 : index - 1];
          if (next) onSelect(next.id);
          change((j) => removePass(j, pass.id));
        }}
      >
        Remove this pass
      </button>
    </>
  );
}

/** A setup without a pass: what can be added. */
export function NoPassCard({
  job,
  change,
  bits,
  onSelect,
}: Omit<PassCardProps, 'pass' | 'plan' | 'fresh' | 'onSetup' | 'id'>) {
  return (
    <Card title="Passes" subtitle="nothing is cut in this setup yet">
      <Sentence>Add the first pass; its bit comes from the drawer.</Sentence>
      <KindButtons {...{ job, change, bits, onSelect }} />
    </Card>
  );
}
