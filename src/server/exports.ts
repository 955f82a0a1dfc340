import { existsSync, readFileSync, renameSync, utimesSync } from 'node:fs';
import path from 'node:path';
import type { Job } from '../core/doc/job';
import { SourceError } from '../core/sources/source-error';
import type { ExportKind, ExportNews, ExportOrder } from '../workers/export.worker';
import { asideOf, contentsOf, keepWithin, makeFolder, removeFile, sweepLeavings } from './files';
import { OneShot } from './one-shot';
import { stageKey } from './stage-cache';

export interface Exported {
  bytes: Buffer;
  /** Heights that black and white stand for, mm. */
  low: number;
  high: number;
}

const HEAVY = 2;

/** Bytes of small pictures that are kept; the ones looked at longest ago go first. */
const PICTURES_LIMIT = 200 * 1024 ** 2;

/** Pictures and models of a job, worked out in a thread of their own, a few at a time; small ones are kept. */
export class Exporter {
  private readonly threads = new OneShot<ExportOrder, ExportNews>('export', HEAVY);

  constructor(private readonly places: { assets: string; cache: string; folder: string; planner: string }) {
    makeFolder(places.folder);
    sweepLeavings(places.folder);
  }

  /**
   * @param setup whose layers are meant; null for the job's first
   * @throws SourceError when there is nothing to export, or a layer's file cannot be read
   */
  async make(job: Job, setup: string | null, kind: ExportKind): Promise<Exported> {
    const { assets, cache, folder, planner } = this.places;
    const { boards, cutters, cell } = job;
    const key = stageKey(`export ${kind}`, planner, { boards, setup, cutters, cell });
    const kept = path.join(folder, key);
    if (kind === 'small' && existsSync(kept)) {
      utimesSync(kept, new Date(), new Date());
      return { bytes: readFileSync(kept), low: 0, high: 0 };
    }
    const out = asideOf(kept);
    try {
      const news = await this.threads.run({ job, setup, assets, cache, planner, kind, out });
      if ('error' in news) throw new SourceError(news.error);
      const bytes = readFileSync(out);
      if (kind === 'small') {
        renameSync(out, kept);
        keepWithin(contentsOf(folder), PICTURES_LIMIT);
      }
      return { bytes, ...news };
    } finally {
      removeFile(out);
    }
  }
}
