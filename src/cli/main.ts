import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { HOBBY_MACHINE, materialNamed } from '../core/doc/defaults';
import { type Job, jobSchema, setupsOf } from '../core/doc/job';
import { describeIssues } from '../core/doc/refusal';
import { upgradeJob } from '../core/doc/upgrade/upgrade';
import type { GivenProgram } from '../core/plan/given-programs';
import { planJob } from '../core/plan/pipeline';
import { problems } from '../core/plan/problems';
import { marginFor, proposeJob } from '../core/plan/propose';
import { PlanStopped } from '../core/plan/stopped';
import { ProgramError } from '../core/program/reader';
import { inspectSource } from '../core/sources/inspect';
import { MAX_SOURCE_BYTES, SourceError } from '../core/sources/source-error';
import { formatDuration, formatLength } from '../core/units/length';
import { contentLoader } from '../server/content';
import { BadRequest, NewerShop } from '../server/errors';
import { KernelPool } from '../server/kernel-pool';
import { readPlanner } from '../server/planner';
import { readSource } from '../server/read-source';
import { reasonOf } from '../server/reasons';
import { makeReport, planImages } from '../server/report';
import { contentHash, stageRunner } from '../server/stage-cache';
import { type PlanOptions, parseOptions, proveOptions, USAGE, UsageError } from './options';
import { backup, restore } from './shop-file';
import { type HowFar, writeStudy } from './study';

function readReliefFile(file: string): Buffer {
  const s = statSync(file, { throwIfNoEntry: false });
  if (!s?.isFile()) throw new UsageError(`${file}: there is no such file`);
  if (s.size > MAX_SOURCE_BYTES) throw new UsageError(`${file}: is ${s.size} bytes, more than 2 GB; reduce the model`);
  return readFileSync(file);
}

/** The files of a job, by hash; a job's own folder may keep them under assets/ with the hash in front. */
type Files = Map<string, string>;

/** Where a file of a job lies: under assets/ as an exported job has it, or beside the job under its own name. */
function findFile(dir: string, name: string, hash: unknown): string {
  const assets = path.join(dir, 'assets');
  if (typeof hash === 'string' && statSync(assets, { throwIfNoEntry: false })?.isDirectory()) {
    const kept = readdirSync(assets).find((f) => f.startsWith(hash));
    if (kept) return path.join(assets, kept);
  }
  return path.resolve(dir, name);
}

type RawLayer = { source?: Record<string, unknown> & { words?: { font?: unknown } } };

/** The layers of a document that has not been checked yet. */
function rawLayers(document: unknown): RawLayer[] {
  const list = (of: unknown, key: string): unknown[] => {
    const v = (of as Record<string, unknown> | null | undefined)?.[key];
    return Array.isArray(v) ? v : [];
  };
  return list(document, 'boards')
    .flatMap((b) => list(b, 'setups'))
    .flatMap((s) => list(s, 'layers')) as RawLayer[];
}

function jobFromFile(file: string): { job: Job; files: Files } {
  if (!statSync(file, { throwIfNoEntry: false })?.isFile()) throw new UsageError(`${file}: there is no such file`);
  let raw: unknown;
  try {
    raw = JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    throw new UsageError(`${file}: is not JSON; choose a job file`);
  }
  const document = upgradeJob(raw);
  const files: Files = new Map();
  const dir = path.dirname(file);
  for (const layer of rawLayers(document)) {
    const s = layer?.source;
    if (s?.kind === 'words' && typeof s.words?.font === 'string' && /^[0-9a-f]{64}$/.test(s.words.font)) {
      const font = findFile(dir, s.words.font, s.words.font);
      const bytes = readReliefFile(font);
      if (contentHash(bytes) !== s.words.font)
        throw new UsageError(`${file}: ${path.basename(font)} is not the font that the job was made with`);
      files.set(s.words.font, font);
    }
    if (s?.kind !== 'mesh' && s?.kind !== 'image') continue;
    if (typeof s.file !== 'string' || s.file === '')
      throw new UsageError(`${file}: a layer's file is missing: its name, beside the job`);
    const found = findFile(dir, s.file, s.hash);
    const hash = contentHash(readReliefFile(found));
    // A job written by hand need not carry the hash; one that does must match.
    if (s.hash !== undefined && s.hash !== hash)
      throw new UsageError(`${file}: ${s.file} is not the file that the job was made with (its SHA-256 differs)`);
    s.hash = hash;
    s.file = path.basename(s.file);
    files.set(hash, found);
  }
  const parsed = jobSchema.safeParse(document);
  if (!parsed.success) throw new UsageError(`${file}: ${describeIssues(parsed.error, document)}`);
  return { job: parsed.data, files };
}

