import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';

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
 * Puts a result into its folder, in one step: written aside with its envelope and renamed. A result of another planner that was there is
 * replaced, and what became of its programs is noted.
 */
export function storeResult(folder: string, aside: string, { planner, files }: NewResult): Envelope {
  mkdirSync(aside, { recursive: true });
  const before = readEnvelope(folder);
  const envelope: Envelope = { planner, files: {}, programs: [], again: null };
  for (const { name, parts } of files) {
    const hash = createHash('sha256');
    let bytes = 0;
    writeFileSync(path.join(aside, name), '');
    for (const p of parts) {
      writeFileSync(path.join(aside, name), p, { flag: 'a' });
      hash.update(p);
      bytes += p.byteLength;
    }
    envelope.files[name] = { bytes, sha256: hash.digest('hex') };
    if (name.endsWith('.nc')) envelope.programs.push(envelope.files[name].sha256);
  }
  if (before && before.planner !== planner)
    envelope.again = JSON.stringify(before.programs) === JSON.stringify(envelope.programs) ? 'same' : 'changed';
  writeFileSync(path.join(aside, ENVELOPE), JSON.stringify(envelope));
  const old = `${aside}.old`;
  try {
    renameSync(folder, old);
  } catch {
    // There was none.
  }
  renameSync(aside, folder);
  rmSync(old, { recursive: true, force: true });
  return envelope;
}

/** Age from which a half-written result counts as left behind, ms. */
const STALE_PART = 3_600_000;

/** Removes what a crash left half done, unless another process may still be at it. */
function sweep(folder: string): void {
  for (const name of readdirSync(folder)) {
    const full = path.join(folder, name);
    if (/\.part(\.old)?$/.test(name) && Date.now() - statSync(full).mtimeMs > STALE_PART)
      rmSync(full, { recursive: true, force: true });
  }
}

/** Results of plans by the hash of their document; a damaged or missing one counts as none. */
export class ResultStore {
  /** Files whose content was checked in this process, by what would change if they did. */
  private readonly checked = new Map<string, string>();

  constructor(
    readonly folder: string,
    readonly planner: string,
  ) {
    mkdirSync(folder, { recursive: true });
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
}
