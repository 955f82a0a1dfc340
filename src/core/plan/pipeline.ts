import { placeRelief } from '../arrange/relief';
import { buildTarget, type Target } from '../arrange/target';
import { type Cutter, scallop, tipRadius } from '../cutter/cutter';
import { boardGrid, type Grid, gridOf, type HeightField } from '../field/height-field';
import { motionTime } from '../motion/time';
import { makeContext, SAFE_HEIGHT } from '../passes/context';
import { planFinish } from '../passes/finish';
import { planRough } from '../passes/rough';
import { commentText, fileStem, type ProgramPart, writeProgram, zeroOf } from '../program/writer';
import { type Finding, sortFindings } from '../proof/finding';
import { prove } from '../proof/prove';
import type { Source } from '../sources/inspect';
import { formatDuration, formatLength } from '../units/length';
import { geometryFindings } from './geometry';
import { cellOf, cutterOf, type Job, type Pass } from './job';
import type { PlanEnvironment } from './stage';
import { resolveTrenches } from './trenches';

export interface PassSummary {
  id: string;
  kind: Pass['kind'];
  cutter: string;
  stockToLeave: number;
  stepover: number;
  stepdown: number;
  trench: number;
  /** Ridge that the stepover leaves on a flat, mm; 0 for roughing. */
  ridge: number;
  seconds: number;
  naiveSeconds: number;
  cutLength: number;
  rapidLength: number;
  cutSeconds: number;
  rapidSeconds: number;
  moves: number;
}

export interface PlannedProgram {
  file: string;
  /** Number of the bit it starts with. */
  cutter: number;
  text: string;
  passes: string[];
  rough: boolean;
  seconds: number;
  naiveSeconds: number;
  cutLength: number;
  rapidLength: number;
  /** mm3 that the proof saw it remove. */
  volume: number;
}

export interface PlanSummary {
  grid: Grid;
  ground: number;
  zero: { x: number; y: number; z: number };
  passes: PassSummary[];
  programs: PlannedProgram[];
  findings: Finding[];
  thinnest: number;
  deepest: number;
  leftShare: number;
  seconds: number;
}

export interface Plan {
  summary: PlanSummary;
  target: HeightField;
  mask: Uint8Array;
  cut: HeightField;
  rough: HeightField | null;
  deviation: Float32Array;
}

/** Raised when what a stage computes from the same input changes, so that stored results are not taken for new ones. */
const VERSION = 1;

type PathMeta = { stock: Grid } & Omit<PassSummary, 'id'>;

/**
 * The whole way from a relief to proven programs. A pure function of the job and the relief's file; each stage is keyed
 * by what it depends on, so that a stored result is used again when only later stages have changed.
 * @param loadSource reads the relief's file; called only when a stage needs it
 */
export async function planJob(job: Job, loadSource: () => Promise<Source>, env: PlanEnvironment): Promise<Plan> {
  const { cell } = cellOf(job);
  const grid = boardGrid(job.board.x, job.board.y, cell);
  env.progress('relief', 0);
  const relief = await env.stage(
    'relief',
    { VERSION, relief: job.relief, x: job.board.x, y: job.board.y, cell },
    async () => {
      const placed = placeRelief(await loadSource(), job.relief, job.board, cell);
      return {
        meta: { lost: placed.lost, thinCells: placed.thinCells, depth: placed.depth },
        arrays: { data: placed.field.data },
      };
    },
  );

  env.progress('target', 0.05);
  const trenches = resolveTrenches(job);
  const areas = job.passes.map((p, i) => ({ area: p.area, trench: trenches[i] }));
  const seated = await env.stage('target', { relief: relief.key, seat: job.seat, areas }, async () => {
    const t = buildTarget({
      relief: { ...grid, data: relief.result.arrays.data as Float32Array },
      kind: job.relief.kind,
      mode: job.seat.mode,
      rise: job.relief.rise,
      skin: job.seat.skin,
      areas,
    });
    return { meta: { ground: t.ground }, arrays: { field: t.field.data, mask: t.mask, outside: t.outside } };
  });
  const arrays = seated.result.arrays;
  const target: Target = {
    field: { ...grid, data: arrays.field as Float32Array },
    mask: arrays.mask as Uint8Array,
    outside: arrays.outside as Float32Array,
    ground: seated.result.meta.ground,
  };
  const findings = geometryFindings(job, target, trenches, relief.result.meta);

  let key = seated.key;
  const ctx = makeContext(target, { x: job.board.x, y: job.board.y }, job.seat.mode, env.host);
  const planned: { pass: Pass; cutter: Cutter; moves: Float64Array; summary: PassSummary }[] = [];
  for (let i = 0; i < job.passes.length; i++) {
    const pass = job.passes[i];
    const cutter = cutterOf(job, pass);
    env.progress(pass.kind === 'rough' ? 'roughing' : 'finishing', 0.1 + (0.4 * i) / job.passes.length);
    const { id: _, ...settings } = pass;
    const done = await env.stage<PathMeta>(
      pass.kind,
      { before: key, settings, cutter, machine: job.machine },
      async () => {
        const path =
          pass.kind === 'rough'
            ? (await planRough(ctx, pass, cutter, trenches[i])).path
            : (await planFinish(ctx, pass, cutter, trenches[i])).path;
        const meta = { stock: gridOf(ctx.stock), ...describePass(pass, cutter, trenches[i], path.data, job) };
        return { meta, arrays: { moves: path.data.slice(), stock: ctx.stock.data } };
      },
    );
    key = done.key;
    ctx.stock = { ...done.result.meta.stock, data: done.result.arrays.stock as Float32Array };
    const { stock: __, ...summary } = done.result.meta;
    planned.push({
      pass,
      cutter,
      moves: done.result.arrays.moves as Float64Array,
      summary: { ...summary, id: pass.id },
    });
  }

  env.progress('programs', 0.55);
  const zero = zeroOf(job.board);
  const programs = writePrograms(job, planned, zero);
  env.progress('proof', 0.6);
  const proofInput = {
    VERSION,
    target: seated.key,
    texts: programs.map((p) => [p.file, p.text, p.rough]),
    board: job.board,
    machine: job.machine,
    cutters: job.cutters,
  };
  const proof = await env.stage('proof', proofInput, async () => {
    const written = programs.map((p) => ({ file: p.file, text: p.text, tool: p.cutter, rough: p.rough }));
    const p = await prove(
      { programs: written, cutters: job.cutters, zero, target, board: job.board, machine: job.machine },
      env.host,
    );
    return {
      meta: {
        findings: p.findings,
        thinnest: p.thinnest,
        deepest: p.deepest,
        leftShare: p.deviation.leftShare,
        volumes: p.volumes,
      },
      arrays: { cut: p.cut.data, deviation: p.deviation.map, ...(p.rough ? { rough: p.rough.data } : {}) },
    };
  });
  env.progress('done', 1);
  const m = proof.result.meta;
  programs.forEach((p, i) => {
    p.volume = m.volumes[i];
  });
  const out = proof.result.arrays as Record<string, Float32Array>;
  return {
    summary: {
      grid: gridOf(grid),
      ground: target.ground,
      zero,
      passes: planned.map((p) => p.summary),
      programs,
      findings: sortFindings([...findings, ...m.findings]),
      thinnest: m.thinnest,
      deepest: m.deepest,
      leftShare: m.leftShare,
      seconds: programs.reduce((s, p) => s + p.seconds, 0),
    },
    target: target.field,
    mask: target.mask,
    cut: { ...grid, data: out.cut },
    rough: out.rough ? { ...grid, data: out.rough } : null,
    deviation: out.deviation,
  };
}

