import type { StageResult } from '../core/plan/stage';
import type { SourceInfo } from '../core/sources/inspect';
import { SourceError } from '../core/sources/source-error';
import type { ReadNews, ReadOrder } from '../workers/reader.worker';
import { OneShot } from './one-shot';
import { type StageCache, stageKey } from './stage-cache';

/** Files read at once: the largest mesh that is taken needs about 600 MB while it is read. */
const READING = 2;

type Ask<K extends ReadOrder['ask']> = Omit<Extract<ReadOrder, { ask: K }>, 'path' | 'file' | 'ask'>;

/**
 * Reads stored files in threads of their own, so that the server answers meanwhile. What the page is shown of them is worked
 * out once, kept on disk, and shared by those who ask at once.
 */
export class Reader {
  private readonly threads = new OneShot<ReadOrder, ReadNews>('reader', READING);
  private readonly coming = new Map<string, Promise<StageResult>>();

  /** @param planner part of the keys: what is shown of a file is worked out by the same code that plans it */
  constructor(
    private readonly cache: StageCache,
    private readonly planner: string,
  ) {}

  private async ask(order: ReadOrder, signal?: AbortSignal) {
    const news = await this.threads.run(order, signal);
    if ('refused' in news) throw new SourceError(news.refused);
    return news;
  }

  /** What a file holds and how it is proposed to be taken. @throws SourceError */
  async inspect(path: string, file: string, signal?: AbortSignal): Promise<SourceInfo> {
    return ((await this.ask({ ask: 'inspect', path, file }, signal)) as { info: SourceInfo }).info;
  }

  /** The same of a mesh in a given orientation. @throws SourceError */
  async describe(path: string, file: string, more: Ask<'describe'>): Promise<SourceInfo> {
    return ((await this.ask({ ask: 'describe', path, file, ...more })) as { info: SourceInfo }).info;
  }

  /** An image's heights before any toning; a mesh seen from above; a small picture as PNG. @throws SourceError */
  view<K extends 'pixels' | 'raster' | 'picture'>(
    ask: K,
    hash: string,
    path: string,
    file: string,
    more: Ask<K>,
  ): Promise<StageResult> {
    const key = stageKey(ask, this.planner, { hash, ...more });
    let p = this.coming.get(key);
    if (!p) {
      p = this.find(key, { ask, path, file, ...more } as ReadOrder).finally(() => this.coming.delete(key));
      this.coming.set(key, p);
    }
    return p;
  }

  private async find(key: string, order: ReadOrder): Promise<StageResult> {
    const had = this.cache.get(key);
    if (had) return had;
    const made = ((await this.ask(order)) as { view: StageResult }).view;
    this.cache.put(key, made);
    return made;
  }
}
