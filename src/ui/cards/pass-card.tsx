'use client';
import { chipLoad, stepoverBase } from '@/core/cutter/cutter';
import { cutterOf } from '@/core/plan/job';
import { placeFor } from '@/core/plan/order';
import type { Pass } from '@/core/plan/pass';
import { formatDuration, formatLength, trimNumber } from '@/core/units/length';
import { api, type PlanInfo } from '../api';
import { Choice, FeedField, Folded, LengthField } from '../controls/fields';
import { PASS_NAMES } from '../job/pass-ribbon';
import type { CardProps } from './board-card';
import { Card, Figures, Sentence } from './card';
import { CutterFields, CutterMark } from './cutter-fields';
import { addPass, takeCutter } from './pass-edit';
import { Ramp } from './pass-fields';
import { PassFields, PassSentence } from './pass-parts';

interface Props extends CardProps {
  pass: Pass;
  plan: PlanInfo | null;
  fresh: boolean;
  onSelect(id: string): void;
}

const ADD_NAMES: [Pass['kind'], string][] = [
  ['skim', 'Skim'],
  ['rough', 'Roughing'],
  ['flat', 'Flats'],
  ['finish', 'Finishing'],
  ['letter', 'Letters'],
  ['hole', 'Holes'],
  ['cutout', 'Cut-out'],
];
/** A saving of less is not worth a question, s. */
const WORTH = 60;

/** One pass: what it leaves, what it takes, and the few numbers that change it. */
export function PassCard({ job, change, library, pass, plan, fresh, onSelect }: Props) {
  const cutter = cutterOf(job, pass);
  const done = fresh ? plan?.summary?.passes.find((p) => p.id === pass.id) : undefined;
  const flats = fresh ? (plan?.summary?.flats ?? null) : null;
  const offered = flats?.offer && job.cutters.find((c) => c.id === flats.offer?.cutter);
  const takeOffer = () => {
    if (!flats?.offer) return;
    const { offer } = flats;
    change((j) => j.passes.splice(placeFor(j.passes, 'flat'), 0, structuredClone(offer)));
    onSelect(offer.id);
  };
  const edit = (f: (p: Pass) => void) => change((j) => f(j.passes.find((p) => p.id === pass.id)!));
  const drawer = library?.cutters ?? [];
  const bits = [...drawer.filter((c) => !job.cutters.some((d) => d.id === c.id)), ...job.cutters].sort(
    (a, b) => a.number - b.number,
  );
  const index = job.passes.indexOf(pass);
  return (
    <Card
      title={PASS_NAMES[pass.kind]}
      subtitle={`${cutter.name}${cutter.shape === 'v' ? `, ${trimNumber(cutter.diameter, 3)}` : ''} mm (${formatLength(stepoverBase(cutter), 'in')})`}
      mark={<CutterMark shape={cutter.shape} />}
    >
      <Sentence>
        <PassSentence
          job={job}
          pass={pass}
          cutter={cutter}
          done={done}
          summary={fresh ? (plan?.summary ?? null) : null}
        />
      </Sentence>
      {flats?.offer && flats.saves > WORTH && (
        <div className="mb-2 rounded-lg border border-primary px-3 py-2 text-sm leading-snug">
          There are level fields: cleared with {offered?.name} first, the whole takes{' '}
          <b>{formatDuration(flats.saves)}</b> less, and they come out without ridges.
          <button type="button" className="btn btn-sm mt-2 w-full" onClick={takeOffer}>
            Clear the flats
          </button>
        </div>
      )}
      <Choice
        label="Bit"
        value={pass.cutter}
        options={bits.map((c) => [c.id, `${c.number}  ${c.name}`] as const)}
        onChange={(id) =>
          change((j) => {
            const c = bits.find((b) => b.id === id);
            if (c) takeCutter(j, pass.id, c);
          })
        }
        note="named by diameter; a tapered ball by its tip"
      />
      <PassFields job={job} pass={pass} cutter={cutter} edit={edit} change={change} />
      <FeedField
        label="Feed"
        value={cutter.feed}
        onChange={(v) => change((j) => (cutterOf(j, pass).feed = v))}
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
        {(pass.kind === 'rough' || pass.kind === 'flat') && (
          <Ramp
            pass={pass}
            set={(v) => edit((p) => (p.kind === 'rough' || p.kind === 'flat') && (p.rampAngle = v))}
            note="into solid wood, never straight down"
          />
        )}
        {pass.kind === 'finish' && (
          <LengthField
            label="Tolerance"
            value={pass.tolerance}
            min={0.001}
            max={0.2}
            onChange={(v) => edit((p) => p.kind === 'finish' && (p.tolerance = v))}
            note="the path lies this much above the surface at most, never below"
          />
        )}
        <p className="soft pt-1 text-sm">Add one more for</p>
        <div className="grid grid-cols-2 gap-1.5 pt-1">
          {ADD_NAMES.map(([kind, name]) => (
            <button
              key={kind}
              type="button"
              className="btn btn-sm px-1"
              onClick={() => {
                let made: string | null = null;
                change((j) => (made = addPass(j, kind, cutter, drawer)));
                if (made) onSelect(made);
              }}
            >
              {name}
            </button>
          ))}
        </div>
        <button
          type="button"
          className="btn btn-sm mt-2 w-full"
          disabled={job.passes.length === 1}
          onClick={() => {
            onSelect(job.passes[index === 0 ? 1 : index - 1].id);
            change((j) => {
              j.passes.splice(index, 1);
              j.cutters = j.cutters.filter((c) => j.passes.some((q) => q.cutter === c.id));
            });
          }}
        >
          Remove this pass
        </button>
      </Folded>
      <Folded title={`Bit ${cutter.number}: ${cutter.name}`}>
        <CutterFields cutter={cutter} onChange={(f) => change((j) => f(cutterOf(j, pass)))} />
        <button type="button" className="btn btn-sm mt-1 w-full" onClick={() => void api.saveCutter(cutter)}>
          Keep in the drawer for other jobs
        </button>
      </Folded>
    </Card>
  );
}
