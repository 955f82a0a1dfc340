import { createHash, randomUUID } from 'node:crypto';
import {
  closeSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs';
import path from 'node:path';

/** What is done to the disk, in its order. */
export type FileStep =
  | { kind: 'folder' | 'write' | 'sync' | 'remove'; path: string }
  | { kind: 'rename'; path: string; to: string };

let watcher: ((step: FileStep) => void) | null = null;

/** Has every step of the files below told from now on; null ends it. For tests that replay a power cut at each of them. */
export function watchFiles(told: ((step: FileStep) => void) | null): void {
  watcher = told;
}

/** Makes a folder and those above it, each entered on the disk. */
export function makeFolder(folder: string): void {
  const first = mkdirSync(folder, { recursive: true });
  if (first === undefined) return;
  watcher?.({ kind: 'folder', path: folder });
  for (let f = folder; f.length >= first.length; f = path.dirname(f)) syncFolder(path.dirname(f));
}

/** Writes a file of parts, on the disk when this returns; `sync` false leaves that to the system, for what can be made again. */
export function writeParts(file: string, parts: Iterable<Uint8Array>, sync = true): { bytes: number; sha256: string } {
  const hash = createHash('sha256');
  const fd = openSync(file, 'w');
  let bytes = 0;
  try {
    watcher?.({ kind: 'write', path: file });
    for (const part of parts) {
      hash.update(part);
      // A disk that fills up takes a part of what it is given before it refuses.
      for (let at = 0; at < part.byteLength; ) at += writeSync(fd, part, at);
      bytes += part.byteLength;
    }
    if (sync) {
      fsyncSync(fd);
      watcher?.({ kind: 'sync', path: file });
    }
  } finally {
    closeSync(fd);
  }
  return { bytes, sha256: hash.digest('hex') };
}

/** Tells that a file written elsewhere (a stream with `flush`) is on the disk. */
export function noteSynced(file: string): void {
  watcher?.({ kind: 'write', path: file });
  watcher?.({ kind: 'sync', path: file });
}

/** Enters a folder's names on the disk: new files in it are found again after a power cut. */
export function syncFolder(folder: string): void {
  const fd = openSync(folder, 'r');
  try {
    fsyncSync(fd);
  } finally {
    closeSync(fd);
  }
  watcher?.({ kind: 'sync', path: folder });
}

/** Gives a file or folder another name, on the disk when this returns. */
export function moveFile(from: string, to: string): void {
  renameSync(from, to);
  watcher?.({ kind: 'rename', path: from, to });
  syncFolder(path.dirname(to));
}

/** Removes a file, or a folder with all in it; what is not there is no error. */
export function removeFile(file: string): void {
  rmSync(file, { recursive: true, force: true });
  watcher?.({ kind: 'remove', path: file });
}

/** A name beside a file for what is written before it takes the file's place; it says which process writes it. */
export function asideOf(file: string): string {
  return `${file}.${process.pid}.${randomUUID()}.part`;
}

const ASIDE = /\.(\d+)\.[0-9a-f-]{36}\.part(\.old)?$/;

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (e) {
    return (e as NodeJS.ErrnoException).code === 'EPERM';
  }
}

/** Names in a folder that a process wrote aside and left behind: it has ended, or its number is this process's and they are older. */
export function leavings(folder: string): string[] {
  return readdirSync(folder).filter((name) => {
    const aside = ASIDE.exec(name);
    if (!aside) return false;
    const pid = Number(aside[1]);
    if (pid !== process.pid) return !isAlive(pid);
    const made = statSync(path.join(folder, name), { throwIfNoEntry: false })?.mtimeMs ?? 0;
    return made < performance.timeOrigin;
  });
}

/** Removes what processes that have ended left half done in a folder. */
export function sweepLeavings(folder: string): void {
  for (const name of leavings(folder)) removeFile(path.join(folder, name));
}

export interface Kept {
  path: string;
  bytes: number;
  /** When it was last used, ms. */
  time: number;
}

/** What lies in a folder, with the bytes of all below it, the one used last first. What is still being written is left out. */
export function contentsOf(folder: string): Kept[] {
  const out: Kept[] = [];
  for (const name of readdirSync(folder)) {
    if (ASIDE.test(name)) continue;
    const full = path.join(folder, name);
    const s = statSync(full, { throwIfNoEntry: false });
    if (!s) continue;
    const bytes = s.isDirectory() ? contentsOf(full).reduce((n, f) => n + f.bytes, 0) : s.size;
    out.push({ path: full, bytes, time: s.mtimeMs });
  }
  return out.sort((a, b) => b.time - a.time);
}

/** Removes the last of a list that are over a number of bytes together. */
export function keepWithin(list: Kept[], limit: number): void {
  let total = 0;
  for (const f of list) {
    total += f.bytes;
    if (total > limit) removeFile(f.path);
  }
}