async function jobFromOptions(o: PlanOptions): Promise<{ job: Job; files: Files }> {
  const file = o.relief!;
  const bytes = readReliefFile(file);
  const name = path.basename(file);
  const source = await readSource(bytes, name);
  if (source.font) throw new UsageError(`${name}: is a font; --relief takes a model or a height image`);
  const hash = contentHash(bytes);
  const { x, y, thickness } = o.board!;
  if (o.rough.diameter > Math.max(x, y))
    throw new UsageError(`--rough: ${o.rough.name} is wider than the board of ${x} x ${y} mm; choose a smaller bit`);
  const material = o.material === undefined ? {} : { material: materialNamed(o.material) };
  const margin = marginFor({ mode: o.seat, rough: o.rough, board: material });
  if (o.size === undefined && Math.min(x, y) <= 2 * margin + 1) {
    throw new UsageError(
      `--board: ${x} x ${y} mm leaves no room for a relief within its trench of ${formatLength(margin)}; use a smaller bit or give --size`,
    );
  }
  const proposed = proposeJob({
    name: path.parse(name).name.slice(0, 80) || 'relief',
    order: '',
    file: name,
    hash,
    info: inspectSource(source),
    machine: HOBBY_MACHINE,
    rough: o.rough,
    finish: o.finish,
    board: { x, y, thickness, origin: o.origin, zZero: o.zZero, ...material },
    size: o.size,
    rise: o.rise,
    unit: o.unit,
    mode: o.seat,
    invert: o.invert,
  });
  const parsed = jobSchema.safeParse(proposed);
  if (!parsed.success) throw new UsageError(describeIssues(parsed.error, proposed));
  return { job: parsed.data, files: new Map([[hash, file]]) };
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

/** Largest program that is read, bytes. */
const MAX_PROGRAM = 200e6;

/** A folder to write into. @throws UsageError where a file lies in its place */
function folderOf(out: string): string {
  if (statSync(out, { throwIfNoEntry: false })?.isFile())
    throw new UsageError(`--out: ${out} is a file; name a folder`);
  return out;
}

async function plan(args: string[]): Promise<number> {
  const o = parseOptions(args);
  o.out = folderOf(fromHere(o.out));
  if (o.relief !== undefined) o.relief = fromHere(o.relief);
  if (o.jobFile !== undefined) o.jobFile = fromHere(o.jobFile);
  return work(o.jobFile === undefined ? await jobFromOptions(o) : jobFromFile(o.jobFile), o.out, null, o.beside);
}

/** Proves programs as they lie in files, in the place of those that the job would be cut with. */
async function prove(args: string[]): Promise<number> {
  const o = proveOptions(args);
  const given = o.programs.map(fromHere).map((file) => {
    const s = statSync(file, { throwIfNoEntry: false });
    if (!s?.isFile()) throw new UsageError(`${file}: there is no such file`);
    if (s.size > MAX_PROGRAM) throw new UsageError(`${file}: is ${s.size} bytes, more than ${MAX_PROGRAM / 1e6} MB`);
    return { file: path.basename(file), text: readFileSync(file, 'latin1') };
  });
  return work(jobFromFile(fromHere(o.jobFile)), folderOf(fromHere(o.out)), given);
}

/** Plans and proves a job, or proves given programs of it, and writes what comes of it into a folder. */
async function work(
  { job, files }: { job: Job; files: Files },
  out: string,
  given: GivenProgram[] | null,
  beside: HowFar | null = null,
): Promise<number> {
  const wrong = problems(job);
  if (wrong.some((f) => f.stops)) throw new PlanStopped(wrong);
  const { machine } = job;
  for (const l of setupsOf(job).flatMap((p) => p.setup.layers)) {
    const unit = l.source.kind === 'mesh' ? ` (file read as ${l.source.unit})` : '';
    console.log(`${l.name} ${formatLength(l.size.x)} x ${formatLength(l.size.y)}, rise ${formatLength(l.rise)}${unit}`);
  }
  for (const b of job.boards)
    console.log(
      `board ${formatLength(b.x)} x ${formatLength(b.y)} x ${formatLength(b.thickness)}; machine ${machine.name}, ${machine.x} x ${machine.y} mm`,
    );
  const stages: Record<string, number> = {};
  const host = new KernelPool();
  try {
    const result = await planJob(
      job,
      contentLoader((h) => readReliefFile(files.get(h)!)),
      { host, threads: host, progress() {}, stage: stageRunner(null, readPlanner(), stages) },
      given,
    );
    mkdirSync(out, { recursive: true });
    const { programs } = result.summary;
    const written = given ? programs.map((p) => p.file) : programs.map((p) => writeProgramFile(out, p.file, p.text));
    const start = performance.now();
    for (const image of planImages(job, result)) writeFileSync(path.join(out, image.name), image.bytes);
    stages.images = (performance.now() - start) / 1000;
    const report = makeReport(job, result, written, stages, Math.round(process.resourceUsage().maxRSS / 1024));
    writeFileSync(path.join(out, 'report.json'), `${JSON.stringify(report, null, 2)}\n`);
    result.summary.programs.forEach((p, i) => {
      console.log(
        `${written[i]}: ${formatDuration(p.seconds)} (length over feed ${formatDuration(p.naiveSeconds)})${p.reserve ? ', in reserve' : ''}`,
      );
    });
    if (beside) await writeStudy(job, result.summary, out, beside, host);
    for (const f of report.findings) console.log(`${f.severity}: ${f.message}`);
    return report.findings.some((f) => f.severity === 'error') ? 3 : 0;
  } finally {
    await host.close();
  }
}

/** Does what the command line asks for. @throws UsageError */
async function run(command: string | undefined, rest: string[]): Promise<number> {
  const [file, ...more] = rest;
  if (file !== undefined && !rest.includes('--help')) {
    if (command === 'plan') return plan(rest);
    if (command === 'prove') return prove(rest);
    if (command === 'backup' && more.length === 0) return backup(fromHere(file));
    if (command === 'restore' && more.every((m) => m === '--replace')) return restore(fromHere(file), more.length > 0);
  }
  console.error(USAGE);
  return 2;
}

async function main(): Promise<number> {
  const [command, ...rest] = process.argv.slice(2);
  try {
    return await run(command, rest);
  } catch (e) {
    if (e instanceof PlanStopped) {
      console.error(`zg ${command}: ${reasonOf(e, '')}`);
      return 2;
    }
    if (
      e instanceof BadRequest ||
      e instanceof NewerShop ||
      e instanceof UsageError ||
      e instanceof ProgramError ||
      e instanceof SourceError ||
      (e as NodeJS.ErrnoException).code
    ) {
      console.error(`zg ${command}: ${(e as Error).message.replace(/\s+/g, ' ')}`);
      return 2;
    }
    throw e;
  }
}

process.exitCode = await main();
