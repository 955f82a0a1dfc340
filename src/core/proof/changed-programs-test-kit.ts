import { newShape } from '../arrange/new-layer';
import { MASK } from '../arrange/target';
import { DRAWER, HOBBY_MACHINE, materialNamed, SHOP_MACHINE } from '../doc/defaults';
import { applyEdits } from '../doc/edits';
import type { Job } from '../doc/job';
import type { PassKindName } from '../doc/pass';
import type { HeightField } from '../field/height-field';
import type { Finding } from '../findings/finding';
import { localHost } from '../kernels/host';
import { addPass } from '../passes/add-pass';
import { planJob } from '../plan/pipeline';
import { plainSetup, shapesOnly } from '../plan/plan-test-kit';
import type { PlanEnvironment } from '../plan/stage';
import { oneThread } from '../plan/threads';
import { ProgramError } from '../program/reader';
import type { SetupView } from '../setup/view';
import { cutBoardPlainly, type Harm, type PlainCut, type PlainProgram, tooDeep } from './plain-harm-test-kit';

const BOARD = { x: 56, y: 42, thickness: 12, material: materialNamed('maple') };
const bit = (id: string) => structuredClone(DRAWER.find((c) => c.id === id)!);

/** A small board with a dome, roughed, finished in wide rows and cut out, as a job whose programs are changed. */
function smallJob(change: (v: SetupView) => void, more: [PassKindName, string][]): SetupView {
  const view = plainSetup({
    name: 'Small',
    order: '',
    machine: HOBBY_MACHINE,
    rough: bit('em6'),
    finish: bit('ball3'),
    board: BOARD,
  });
  view.cell = 0.4;
  view.layers = [
    {
      ...newShape({ id: 'dome', name: 'Dome' }, { kind: 'oval' }, { kind: 'dome' }, BOARD),
      size: { x: 26, y: 18 },
      centre: { x: 28, y: 21 },
      rise: 3,
    },
  ];
  for (const [kind, id] of more) applyEdits(view.document, addPass(view, kind, bit(id)));
  for (const p of view.passes) if (p.kind === 'finish') Object.assign(p, { stepover: 1, tolerance: 0.05 });
  change(view);
  return view;
}

/** The jobs: a file a bit, with a cut-out; all in one file with a changer; sunk, with bits that may not go straight down. */
export const SMALL_JOBS: (() => SetupView)[] = [
  () => smallJob(() => {}, [['cutout', 'em6']]),
  () =>
    smallJob((v) => {
      v.document.machine = SHOP_MACHINE;
      v.output.oneFile = true;
    }, []),
  () =>
    smallJob((v) => {
      v.seat = { ...v.seat, mode: 'sunk' };
      v.layers[0] = { ...v.layers[0], join: 'carve' };
    }, []),
];

/** A small job with its programs, what is said of them, and what they leave by the plain definition. */
export interface Baseline {
  view: SetupView;
  programs: PlainProgram[];
  cut: PlainCut;
  /** How deep each cell may be cut: as it was, and in waste as deep as the ground around the piece. */
  wanted: HeightField;
  prove(programs: PlainProgram[]): Promise<Finding[]>;
}

/** Plans a small job once; its proof can then be asked about other programs. */
export async function baselineOf(view: SetupView): Promise<Baseline> {
  const kept = new Map<string, Awaited<ReturnType<PlanEnvironment['stage']>>>();
  const env: PlanEnvironment = {
    host: localHost,
    threads: oneThread,
    progress() {},
    stage: async (name, input, run) => {
      const key = `${name} ${JSON.stringify(input)}`;
      const had = name === 'proof' ? undefined : kept.get(key);
      const result = (had as { result: Awaited<ReturnType<typeof run>> } | undefined)?.result ?? (await run());
      const out = { key, result };
      kept.set(key, out as never);
      return out;
    },
  };
  const job: Job = view.document;
  const plan = await planJob(job, shapesOnly, env);
  const programs = plan.summary.programs.map((p) => ({ file: p.file, text: p.text, tool: p.cutter }));
  const [{ target, mask }] = plan.surfaces;
  const cut = cutBoardPlainly(view, target, programs);
  const wanted = {
    ...cut.stock,
    data: cut.stock.data.map((z, k) => (mask[k] === MASK.waste ? Math.min(z, target.data[k]) : z)),
  };
  return {
    view,
    programs,
    cut,
    wanted,
    prove: async (given) => (await planJob(job, shapesOnly, env, given)).summary.findings,
  };
}

