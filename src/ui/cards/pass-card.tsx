'use client';
import { type Cutter, chipLoad, scallop, stepoverBase, tipRadius } from '@/core/cutter/cutter';
import { cutterOf, type FinishPass, type Job, type Pass, type RoughPass } from '@/core/plan/job';
import { stepdownFor } from '@/core/plan/propose';
import { resolveTrenches } from '@/core/plan/trenches';
import { formatDuration, formatLength, trimNumber } from '@/core/units/length';
import { api, type PlanInfo } from '../api';
import { Choice, FeedField, Folded, LengthField, NumberField } from '../controls/fields';
import { PASS_NAMES } from '../job/pass-ribbon';
import type { CardProps } from './board-card';
import { Card, Figures, Sentence } from './card';
import { CutterFields, CutterMark } from './cutter-fields';

interface Props extends CardProps {
  pass: Pass;
  plan: PlanInfo | null;
  fresh: boolean;
  onSelect(id: string): void;
}

/** Puts a bit of the drawer into a pass, with the stepover and stepdown that suit it. */
function takeCutter(job: Job, id: string, cutter: Cutter): void {
  if (!job.cutters.some((c) => c.id === cutter.id)) job.cutters.push(cutter);
  const p = job.passes.find((q) => q.id === id)!;
  p.cutter = cutter.id;
  p.stepover = Number(((p.kind === 'rough' ? 0.4 : 0.08) * stepoverBase(cutter)).toFixed(4));
  if (p.kind === 'rough') p.stepdown = stepdownFor(cutter, job.board.material);
  job.cutters = job.cutters.filter((c) => job.passes.some((q) => q.cutter === c.id));
}

function addPass(job: Job, kind: Pass['kind'], beside: Pass): string {
  const id = `${kind}-${Date.now().toString(36)}`;
  const last = job.passes.findLastIndex((p) => p.kind === kind);
  const model = job.passes[last];
  const pass: Pass = model
    ? { ...structuredClone(model), id }
    : kind === 'rough'
      ? {
          id,
          kind,
          cutter: beside.cutter,
          area: { kind: 'relief', trench: null },
          strategy: 'rings',
          angle: 0,
          stepover: beside.stepover,
          stepdown: 1,
          stockToLeave: 0.5,
          rampAngle: 4,
        }
      : {
          id,
          kind,
          cutter: beside.cutter,
          area: { kind: 'relief', trench: null },
          angle: 0,
          stepover: beside.stepover,
          tolerance: 0.01,
        };
  job.passes.splice(kind === 'rough' ? last + 1 : job.passes.length, 0, pass);
  return id;
}

/** One pass: what it leaves, what it takes, and the few numbers that change it. */
export function PassCard({ job, change, library, pass, plan, fresh, onSelect }: Props) {
  const cutter = cutterOf(job, pass);
  const done = fresh ? plan?.summary?.passes.find((p) => p.id === pass.id) : undefined;
  const edit = (f: (p: Pass) => void) => change((j) => f(j.passes.find((p) => p.id === pass.id)!));
  const drawer = library?.cutters ?? [];
  const bits = [...drawer.filter((c) => !job.cutters.some((d) => d.id === c.id)), ...job.cutters].sort(
    (a, b) => a.number - b.number,
  );
  const index = job.passes.indexOf(pass);
  const trench = resolveTrenches(job)[index];
  return (
    <Card
      title={PASS_NAMES[pass.kind]}
      subtitle={`${cutter.name} mm (${formatLength(stepoverBase(cutter), 'in')})`}
      mark={<CutterMark shape={cutter.shape} />}
    >
      <Sentence>
        {pass.kind === 'rough' ? (
          <RoughSentence pass={pass} seconds={done?.seconds} />
        ) : (
          <FinishSentence pass={pass} cutter={cutter} seconds={done?.seconds} />
        )}
      </Sentence>
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
      {pass.kind === 'rough' ? (
        <RoughFields pass={pass} cutter={cutter} edit={edit} />
      ) : (
        <FinishFields pass={pass} cutter={cutter} edit={edit} job={job} />
      )}
      <AreaFields job={job} pass={pass} trench={trench} edit={edit} />
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
        {pass.kind === 'rough' ? (
          <NumberField
            label="Ramp"
            value={pass.rampAngle}
            min={0}
            open
            max={45}
            suffix="degrees"
            onChange={(v) => edit((p) => p.kind === 'rough' && (p.rampAngle = v))}
            note="into solid wood, never straight down"
          />
        ) : (
          <LengthField
            label="Tolerance"
            value={pass.tolerance}
            min={0.001}
            max={0.2}
            onChange={(v) => edit((p) => p.kind === 'finish' && (p.tolerance = v))}
            note="the path lies this much above the surface at most, never below"
          />
        )}
        <div className="grid grid-cols-2 gap-2 pt-1">
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => change((j) => onSelect(addPass(j, 'rough', pass)))}
          >
            Add roughing
          </button>
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => change((j) => onSelect(addPass(j, 'finish', pass)))}
          >
            Add finishing
          </button>
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

function RoughSentence({ pass, seconds }: { pass: RoughPass; seconds?: number }) {
  return (
    <>
      Clears in levels of at most <b>{formatLength(pass.stepdown)}</b> and leaves{' '}
      <b>{formatLength(pass.stockToLeave)}</b> on all sides
      {seconds !== undefined && (
        <>
          , in <b>{formatDuration(seconds)}</b>
        </>
      )}
      .
    </>
  );
}

