import type { StageResult } from '../core/plan/stage';
import { type StageCache, stageKey } from './stage-cache';

/** What the page is shown of stored files, each worked out once, kept on disk, and shared by those who ask at once. */
export class Views {
  private readonly coming = new Map<string, Promise<StageResult>>();

  constructor(private readonly cache: StageCache) {}

  /** @param input all that the view depends on */
  of(name: string, input: unknown, make: () => Promise<StageResult>): Promise<StageResult> {
    const key = stageKey(name, input);
    let p = this.coming.get(key);
    if (!p) {
      p = this.find(key, make).finally(() => this.coming.delete(key));
      this.coming.set(key, p);
    }
    return p;
  }

  private async find(key: string, make: () => Promise<StageResult>): Promise<StageResult> {
    const had = this.cache.get(key);
    if (had) return had;
    const made = await make();
    this.cache.put(key, made);
    return made;
  }
}
