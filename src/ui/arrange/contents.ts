import { AskError, ask } from '@/contract/ask';
import { ASSETS } from '@/contract/assets';
import type { At, Endpoint } from '@/contract/endpoint';
import type { Content, Files } from '@/core/arrange/kinds/kind';
import { sourceKind } from '@/core/arrange/kinds/registry';
import type { Layer } from '@/core/doc/layer';
import type { Words } from '@/core/doc/words';
import type { HeightImage } from '@/core/sources/height-image';
import { type Font, type LaidWords, layWords, readFont } from '@/core/sources/lettering';

const TRIES = 3;
const PAUSE = 400;

/** Asks for a view of a stored file, more than once where nothing answers. A browser's own store may refuse so large an answer: it is passed by. */
async function fetched<E extends Endpoint>(e: E, at: At<E>) {
  for (let n = 1; ; n++) {
    try {
      return await ask(e, at, undefined, { cache: 'no-store' });
    } catch (error) {
      if (n >= TRIES || !(error instanceof AskError) || error.status !== 0) throw error;
      await new Promise((r) => setTimeout(r, n * PAUSE));
    }
  }
}

/** Most passing contents that are kept. */
const MOST_PASSING = 6;

/** What is made or fetched once by its name, and again where that failed. */
function once<T>(all: Map<string, Promise<T>>, name: string, make: () => Promise<T>): Promise<T> {
  let had = all.get(name);
  if (!had) {
    had = make();
    all.set(name, had);
    had.catch(() => all.delete(name));
  }
  return had;
}

const keyOf = (l: Layer) => sourceKind(l).contentKey(l);

/** The contents of layers as the page works with them, fetched once each. */
export class Contents {
  private readonly ready = new Map<string, Content>();
  private readonly coming = new Map<string, Promise<void>>();
  private readonly failed = new Map<string, { why: string; lasting: boolean }>();
  private readonly images = new Map<string, Promise<HeightImage>>();
  private readonly fonts = new Map<string, Promise<Font>>();
  private readonly passing: string[] = [];

  private readonly files: Files = {
    mesh: async ({ source: { hash, base, turns, flip } }) => {
      const [tx, ty, tz] = turns;
      return { raster: await fetched(ASSETS.raster, { hash, tx, ty, tz, flip: flip ? '1' : '0', base }) };
    },
    image: ({ source: { hash } }) => once(this.images, hash, () => fetched(ASSETS.pixels, { hash })),
    font: (id, name) =>
      once(this.fonts, id, async () => {
        const res = await fetched(ASSETS.font, { id });
        return readFont(new Uint8Array(await res.arrayBuffer()), name);
      }),
  };

  get(l: Layer): Content | null {
    return this.ready.get(keyOf(l)) ?? null;
  }

  /** Why a layer cannot be shown, or null. */
  problem(l: Layer): string | null {
    return this.failed.get(keyOf(l))?.why ?? null;
  }

  /** Fetches what these layers need and is not here yet; what did not come because nothing answered is asked for again. */
  async load(layers: Layer[]): Promise<void> {
    await Promise.all(layers.filter((l) => this.get(l) === null).map((l) => this.fetchOne(l)));
  }

  private fetchOne(l: Layer): Promise<void> {
    const key = keyOf(l);
    if (this.failed.get(key)?.lasting) return Promise.resolve();
    let p = this.coming.get(key);
    if (!p) {
      p = sourceKind(l)
        .load(l, this.files)
        .then(
          (c) => {
            this.ready.set(key, c);
            this.failed.delete(key);
            if (sourceKind(l).passing) this.keepFew(key);
          },
          (e) => {
            this.failed.set(key, { why: (e as Error).message, lasting: !(e instanceof AskError) || e.status !== 0 });
          },
        )
        .finally(() => this.coming.delete(key));
      this.coming.set(key, p);
    }
    return p;
  }

  /** Contents that are large and wanted for a moment, as while a slider moves: only the last few are worth keeping. */
  private keepFew(key: string): void {
    this.passing.push(key);
    if (this.passing.length > MOST_PASSING) this.ready.delete(this.passing.shift()!);
  }

  /** Words set in their font. */
  async lay(w: Words): Promise<LaidWords> {
    return layWords(w, await this.files.font(w.font, w.fontName));
  }
}
