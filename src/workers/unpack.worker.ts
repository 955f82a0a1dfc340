import { parentPort, workerData } from 'node:worker_threads';
import type { Job } from '../core/doc/job';
import { SourceError } from '../core/sources/source-error';
import { type UnpackedFile, unpackArchive } from '../server/unpack';

export interface UnpackOrder {
  /** The archive on disk, and the name that the person knows it by. */
  path: string;
  file: string;
  /** Where its files are unpacked to, aside. */
  folder: string;
}
export type UnpackNews = { job: Job; files: UnpackedFile[] } | { refused: string };

try {
  parentPort!.postMessage(unpackArchive(workerData as UnpackOrder) satisfies UnpackNews);
} catch (e) {
  if (!(e instanceof SourceError)) throw e;
  parentPort!.postMessage({ refused: e.message } satisfies UnpackNews);
}
