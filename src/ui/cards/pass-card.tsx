'use client';
import { type Cutter, stepoverBase } from '@/core/cutter/cutter';
import { cutterOf } from '@/core/doc/job';
import { spentOn } from '@/core/motion/time';
import { variantsOf } from '@/core/plan/variants';
import { formatDuration, formatLength, trimNumber } from '@/core/units/length';
import { Choice, Folded } from '../controls/fields';
import { BitFeed } from './bit-feed';
import { BitFold } from './bit-fold';
import { Card, Figures, Sentence } from './card';
import { CutterMark } from './cutter-fields';
import type { Edited } from './kind-card';
import { cardOf } from './kind-registry';
import { takeCutter } from './pass-edit';
import { AddAndRemove, FlatsOffer, type PassCardProps } from './pass-more';
import { PassProof } from './pass-proof';
import { InReserve, ReserveTick } from './reserve';
import { useWhatIf } from './use-what-if';

/** One pass: what it leaves, what it takes, and the few numbers that change it. */
export function PassCard(props: PassCardProps) {
  const { job, change, pass, plan, fresh, id } = props;
  const cutter = cutterOf(job, pass);
  const summary = fresh ? (plan?.summary ?? null) : null;
  const done = summary?.passes.find((p) => p.id === pass.id);
  const spent = spentOn(done ?? { spent: {} });
  const [variant] = variantsOf(job.document, job.setup.id);
  const otherwise = useWhatIf(id, summary ? (variant?.edits ?? null) : null, plan?.revision ?? '')?.seconds ?? null;
  const bits = [...props.bits.filter((c) => !job.cutters.some((d) => d.id === c.id)), ...job.cutters].sort(
    (a, b) => a.number - b.number,
  );
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
      subtitle={`${cutter.name} · ${formatLength(stepoverBase(cutter), 'mm', 3)} (${formatLength(stepoverBase(cutter), 'in')})`}
      mark={<CutterMark shape={cutter.shape} />}
    >
      <InReserve pass={pass} seconds={done?.seconds} />
      <Sentence>
        <Told job={job} pass={pass} cutter={cutter} done={done} summary={summary} otherwise={otherwise} />
      </Sentence>
      {summary && otherwise !== null && <FlatsOffer {...props} saves={summary.seconds - otherwise} />}
      {bit}
      <Fields {...edited} />
      <BitFeed cutter={cutter} onChange={(v) => ofBit((c) => (c.feed = v))} />
      {done && (
        <Figures
          items={[
            [formatDuration(done.seconds), 'this pass'],
            [formatDuration(done.naiveSeconds), 'length over feed'],
            [`${trimNumber(done.cutLength / 1000, 1)} m`, 'of cutting'],
            [formatDuration(spent.cutting), 'of it cutting'],
            [formatDuration(spent.entering), 'going into the wood'],
            [formatDuration(spent.between), 'between cuts'],
          ]}
        />
      )}
      {summary && <PassProof {...{ summary, cutter }} id={pass.id} />}
      <Folded title="More of this pass">
        {More && <More {...edited} />}
        <ReserveTick {...edited} />
        <AddAndRemove {...props} />
      </Folded>
      <BitFold cutter={cutter} material={job.board.material} onChange={ofBit} />
    </Card>
  );
}
