import type { Cutter } from '../cutter/cutter';
import { DRAWER } from '../doc/defaults';
import type { Job } from '../doc/job';
import type { PassKindName, PassOf } from '../doc/pass';
import { textOf } from '../findings/texts/text-of';
import { localHost } from '../kernels/host';
import { kindOf } from '../passes/registry';
import { type SetupView, setupView } from '../setup/view';
import type { LoadContent } from './compose-job';
import { planJob } from './pipeline';
import { problems } from './problems';
import { type PlainJob, plainJob } from './propose';
import { type Plan, type SetupSurfaces, summaryOf } from './summary';

/** The only setup of a plain job, through which the job is changed. */
export const plainSetup = (p: PlainJob): SetupView => setupView(plainJob(structuredClone(p)));

/** Nothing is read of layers made of shapes. */
export const shapesOnly: LoadContent = async () => ({ content: {}, facts: { depth: 0, step: 0, missing: [] } });

/** Plans a job made of shapes alone in this thread, with nothing stored. */
export function planWhole(job: Job, load = shapesOnly): Promise<Plan> {
  let n = 0;
  return planJob(job, load, {
    host: localHost,
    progress() {},
    stage: async (name, _, run) => ({ key: `${name}${n++}`, result: await run() }),
  });
}

/** A plan as one setup of it sees it: its surfaces, and its own part of the summary. */
export interface SetupPlan extends SetupSurfaces {
  summary: NonNullable<ReturnType<typeof summaryOf<Plan['summary']['programs'][number]>>>;
}

/** The part of a plan that a setup sees, by the setup's place in the order of work. */
export function setupPlan(plan: Plan, index = 0): SetupPlan {
  return { ...plan.surfaces[index], summary: summaryOf(plan.summary, plan.summary.setups[index].id)! };
}

/** Plans a job of one setup; of layers made of shapes nothing is read. */
export async function planShapes(view: Pick<SetupView, 'document'>, load = shapesOnly): Promise<SetupPlan> {
  return setupPlan(await planWhole(view.document, load));
}

/** What the proof and the checks hold to be wrong: rule and figures. */
export const errorsOf = (p: Pick<SetupPlan, 'summary'>) =>
  p.summary.findings.filter((f) => f.severity === 'error').map((f) => `${f.rule}: ${JSON.stringify(f.figures)}`);

/** Passes as they are proposed for a bit, none of them in the job yet. */
export const proposed = <K extends PassKindName>(kind: K, view: SetupView, bit: Cutter): PassOf<K> =>
  kindOf(kind).propose(view, bit) as PassOf<K>;

/** A bit of the drawer that a new shop has. */
export const drawerBit = (id: string): Cutter => structuredClone(DRAWER.find((c) => c.id === id)!);

/** A setup as it is in a copy of its job, with some of it changed. */
export function changed(view: SetupView, change: Partial<SetupView>): SetupView {
  const copy = setupView(structuredClone(view.document), view.setup.id);
  Object.assign(copy, structuredClone(change));
  return copy;
}

/** What is wrong in a job's document, in words. */
export const wrongIn = (view: Pick<SetupView, 'document'>): string =>
  problems(view.document)
    .map((f) => textOf(f).message)
    .join('; ');

/** What is said of a plan, in words. */
export const saidOf = (p: Pick<SetupPlan, 'summary'>): string =>
  p.summary.findings.map((f) => textOf(f).message).join('; ');

/** Heights of a new setup, mm. */
export const HEIGHTS = { approach: 1, between: 1, everything: 5 };
