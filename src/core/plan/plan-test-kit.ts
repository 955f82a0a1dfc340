import { newTurned } from '../arrange/kinds/turned/fresh';
import { newShape } from '../arrange/new-layer';
import type { Cutter } from '../cutter/cutter';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { heldOver } from '../doc/drum';
import { applyEdits } from '../doc/edits';
import type { Job } from '../doc/job';
import type { PassKindName, PassOf } from '../doc/pass';
import { textOf } from '../findings/texts/text-of';
import { localHost } from '../kernels/host';
import { addPass } from '../passes/add-pass';
import { kindOf } from '../passes/registry';
import { type SetupView, setupView } from '../setup/view';
import type { LoadContent } from './composing';
import { planJob } from './pipeline';
import { problems } from './problems';
import { type PlainJob, plainJob } from './propose';
import { addSetup } from './setups';
import { type Plan, type SetupSurfaces, summaryOf } from './summary';
import { oneThread } from './threads';

/** The only setup of a plain job, through which the job is changed. */
export const plainSetup = (p: PlainJob): SetupView => setupView(plainJob(structuredClone(p)));

/** Nothing is read of layers made of shapes. */
export const shapesOnly: LoadContent = async () => ({
  content: {},
  facts: { depth: 0, step: 0, missing: [], measured: null, recess: false },
});

