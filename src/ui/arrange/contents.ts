import type { Content } from '@/core/arrange/render';
import type { Layer } from '@/core/doc/layer';
import type { Words } from '@/core/doc/words';
import { unpackStage } from '@/core/plan/pack';
import type { HeightImage } from '@/core/sources/height-image';
import { type Font, type LaidWords, layWords, readFont } from '@/core/sources/lettering';
import { toneImage } from '@/core/sources/tone';

/** What a layer's content is known by: all that it depends on. */
export function contentKey(l: Layer): string {
  const s = l.source;
  switch (s.kind) {
    case 'mesh':
      return JSON.stringify(['mesh', s.hash, s.turns, s.flip, s.base]);
    case 'image':
      return JSON.stringify(['image', s.hash, s.tone]);
    case 'words':
      return JSON.stringify(['words', s.words]);
    case 'shape':
      return 'shape';
  }
}

const TRIES = 3;
const PAUSE = 400;

/** Bytes of a view of a stored file. A browser's own store may refuse so large an answer: it is passed by. */
async function bytesFrom(url: string): Promise<ArrayBuffer> {
  for (let n = 1; ; n++) {
    let res: Response;
    try {
      res = await fetch(url, { cache: 'no-store' });
      if (res.ok) return await res.arrayBuffer();
    } catch {
      if (n >= TRIES) throw new Error('the server does not answer; what was saved is not lost');
      await new Promise((r) => setTimeout(r, n * PAUSE));
      continue;
    }
    const { error } = (await res.json().catch(() => ({}))) as { error?: string };
    throw new Error(error ?? `the server answers with ${res.status}; load the page again`);
  }
}

const MOST_TONED = 6;

/** The contents of layers as the page works with them, fetched once each. */
export class Contents {
  private readonly ready = new Map<string, Content>();
  private readonly coming = new Map<string, Promise<void>>();
  private readonly failed = new Map<string, string>();
  private readonly images = new Map<string, Promise<HeightImage>>();
  private readonly fonts = new Map<string, Promise<Font>>();
  private readonly toned: string[] = [];

  get(l: Layer): Content | null {
    return l.source.kind === 'shape' ? {} : (this.ready.get(contentKey(l)) ?? null);
  }

  /** Why a layer cannot be shown, or null. */
  problem(l: Layer): string | null {
    return this.failed.get(contentKey(l)) ?? null;
  }

  /** Fetches what these layers need and is not here yet. */
  async load(layers: Layer[]): Promise<void> {
    await Promise.all(layers.filter((l) => this.get(l) === null).map((l) => this.fetchOne(l)));
  }

  private fetchOne(l: Layer): Promise<void> {
    const key = contentKey(l);
    if (this.failed.has(key)) return Promise.resolve();
    let p = this.coming.get(key);
    if (!p) {
      p = this.make(l)
        .then(
          (c) => {
            this.ready.set(key, c);
            if (l.source.kind === 'image') this.keepFew(key);
          },
          (e) => {
            this.failed.set(key, (e as Error).message);
          },
        )
        .finally(() => this.coming.delete(key));
      this.coming.set(key, p);
    }
    return p;
  }

  /** Toned images are large: while a slider moves only the last few are worth keeping. */
  private keepFew(key: string): void {
    this.toned.push(key);
    if (this.toned.length > MOST_TONED) this.ready.delete(this.toned.shift()!);
  }

  private async make(l: Layer): Promise<Content> {
    const s = l.source;
    if (s.kind === 'mesh') {
      const [tx, ty, tz] = s.turns;
      const buffer = await bytesFrom(
        `/api/assets/${s.hash}/raster?tx=${tx}&ty=${ty}&tz=${tz}&flip=${s.flip ? 1 : 0}&base=${s.base}`,
      );
      const { meta, arrays } = unpackStage(buffer);
      return { raster: { ...(meta as { width: number; height: number }), data: arrays.data as Float32Array } };
    }
    if (s.kind === 'image') {
      let image = this.images.get(s.hash);
      if (!image) {
        image = bytesFrom(`/api/assets/${s.hash}/pixels`).then((buffer) => {
          const { meta, arrays } = unpackStage(buffer);
          return { ...(meta as Omit<HeightImage, 'values'>), values: arrays.values as Float32Array };
        });
        this.images.set(s.hash, image);
        image.catch(() => this.images.delete(s.hash));
      }
      return { image: toneImage(await image, s.tone) };
    }
    if (s.kind === 'words') return { polygon: (await this.lay(s.words)).polygon };
    return {};
  }

  /** Words set in their font. */
  async lay(w: Words): Promise<LaidWords> {
    let font = this.fonts.get(w.font);
    if (!font) {
      font = bytesFrom(`/api/fonts/${w.font}`).then((b) => readFont(new Uint8Array(b), w.fontName));
      this.fonts.set(w.font, font);
      font.catch(() => this.fonts.delete(w.font));
    }
    return layWords(w, await font);
  }
}
