import { readFile } from 'node:fs/promises';
import path from 'node:path';
import type { Layer } from '../core/doc/layer';
import type { ContentFacts, LoadContent } from '../core/plan/compose-job';
import { FONTS } from '../core/sources/fonts';
import { BLACK, describeMesh, isRecess, type Source } from '../core/sources/inspect';
import { type Font, layWords, readFont } from '../core/sources/lettering';
import { SourceError } from '../core/sources/source-error';
import { findTerraces } from '../core/sources/terraces';
import { toneImage } from '../core/sources/tone';
import { readSource } from './read-source';

const NO_FACTS: ContentFacts = { depth: 0, step: 0, missing: [], measured: null, recess: false };

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
  return async (l: Layer) => {
    const s = l.source;
    switch (s.kind) {
      case 'mesh': {
        const { mesh } = await sourceOf(s.hash, s.file);
        if (!mesh) throw new SourceError(`${s.file}: is not a mesh, as ${l.name} says it is; choose its file again`);
        const recess = describeMesh(mesh, { turns: s.turns, mirror: s.flip }).recess;
        return { content: { mesh }, facts: { ...NO_FACTS, recess } };
      }
      case 'image': {
        const { image } = await sourceOf(s.hash, s.file);
        if (!image) throw new SourceError(`${s.file}: is not an image, as ${l.name} says it is; choose its file again`);
        const steps = findTerraces(image.values, image.width);
        const recess = isRecess(image.values, image.width, image.height, BLACK);
        return {
          content: { image: toneImage(image, s.tone) },
          facts: { ...NO_FACTS, depth: image.depth, step: steps?.step ?? 0, recess },
        };
      }
      case 'shape':
        return { content: {}, facts: NO_FACTS };
      case 'words': {
        const laid = layWords(s.words, await fontOf(s.words.font, s.words.fontName));
        return {
          content: { polygon: laid.polygon },
          facts: { ...NO_FACTS, missing: laid.missing, measured: laid.size },
        };
      }
    }
  };
}