/** Plans a job made of shapes alone in this thread, with nothing stored. */
export function planWhole(job: Job, load = shapesOnly): Promise<Plan> {
  let n = 0;
  return planJob(job, load, {
    host: localHost,
    threads: oneThread,
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

/**
 * Rules that find what some passes still make: finishing that meets more wood than its bit takes, and goes down walls of it. No rule is
 * loosened for them; `demo/known-harm.json` lists where, and shrinks as the passes learn what stands.
 */
export const MADE_STILL = ['bite', 'chip-area', 'plunge-deep'];

/** Findings of other rules than those that are known of. */
export const others = <F extends { rule: string }>(findings: F[]): F[] =>
  findings.filter((f) => !MADE_STILL.includes(f.rule));

/** What the proof and the checks hold to be wrong, without what is known of: rule and figures. */
export const errorsOf = (p: { summary: Pick<Plan['summary'], 'findings'> }) =>
  others(p.summary.findings)
    .filter((f) => f.severity === 'error')
    .map((f) => `${f.rule}: ${JSON.stringify(f.figures)}`);

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

/** The board of dishes(). */
export const DISHED = { x: 60, y: 50, thickness: 12, material: materialNamed('maple') };
/** Domes carved in as dishes: depth at their middle, and their plan. */
export const FACE_DISH = { depth: 4, x: 36, y: 30, cx: 30, cy: 25 };
export const BACK_DISH = { depth: 3.5, x: 30, y: 30, cx: 30, cy: 25 };

/** A board of 60 x 50 x 12 mm, or a larger one, with a dish carved into both faces by its near left corner as it lies on its back. */
export function dishes(board = DISHED): { face: SetupView; back: SetupView } {
  const face = plainSetup({
    name: 'Dishes',
    order: '',
    machine: HOBBY_MACHINE,
    rough: drawerBit('em3'),
    finish: drawerBit('ball3'),
    board,
  });
  face.cell = 0.2;
  const { id, edits } = addSetup(face, 'back');
  applyEdits(face.document, edits);
  const back = setupView(face.document, id);
  for (const [view, d] of [
    [face, FACE_DISH],
    [back, BACK_DISH],
  ] as const) {
    view.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
    view.layers = [
      {
        ...newShape({ id: `dish-${view.setup.id}`, name: 'Dish' }, { kind: 'oval' }, { kind: 'dome' }, board),
        size: { x: d.x, y: d.y },
        // The back's board runs the other way.
        centre: { x: view === back ? board.x - DISHED.x + d.cx : d.cx, y: d.cy },
        rise: d.depth,
        join: 'carve',
      },
    ];
  }
  // Fine rows on an exact surface, so that it is the geometry that is measured.
  Object.assign(face.passes[1], { stepover: 0.15, tolerance: 0.002 });
  for (const kind of ['rough', 'finish'] as const)
    applyEdits(face.document, addPass(back, kind, face.cutters[kind === 'rough' ? 0 : 1]));
  Object.assign(back.passes[1], { stepover: 0.15, tolerance: 0.002 });
  return { face, back };
}

/** A document in which everything is wrong that can be at the same time. */
export function allWrong(): Job {
  const { face } = dishes();
  const add = <K extends PassKindName>(kind: K, bit: Cutter, change: (p: PassOf<K>) => void) => {
    const pass = proposed(kind, face, bit);
    pass.id = `p${face.passes.length}`;
    if (!face.cutters.some((c) => c.id === bit.id)) face.cutters.push(bit);
    change(pass);
    face.passes.push(pass);
  };
  const em = drawerBit('em6');
  const drill = drawerBit('drill6');
  face.board.face = 'painted';
  face.output.oneFile = true;
  face.layers.push(structuredClone(face.layers[0]));
  face.layers[0].mask = { kind: 'layer', layer: 'gone', grow: 0, outside: false };
  add('cutout', em, (p) => (p.cutter = 'ball3'));
  add('cutout', em, (p) => (p.tabs.at = [{ x: 1, y: 1 }]));
  add('cutout', em, (p) => (p.floor = 9));
  add('cutout', em, (p) => (p.stepdown = 0.001));
  add('cutout', em, (p) => (p.depth = 30));
  add('pocket', em, (p) => (p.depth = 30));
  add('hang', drawerBit('slot9'), (p) => (p.depth = 4));
  add('hang', drawerBit('slot9'), (p) => (p.depth = 15));
  add('hole', em, (p) => (p.diameter = 5));
  add('hole', em, (p) => (p.diameter = 6.35));
  add('hole', drill, (p) => (p.diameter = 8));
  // Dowels thicker than their hole, in a blind one, and one alone.
  add('hole', drill, (p) => Object.assign(p, { dowel: 9, depth: 5, places: [{ x: 30, y: 20 }] }));
  add('rough', em, (p) => (p.rampAngle = 60));
  add('rough', em, (p) => (p.stepover = 5));
  add('rough', em, (p) => (p.stepover = 0.01));
  add('rough', em, (p) => (p.cutter = 'lent'));
  add('rough', { ...em, id: 'huge', number: 40, diameter: 120, shankDiameter: 12 }, () => {});
  add('skim', em, () => {});
  face.board.setups[1].up = 'back';
  face.board.setups[1].passes.push({ ...proposed('skim', face, em), id: 'uneven' });
  const uneven = face.board.setups[1].passes.at(-1) as PassOf<'skim'>;
  uneven.points[0].thickness = 90;
  add('part', em, () => {});
  face.layers.push(newTurned('flat-on-board', 'Flat', { kind: 'flat' }, face.board));
  face.document.boards.push(wrongDrum(face.document), wrongTurning(face.document));
  return face.document;
}

/** A drum on a machine that turns nothing, too short, its sheet too narrow, on its face, with a cut-out and rows askew. */
function wrongDrum(job: Job): Job['boards'][number] {
  const drum = structuredClone(job.boards[0]);
  const [setup] = drum.setups;
  const view = setupView(job);
  const passes = [proposed('finish', view, drawerBit('ball6')), proposed('cutout', view, drawerBit('em6'))];
  if (!job.cutters.some((c) => c.id === 'ball6')) job.cutters.push(drawerBit('ball6'));
  passes.forEach((p, i) => {
    p.id = `round${i}`;
    if (p.kind === 'finish') p.angle = 45;
  });
  const own = { id: 'round', name: 'Round', up: 'back', layers: [], gaps: [], passes } as const;
  return Object.assign(drum, {
    id: 'drum',
    face: 'bare',
    drum: heldOver(drum.x, 5),
    setups: [{ ...setup, ...own }],
  });
}

/** A drum whose turned forms, holes, cut-offs, blanks and collar are all wrong. */
function wrongTurning(job: Job): Job['boards'][number] {
  const drum = Object.assign(structuredClone(job.boards[0]), { id: 'turned', face: 'bare' });
  drum.drum = { ...heldOver(20, 5), collar: { x: 4, width: 6 } };
  const view = setupView(job);
  const em = drawerBit('em6');
  const passes = [
    Object.assign(proposed('turn', view, em), { blank: { kind: 'square', side: 10 } }),
    Object.assign(proposed('turn', view, em), { blank: { kind: 'square', side: 60 } }),
    Object.assign(proposed('hole', view, em), { diameter: 12, depth: null, dowel: 5 }),
    Object.assign(proposed('part', view, em), { along: [6], width: 2, left: 60 }),
  ];
  passes.forEach((p, i) => {
    p.id = `turned${i}`;
  });
  const section = { kind: 'ball', radius: 1 } as const;
  const layers = [
    Object.assign(newTurned('askew', 'Askew', { kind: 'flat' }, drum), { turn: 30, rise: 20 }),
    Object.assign(newTurned('deep', 'Deep', { kind: 'flutes', count: 3, twist: 0, section }, drum), { rise: 2 }),
  ];
  const own = { id: 'turning', name: 'Turning', layers, gaps: [], passes };
  drum.setups = [{ ...drum.setups[0], ...own }];
  return drum;
}
