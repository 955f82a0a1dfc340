import { readFileSync } from 'node:fs';
import type { Job } from '../core/doc/job';
import { SourceError } from '../core/sources/source-error';
import type { ExportKind, ExportNews, ExportOrder } from '../workers/export.worker';
import { removeFile } from './files';
import { OneShot } from './one-shot';
import type { PictureStore } from './picture-store';
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

  constructor(private readonly places: { assets: string; cache: string; planner: string; pictures: PictureStore }) {}

  /**
   * @param setup whose layers are meant; null for the job's first
   * @throws SourceError when there is nothing to export, or a layer's file cannot be read
   */
  async make(job: Job, setup: string | null, kind: ExportKind): Promise<Exported> {
    const { assets, cache, planner, pictures } = this.places;
    const { boards, cutters, cell } = job;
    const key = stageKey(`export ${kind}`, planner, { boards, setup, cutters, cell });
    const kept = kind === 'small' ? pictures.get(key) : null;
    if (kept) return { bytes: kept, low: 0, high: 0 };
    const out = pictures.aside(key);
    try {
      const news = await this.threads.run({ job, setup, assets, cache, planner, kind, out });
      if ('error' in news) throw new SourceError(news.error);
      const bytes = readFileSync(out);
      if (kind === 'small') pictures.put(key, bytes);
      return { bytes, ...news };
    } finally {
      removeFile(out);
    }
  }
}
