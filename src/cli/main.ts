import { existsSync, mkdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { HOBBY_MACHINE } from '../core/plan/defaults';
import { describeIssues, type Job, jobSchema } from '../core/plan/job';
import { planJob } from '../core/plan/pipeline';
import { proposeJob } from '../core/plan/propose';
import { inspectSource, readSource, type Source } from '../core/sources/inspect';
import { MAX_SOURCE_BYTES, SourceError } from '../core/sources/source-error';
import { formatDuration, formatLength } from '../core/units/length';
import { KernelPool } from '../server/kernel-pool';
import { makeReport, planImages } from '../server/report';
import { contentHash, stageRunner } from '../server/stage-cache';
import { type PlanOptions, parseOptions, USAGE, UsageError } from './options';

function readReliefFile(file: string): Buffer {
  const s = statSync(file, { throwIfNoEntry: false });
  if (!s?.isFile()) throw new UsageError(`${file}: there is no such file`);
  if (s.size > MAX_SOURCE_BYTES) throw new UsageError(`${file}: is ${s.size} bytes, more than 2 GB; reduce the model`);
  return readFileSync(file);
}

function jobFromFile(file: string): { job: Job; source: Source } {
  if (!statSync(file, { throwIfNoEntry: false })?.isFile()) throw new UsageError(`${file}: there is no such file`);
  let raw: unknown;
  try {
    raw = JSON.parse(readFileSync(file, 'utf8'));
  } catch (e) {
    throw new UsageError(`${file}: is not JSON (${(e as Error).message})`);
  }
  const relief = (raw as { relief?: { file?: unknown; hash?: unknown } } | null)?.relief;
  if (typeof relief?.file !== 'string' || relief.file === '')
    throw new UsageError(`${file}: relief.file is missing: the relief's file, beside the job`);
  const beside = path.resolve(path.dirname(file), relief.file);
  const bytes = readReliefFile(beside);
  // A job written by hand need not carry the hash; one that does must match.
  const hash = contentHash(bytes);
  if (relief.hash !== undefined && relief.hash !== hash)
    throw new UsageError(`${file}: ${relief.file} is not the file that the job was made with (its SHA-256 differs)`);
  const parsed = jobSchema.safeParse({
    ...(raw as object),
    relief: { ...relief, file: path.basename(relief.file), hash },
  });
  if (!parsed.success) throw new UsageError(`${file}: ${describeIssues(parsed.error, raw)}`);
  const source = readSource(bytes, relief.file);
  if ((parsed.data.relief.kind === 'mesh') !== (source.mesh !== undefined)) {
    throw new UsageError(`${file}: relief.kind says ${parsed.data.relief.kind}, ${relief.file} is not one`);
  }
  return { job: parsed.data, source };
}

function jobFromOptions(o: PlanOptions): { job: Job; source: Source } {
  const file = o.relief!;
  const bytes = readReliefFile(file);
  const name = path.basename(file);
  const source = readSource(bytes, name);
  const { x, y, thickness } = o.board!;
  if (o.rough.diameter > Math.max(x, y))
    throw new UsageError(`--rough: ${o.rough.name} is wider than the board of ${x} x ${y} mm; choose a smaller bit`);
  const margin = o.seat === 'raised' ? Math.max(1.5 * o.rough.diameter, o.rough.diameter + 3) : 10;
  if (o.size === undefined && Math.min(x, y) <= 2 * margin + 1) {
    throw new UsageError(
      `--board: ${x} x ${y} mm leaves no room for a relief within its trench of ${formatLength(margin)}; use a smaller bit or give --size`,
    );
  }
  const proposed = proposeJob({
    name: path.parse(name).name.slice(0, 80) || 'relief',
    order: '',
    file: name,
    hash: contentHash(bytes),
    info: inspectSource(source),
    machine: HOBBY_MACHINE,
    rough: o.rough,
    finish: o.finish,
    board: { x, y, thickness, origin: o.origin, zZero: o.zZero, ...(o.material ? { material: o.material } : {}) },
    size: o.size,
    rise: o.rise,
    unit: o.unit,
    mode: o.seat,
    invert: o.invert,
  });
  const parsed = jobSchema.safeParse(proposed);
  if (!parsed.success) throw new UsageError(describeIssues(parsed.error, proposed));
  return { job: parsed.data, source };
}

/** Writes a program under its name, or beside one of that name with other content: a written file is never overwritten. */
function writeProgramFile(dir: string, name: string, text: string): string {
  const { name: stem, ext } = path.parse(name);
  for (let n = 1; ; n++) {
    const file = n === 1 ? name : `${stem}-${n}${ext}`;
    const full = path.join(dir, file);
    if (existsSync(full) && readFileSync(full, 'utf8') === text) return file;
    try {
      writeFileSync(full, text, { flag: 'wx' });
      return file;
    } catch (e) {
      if ((e as NodeJS.ErrnoException).code !== 'EEXIST') throw e;
    }
  }
}

/** A path as the person means it: from the folder that they called from. */
const fromHere = (file: string) => path.resolve(process.env.ZG_FROM ?? process.cwd(), file);

async function plan(args: string[]): Promise<number> {
  const o = parseOptions(args);
  o.out = fromHere(o.out);
  if (o.relief !== undefined) o.relief = fromHere(o.relief);
  if (o.jobFile !== undefined) o.jobFile = fromHere(o.jobFile);
  const { job, source } = o.jobFile === undefined ? jobFromOptions(o) : jobFromFile(o.jobFile);
  const { board, relief, machine } = job;
  console.log(
    `relief ${formatLength(relief.size.x)} x ${formatLength(relief.size.y)}, rise ${formatLength(relief.rise)} (file read as ${relief.unit})`,
  );
  console.log(
    `board ${formatLength(board.x)} x ${formatLength(board.y)} x ${formatLength(board.thickness)}; machine ${machine.name}, ${machine.x} x ${machine.y} mm`,
  );
  const stages: Record<string, number> = {};
  const host = new KernelPool();
  try {
    const result = await planJob(job, async () => source, { host, progress() {}, stage: stageRunner(null, stages) });
    mkdirSync(o.out, { recursive: true });
    const files = result.summary.programs.map((p) => writeProgramFile(o.out, p.file, p.text));
    const start = performance.now();
    for (const image of planImages(job, result)) writeFileSync(path.join(o.out, image.name), image.bytes);
    stages.images = (performance.now() - start) / 1000;
    const report = makeReport(job, result, files, stages, Math.round(process.resourceUsage().maxRSS / 1024));
    writeFileSync(path.join(o.out, 'report.json'), `${JSON.stringify(report, null, 2)}\n`);
    result.summary.programs.forEach((p, i) => {
      console.log(`${files[i]}: ${formatDuration(p.seconds)} (length over feed ${formatDuration(p.naiveSeconds)})`);
    });
    for (const f of report.findings) console.log(`${f.severity}: ${f.message}`);
    return report.findings.some((f) => f.severity === 'error') ? 3 : 0;
  } finally {
    await host.close();
  }
}

async function main(): Promise<number> {
  const [command, ...rest] = process.argv.slice(2);
  if (command !== 'plan' || rest.length === 0 || rest.includes('--help')) {
    console.error(USAGE);
    return 2;
  }
  try {
    return await plan(rest);
  } catch (e) {
    if (e instanceof UsageError || e instanceof SourceError || (e as NodeJS.ErrnoException).code) {
      console.error(`zg plan: ${(e as Error).message.replace(/\s+/g, ' ')}`);
      return 2;
    }
    throw e;
  }
}

process.exitCode = await main();
