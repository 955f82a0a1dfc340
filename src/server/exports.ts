import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Job } from '../core/doc/job';
import { SourceError } from '../core/sources/source-error';
import type { ExportKind, ExportNews, ExportOrder } from '../workers/export.worker';
import { OneShot } from './one-shot';
import { stageKey } from './stage-cache';

export interface Exported {
  bytes: Buffer;
  /** Heights that black and white stand for, mm. */
  low: number;
  high: number;
}

const HEAVY = 2;

/** Pictures and models of a job, worked out in a thread of their own, a few at a time; small ones are kept. */
export class Exporter {
  private readonly threads = new OneShot<ExportOrder, ExportNews>('export', HEAVY);

  constructor(private readonly places: { assets: string; cache: string; folder: string; planner: string }) {
    mkdirSync(places.folder, { recursive: true });
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
    if (kind === 'small' && existsSync(kept)) return { bytes: readFileSync(kept), low: 0, high: 0 };
    const out = path.join(folder, `${randomUUID()}.part`);
    try {
      const news = await this.threads.run({ job, setup, assets, cache, planner, kind, out });
      if ('error' in news) throw new SourceError(news.error);
      const bytes = readFileSync(out);
      if (kind === 'small') {
        const aside = `${kept}.${process.pid}.part`;
        writeFileSync(aside, bytes);
        renameSync(aside, kept);
      }
      return { bytes, ...news };
    } finally {
      rmSync(out, { force: true });
    }
  }
}