function FinishSentence({ pass, cutter, seconds }: { pass: FinishPass; cutter: Cutter; seconds?: number }) {
  const R = tipRadius(cutter);
  return (
    <>
      {R > 0 ? (
        <>
          Leaves ridges of <b>{formatLength(scallop(R, pass.stepover), 'mm', 4)}</b> on a flat
        </>
      ) : (
        <>A bit without a round tip leaves steps on slopes</>
      )}
      {seconds !== undefined && (
        <>
          , in <b>{formatDuration(seconds)}</b>
        </>
      )}
      .
    </>
  );
}

type Edit = (f: (p: Pass) => void) => void;

function RoughFields({ pass, cutter, edit }: { pass: RoughPass; cutter: Cutter; edit: Edit }) {
  const set = (f: (p: RoughPass) => void) => edit((p) => p.kind === 'rough' && f(p));
  return (
    <>
      <Choice
        label="Clears by"
        value={pass.strategy}
        options={[
          ['rings', 'rings, walls first'],
          ['raster', 'rows and one wall lap'],
        ]}
        onChange={(v) => set((p) => (p.strategy = v))}
      />
      <LengthField
        label="Stepdown"
        value={pass.stepdown}
        min={0.02}
        max={100}
        onChange={(v) => set((p) => (p.stepdown = v))}
        note={
          pass.stepdown > cutter.maxStepdown ? (
            <span className="text-accent">over this bit's {formatLength(cutter.maxStepdown)}</span>
          ) : undefined
        }
      />
      <LengthField
        label="Stepover"
        value={pass.stepover}
        min={0}
        open
        max={cutter.diameter / 2}
        onChange={(v) => set((p) => (p.stepover = v))}
        note={`${trimNumber((100 * pass.stepover) / stepoverBase(cutter), 1)} % of the diameter`}
      />
      <LengthField
        label="Stock to leave"
        value={pass.stockToLeave}
        min={0}
        max={20}
        onChange={(v) => set((p) => (p.stockToLeave = v))}
      />
      {pass.strategy === 'raster' && (
        <NumberField
          label="Direction"
          value={pass.angle}
          min={-360}
          max={360}
          suffix="degrees"
          onChange={(v) => set((p) => (p.angle = v))}
        />
      )}
    </>
  );
}

function FinishFields({ pass, cutter, edit, job }: { pass: FinishPass; cutter: Cutter; edit: Edit; job: Job }) {
  const set = (f: (p: FinishPass) => void) => edit((p) => p.kind === 'finish' && f(p));
  const R = tipRadius(cutter);
  const { grain } = job.board;
  const along = grain === 'none' ? null : Math.abs(((pass.angle % 180) + 180) % 180) === (grain === 'along-x' ? 0 : 90);
  return (
    <>
      <LengthField
        label="Stepover"
        value={pass.stepover}
        min={0}
        open
        max={cutter.diameter}
        onChange={(v) => set((p) => (p.stepover = v))}
        note={`${trimNumber((100 * pass.stepover) / stepoverBase(cutter), 1)} % of the ${cutter.shape === 'tapered-ball' ? 'tip' : 'diameter'}`}
      />
      {R > 0 && (
        <LengthField
          label="Ridge height"
          value={Number(scallop(R, pass.stepover).toFixed(5))}
          min={0}
          open
          max={R}
          onChange={(h) =>
            set((p) => (p.stepover = Number((2 * Math.sqrt(Math.max(0, 2 * R * h - h * h))).toFixed(4))))
          }
          note="sets the stepover"
        />
      )}
      <NumberField
        label="Direction"
        value={pass.angle}
        min={-360}
        max={360}
        suffix="degrees"
        onChange={(v) => set((p) => (p.angle = v))}
        note={along === null ? undefined : along ? 'with the grain' : 'across or against the grain'}
      />
    </>
  );
}

function AreaFields({ job, pass, trench, edit }: { job: Job; pass: Pass; trench: number; edit: Edit }) {
  const { area } = pass;
  return (
    <>
      <Choice
        label="Works on"
        value={area.kind}
        options={[
          ['relief', job.seat.mode === 'sunk' ? 'the relief' : 'relief and trench'],
          ['face', 'the whole face'],
          ['frame', 'a frame'],
        ]}
        onChange={(kind) =>
          edit((p) => {
            p.area =
              kind === 'relief'
                ? { kind, trench: null }
                : kind === 'face'
                  ? { kind }
                  : { kind, x0: 0, y0: 0, x1: job.board.x, y1: job.board.y };
          })
        }
      />
      {area.kind === 'relief' && job.seat.mode === 'raised' && (
        <LengthField
          label="Trench"
          value={Number(trench.toFixed(3))}
          min={0}
          max={200}
          onChange={(v) => edit((p) => (p.area = { kind: 'relief', trench: v }))}
          note={
            area.trench === null ? (
              'worked out from the bits'
            ) : (
              <button
                type="button"
                className="link"
                onClick={() => edit((p) => (p.area = { kind: 'relief', trench: null }))}
              >
                work it out from the bits
              </button>
            )
          }
        />
      )}
      {area.kind === 'frame' &&
        (['x0', 'y0', 'x1', 'y1'] as const).map((k) => (
          <LengthField
            key={k}
            label={`Frame, ${k[1] === '0' ? 'from' : 'to'} ${k[0]}`}
            value={area[k]}
            onChange={(v) => edit((p) => p.area.kind === 'frame' && (p.area[k] = v))}
          />
        ))}
    </>
  );
}