/** Numbers from 0 to 1 that are the same at every run. */
function dice(seed: number): () => number {
  let s = seed * 2654435761;
  return () => {
    s = (s + 0x6d2b79f5) | 0;
    let t = Math.imul(s ^ (s >>> 15), 1 | s);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Programs with one change, and the lines that it is about. */
export interface Changed {
  kind: string;
  programs: PlainProgram[];
  file: string;
  lines: number[];
}

const moves = (l: string) => /[XYZ]-?\d/.test(l) && !l.startsWith('(');
const z = (l: string) => /Z(-?[\d.]+)/.exec(l)?.[1];

type Change = (
  lines: string[],
  pick: (test: (l: string, i: number) => boolean) => number,
  roll: () => number,
) => number[];

/** A line's word with another number. */
const reword = (line: string, letter: string, to: (v: number) => number) =>
  line.replace(new RegExp(`${letter}(-?[\\d.]+)`), (_, v) => `${letter}${Number(to(Number(v)).toFixed(3))}`);

/** One change of a program each; the lines it touches come back, numbered from 1. */
const CHANGES: Record<string, Change> = {
  'a feed six times as fast': (lines, pick) => {
    const i = pick((l) => /F\d/.test(l));
    lines[i] = reword(lines[i], 'F', (v) => v * 6);
    return [i + 1];
  },
  'a feed of a slip of the pen': (lines, pick) => {
    const i = pick((l) => /F\d/.test(l));
    lines[i] = reword(lines[i], 'F', () => 2);
    return [i + 1];
  },
  'deeper for a stretch': (lines, pick, roll) => {
    const i = pick((l) => Number(z(l)) < 0 && !l.startsWith('G0'));
    const by = 0.6 + 3 * roll();
    const touched: number[] = [];
    for (let k = i; k < Math.min(lines.length, i + 1 + Math.floor(4 * roll())); k++) {
      if (z(lines[k]) === undefined || Number(z(lines[k])) >= 0) continue;
      lines[k] = reword(lines[k], 'Z', (v) => v - by);
      touched.push(k + 1);
    }
    return touched;
  },
  'the spindle not started': (lines, pick) => {
    const i = pick((l) => /M3\b/.test(l));
    lines[i] = lines[i].replace(/ ?M3\b/, '');
    return [i + 1];
  },
  'the spindle the other way': (lines, pick) => {
    const i = pick((l) => /M3\b/.test(l));
    lines[i] = lines[i].replace(/M3\b/, 'M4');
    return [i + 1];
  },
  'another bit called for': (lines, pick) => {
    const i = pick((l) => /\bT\d+ M6/.test(l));
    if (i < 0) return [];
    const [, number] = /T(\d+)/.exec(lines[i])!;
    lines[i] = lines[i].replace(/T\d+/, `T${number === '1' ? 3 : 1}`);
    return [i + 1];
  },
  'a retract left out': (lines, pick) => {
    const i = pick((l, n) => /^(G0 )?Z-?\d/.test(l) && n > 12 && Number(z(l)) > 0);
    lines.splice(i, 1);
    return [i + 1];
  },
  'a line left out': (lines, pick) => {
    const i = pick((l, n) => moves(l) && n > 8);
    lines.splice(i, 1);
    return [i + 1];
  },
  'two lines in the other order': (lines, pick) => {
    const i = pick((l, n) => moves(l) && n > 8 && n + 1 < lines.length && moves(lines[n + 1]));
    [lines[i], lines[i + 1]] = [lines[i + 1], lines[i]];
    return [i + 1, i + 2];
  },
  'the end left out': (lines) => {
    lines.splice(lines.length - 4, 3);
    return [lines.length - 2];
  },
};

/** Changes that no machine would notice. */
const HARMLESS: Record<string, (line: string, n: number) => string> = {
  'more spaces': (l) => (l.startsWith('(') ? l : l.replaceAll(' ', '   ')),
  'small letters': (l) => (l.startsWith('(') ? l : l.toLowerCase()),
  'comments behind lines': (l) => (l.startsWith('(') || l === '' ? l : `${l} (as planned)`),
  'line numbers': (l, n) => (l.startsWith('(') || l === '' ? l : `N${n * 10} ${l}`),
};

const CHANGE_KINDS = Object.keys(CHANGES);
export const HARMLESS_KINDS = Object.keys(HARMLESS);

const withText = (programs: PlainProgram[], n: number, text: string) =>
  programs.map((p, i) => (i === n ? { ...p, text } : p));

/** Programs with one change of a kind; null where there is no place for it. */
function changeOf(programs: PlainProgram[], kind: string, roll: () => number): Changed | null {
  const n = Math.floor(roll() * programs.length);
  const lines = programs[n].text.split('\n');
  const pick = (test: (l: string, i: number) => boolean) => {
    const places = lines.flatMap((l, i) => (test(l, i) ? [i] : []));
    return places[Math.floor(roll() * places.length)] ?? -1;
  };
  const before = lines.join('\n');
  const touched = CHANGES[kind](lines, pick, roll);
  if (touched.length === 0 || touched[0] === 0 || lines.join('\n') === before) return null;
  return { kind, programs: withText(programs, n, lines.join('\n')), file: programs[n].file, lines: touched };
}

/** Programs with a change that does no harm. */
export function harmlessOf(programs: PlainProgram[], kind: string): PlainProgram[] {
  return programs.map((p) => ({ ...p, text: p.text.split('\n').map(HARMLESS[kind]).join('\n') }));
}

/** What harms in changed programs and not in those that were planned. */
function harmsOf(base: Baseline, changed: Changed): Harm[] {
  const cut = cutBoardPlainly(base.view, base.cut.stock, changed.programs);
  const had = new Set(base.cut.harms.map((h) => `${h.file} ${h.what}`));
  const fresh = cut.harms.filter((h) => !had.has(`${h.file} ${h.what}`));
  return [...fresh, ...tooDeep(cut, base.wanted, changed.programs)];
}

/** What came of one changed program: whether it does harm, and whether that was found near its line; what else was said, for the message. */
export interface Judged {
  kind: string;
  harmful: boolean;
  found: boolean;
  told: string;
}

/** Judges one changed program by the plain definition and by the proof. */
export async function judge(base: Baseline, before: Finding[], changed: Changed): Promise<Judged> {
  const harms = harmsOf(base, changed);
  const { kind, file, lines } = changed;
  const what = harms.slice(0, 3).map((h) => `${h.what} in line ${h.line} of ${h.file}`);
  const head = `${kind}, ${file} line ${lines}: ${what.join(', ')}`;
  try {
    const after = await base.prove(changed.programs);
    const found = foundNear(before, after, changed, harms).length > 0;
    const said = after.map((f) => `${f.rule} ${f.subject.line ?? ''}`).join(', ');
    return { kind, harmful: harms.length > 0, found, told: `${head}; said: ${said}` };
  } catch (e) {
    if (!(e instanceof ProgramError)) throw e;
    // What cannot be followed is refused with its line.
    const line = Number(/line (\d+)/.exec(e.message)?.[1]);
    const found = e.message.startsWith(file) && lines.some((l) => Math.abs(l - line) <= NEAR);
    return { kind, harmful: true, found, told: `${head}; refused: ${e.message}` };
  }
}

/** Changes the programs of a small job so many times, the kinds of change in turn, and judges each. */
export async function judgeMany(base: Baseline, times: number, seed: number): Promise<Judged[]> {
  const before = await base.prove(base.programs);
  const out: Judged[] = [];
  for (let i = 0; out.length < times && i < 3 * times; i++) {
    const changed = changeOf(base.programs, CHANGE_KINDS[(seed + i) % CHANGE_KINDS.length], dice(seed + i));
    if (changed) out.push(await judge(base, before, changed));
  }
  return out;
}

/** How far from a line what is said of it may be: moves that go on from it, and a line more or less. */
const NEAR = 5;

/** The findings of changed programs that those as planned do not have, and that are told near what was changed or harms. */
function foundNear(before: Finding[], after: Finding[], changed: Changed, harms: Harm[]): Finding[] {
  const said = (f: Finding) => `${f.rule} ${f.subject.line ?? ''} ${JSON.stringify(f.figures)}`;
  const had = new Set(before.map(said));
  const lines = [...changed.lines, ...harms.map((h) => h.line)];
  return after.filter(
    (f) =>
      f.rule !== 'not-planned-here' &&
      !had.has(said(f)) &&
      f.subject.line !== undefined &&
      lines.some((l) => Math.abs(l - f.subject.line!) <= NEAR),
  );
}
