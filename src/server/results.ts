import { createHash } from 'node:crypto';
import { existsSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { type JobSummary, jobSummary } from '../contract/wire';
import { leavings, makeFolder, moveFile, removeFile, syncFolder, writeParts } from './files';

/** What a stored result says of itself: who made it, and what its files were when they were written. */
export interface Envelope {
  planner: string;
  files: Record<string, { bytes: number; sha256: string }>;
  /** SHA-256 of its programs, in their order. */
  programs: string[];
  /** When the same document had been planned before by another planner: whether the programs came out the same. */
  again: 'same' | 'changed' | null;
}

const ENVELOPE = 'envelope.json';
const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

const isEnvelope = (e: unknown): e is Envelope =>
  typeof e === 'object' &&
  e !== null &&
  typeof (e as Envelope).planner === 'string' &&
  typeof (e as Envelope).files === 'object';

function readEnvelope(folder: string): Envelope | null {
  try {
    const e: unknown = JSON.parse(readFileSync(path.join(folder, ENVELOPE), 'utf8'));
    return isEnvelope(e) ? e : null;
  } catch {
    return null;
  }
}

/** The files of one result as they are put together; nothing is in its place before all of it is written. */
export interface NewResult {
  planner: string;
  files: { name: string; parts: Uint8Array[] }[];
}

/**
 * Puts a result into its folder, in one step: written aside with its envelope, entered on the disk, and renamed. A result of another
 * planner that was there is replaced, and what became of its programs is noted.
 */
export function storeResult(folder: string, aside: string, { planner, files }: NewResult): Envelope {
  makeFolder(aside);
  const before = readEnvelope(folder);
  const envelope: Envelope = { planner, files: {}, programs: [], again: null };
  for (const { name, parts } of files) {
    envelope.files[name] = writeParts(path.join(aside, name), parts);
    if (name.endsWith('.nc')) envelope.programs.push(envelope.files[name].sha256);
  }
  if (before && before.planner !== planner)
    envelope.again = JSON.stringify(before.programs) === JSON.stringify(envelope.programs) ? 'same' : 'changed';
  writeParts(path.join(aside, ENVELOPE), [new TextEncoder().encode(JSON.stringify(envelope))]);
  syncFolder(aside);
  const old = `${aside}.old`;
  if (existsSync(folder)) moveFile(folder, old);
  moveFile(aside, folder);
  removeFile(old);
  return envelope;
}

/** Removes what a crash left half done; a result that was on its way to be replaced goes back to its place. */
function sweep(folder: string): void {
  for (const name of leavings(folder)) {
    const full = path.join(folder, name);
    const place = path.join(folder, name.slice(0, 64));
    if (name.endsWith('.old') && !existsSync(place)) moveFile(full, place);
    else removeFile(full);
  }
}

/** What the rack shows of a plan. */
export interface PlanBrief {
  seconds: number;
  errors: number;
  warnings: number;
}

/** Results of plans by the hash of their document; a damaged or missing one counts as none. */
export class ResultStore {
  /** Files whose content was checked in this process, by what would change if they did. */
  private readonly checked = new Map<string, string>();

  private readonly briefs = new Map<string, PlanBrief>();

  constructor(
    readonly folder: string,
    readonly planner: string,
  ) {
    makeFolder(folder);
    sweep(folder);
  }

  place(input: string): string {
    return path.join(this.folder, input);
  }

  /** The envelope of a whole result; null where a file is missing, has another length, or is not what it was. */
  open(input: string): Envelope | null {
    const envelope = readEnvelope(this.place(input));
    if (!envelope) return null;
    for (const [name, f] of Object.entries(envelope.files)) if (!this.sound(this.place(input), name, f)) return null;
    return envelope;
  }

  /** Lengths are looked at each time, contents once a process and again when a file has been touched. */
  private sound(folder: string, name: string, { bytes, sha256: want }: Envelope['files'][string]): boolean {
    const file = path.join(folder, name);
    const s = statSync(file, { throwIfNoEntry: false });
    if (!s?.isFile() || s.size !== bytes) return false;
    const now = `${s.size} ${s.ino} ${s.mtimeMs} ${want}`;
    if (this.checked.get(file) === now) return true;
    if (sha256(readFileSync(file)) !== want) return false;
    this.checked.set(file, now);
    return true;
  }

  /** A file of a result, null where it is missing or damaged. Programs are checked whole each time before they go out. */
  read(input: string, name: string): Buffer | null {
    const f = readEnvelope(this.place(input))?.files[name];
    if (!f) return null;
    const folder = this.place(input);
    if (!this.sound(folder, name, f)) return null;
    const bytes = readFileSync(path.join(folder, name));
    if (name.endsWith('.nc') && sha256(bytes) !== f.sha256) return null;
    return bytes;
  }

  /** Where a file of a result lies, checked, to be read in parts; null where it is missing or damaged. */
  file(input: string, name: string): string | null {
    const f = readEnvelope(this.place(input))?.files[name];
    return f && this.sound(this.place(input), name, f) ? path.join(this.place(input), name) : null;
  }

  /** SHA-256 that a file of a result had when it was written; null where there is none. */
  sum(input: string, name: string): string | null {
    return readEnvelope(this.place(input))?.files[name]?.sha256 ?? null;
  }

  /** Whether there is a whole result of this planner. */
  isFresh(input: string): boolean {
    return this.open(input)?.planner === this.planner;
  }

  /** The summary of a result; null where it is none, or so old that it says other things. */
  summary(input: string): JobSummary | null {
    const bytes = this.read(input, 'summary.json');
    if (!bytes) return null;
    const parsed = jobSummary.safeParse(JSON.parse(bytes.toString('utf8')));
    return parsed.success ? parsed.data : null;
  }

  /** The figures of a result, read once and kept by what its summary is. */
  brief(input: string): PlanBrief | null {
    const key = readEnvelope(this.place(input))?.files['summary.json']?.sha256;
    if (key === undefined) return null;
    let figures = this.briefs.get(key);
    if (!figures) {
      const s = this.summary(input);
      if (!s) return null;
      const count = (severity: string) => s.findings.filter((f) => f.severity === severity).length;
      figures = { seconds: s.seconds, errors: count('error'), warnings: count('warning') };
      this.briefs.set(key, figures);
    }
    return figures;
  }
}