function describePass(
  pass: Pass,
  cutter: Cutter,
  trench: number,
  moves: Float64Array,
  job: Job,
): Omit<PassSummary, 'id'> {
  const R = tipRadius(cutter);
  return {
    kind: pass.kind,
    cutter: cutter.id,
    stockToLeave: pass.kind === 'rough' ? pass.stockToLeave : 0,
    stepover: pass.stepover,
    stepdown: pass.kind === 'rough' ? pass.stepdown : 0,
    trench,
    ridge: pass.kind === 'finish' && R > 0 ? scallop(R, pass.stepover) : 0,
    ...motionTime(moves, job.machine),
    moves: moves.length / 4,
  };
}

type Planned = { pass: Pass; cutter: Cutter; moves: Float64Array; summary: PassSummary };

/** Passes that follow each other with the same bit share a run; a run is a file, or all are in one where bits change by themselves. */
function writePrograms(job: Job, planned: Planned[], zero: { x: number; y: number; z: number }): PlannedProgram[] {
  const runs: Planned[][] = [];
  for (const p of planned) {
    if (p.moves.length === 0) continue;
    const last = runs.at(-1);
    if (last && (job.output.oneFile || last[0].cutter.id === p.cutter.id)) last.push(p);
    else runs.push([p]);
  }
  return runs.map((run, i) => {
    const sum = (key: 'seconds' | 'naiveSeconds' | 'cutLength' | 'rapidLength') =>
      run.reduce((s, p) => s + p.summary[key], 0);
    const bits = [...new Set(run.map((p) => p.cutter.name))];
    const file = `${fileStem(job.order, job.name, `${i + 1}-${bits.join('-')}`)}.nc`;
    const { board } = job;
    const header = [
      `${job.name}${job.order ? `, order ${job.order}` : ''}`,
      `board ${formatLength(board.x)} x ${formatLength(board.y)} x ${formatLength(board.thickness)} ${board.material}`,
      `origin ${board.origin}, Z zero on the ${board.zZero === 'top' ? 'board top' : 'machine bed'}, ${job.output.unit}`,
      ...run.map(
        (p) =>
          `${p.pass.kind} with bit ${p.cutter.number} ${p.cutter.name} at ${p.cutter.rpm} rpm, ${formatDuration(p.summary.seconds)}`,
      ),
      `about ${formatDuration(sum('seconds'))}`,
      'eye and hearing protection, dust extraction, never leave it running alone',
    ].map(commentText);
    const parts: ProgramPart[] = run.map((p) => ({
      title: `${p.pass.kind}, ${p.cutter.name}`,
      toolNumber: p.cutter.number,
      rpm: p.cutter.rpm,
      moves: p.moves,
    }));
    const text = writeProgram(parts, {
      header,
      zero,
      unit: job.output.unit,
      safeZ: SAFE_HEIGHT,
      toolChanger: job.output.oneFile && job.machine.toolChanger,
    });
    return {
      file,
      cutter: run[0].cutter.number,
      text,
      passes: run.map((p) => p.pass.id),
      rough: run.every((p) => p.pass.kind === 'rough'),
      seconds: sum('seconds'),
      naiveSeconds: sum('naiveSeconds'),
      cutLength: sum('cutLength'),
      rapidLength: sum('rapidLength'),
      volume: 0,
    };
  });
}
