import { readFile } from 'node:fs/promises';
import path from 'node:path';
import type { Files } from '../core/arrange/kinds/kind';
import { sourceKind } from '../core/arrange/kinds/registry';
import type { Layer, LayerOf } from '../core/doc/layer';
import type { LoadContent } from '../core/plan/composing';
import { FONTS } from '../core/sources/fonts';
import type { Source } from '../core/sources/inspect';
import { type Font, readFont } from '../core/sources/lettering';
import { SourceError } from '../core/sources/source-error';
import { readSource } from './read-source';

/** The bytes of a font that comes with the program. */
export function shippedFont(id: string): Promise<Buffer> | null {
  const f = FONTS.find((e) => e.id === id);
  return f ? readFile(path.resolve(/* turbopackIgnore: true */ process.cwd(), 'node_modules', f.file)) : null;
}

/**
 * Reads the contents of layers from their files, each file once.
 * @param read the bytes of a file by its hash; the name that the person knows it by is for refusals
 */
export function contentLoader(read: (hash: string, file: string) => Uint8Array): LoadContent {
  const sources = new Map<string, Promise<Source>>();
  const fonts = new Map<string, Promise<Font>>();
  const sourceOf = (hash: string, file: string) => {
    let s = sources.get(hash);
    if (!s) {
      s = Promise.resolve().then(() => readSource(read(hash, file), file));
      sources.set(hash, s);
    }
    return s;
  };
  const fontOf = (id: string, name: string) => {
    let f = fonts.get(id);
    if (!f) {
      const shipped = shippedFont(id);
      f = shipped ? shipped.then((b) => readFont(b, name)) : sourceOf(id, name).then((s) => s.font!);
      fonts.set(id, f);
    }
    return f;
  };
  const wrong = (l: LayerOf<'mesh' | 'image'>, what: string) =>
    new SourceError(`${l.source.file}: is not ${what}, as ${l.name} says it is; choose its file again`);
  const files: Files = {
    mesh: async (l) => {
      const { mesh } = await sourceOf(l.source.hash, l.source.file);
      if (!mesh) throw wrong(l, 'a mesh');
      return { mesh };
    },
    image: async (l) => {
      const { image } = await sourceOf(l.source.hash, l.source.file);
      if (!image) throw wrong(l, 'an image');
      return image;
    },
    font: fontOf,
  };
  const load = async (l: Layer) => {
    const kind = sourceKind(l);
    return { content: await kind.load(l, files), facts: await kind.facts(l, files) };
  };
  // A plan draws its layers on several grids: their contents are made once.
  const made = new Map<string, ReturnType<LoadContent>>();
  return (l: Layer) => {
    const key = sourceKind(l).contentKey(l);
    const one = made.get(key) ?? load(l);
    made.set(key, one);
    return one;
  };
}
