import type { LayerOf } from '../../../doc/layer';
import { layWords } from '../../../sources/lettering';
import { polygonPiece } from '../../polygon-piece';
import { scaleRelief } from '../../scale-lengths';
import { type Files, NO_FACTS, type SourceKind } from '../kind';
import { scaleWords } from './scale';

/** Fonts that were uploaded are named by their hash. */
const HASH = /^[0-9a-f]{64}$/;

const laid = async ({ source: { words } }: LayerOf<'words'>, files: Files) =>
  layWords(words, await files.font(words.font, words.fontName));

/** Words in a font. */
export const words: SourceKind<'words'> = {
  kind: 'words',
  name: 'words',
  described: 'words',
  files: ({ source: { words } }) => (HASH.test(words.font) ? [words.font] : []),
  contentKey: ({ source }) => JSON.stringify(['words', source.words]),
  passing: false,
  load: async (l, files) => ({ polygon: (await laid(l, files)).polygon }),
  facts: async (l, files) => {
    const { missing, size } = await laid(l, files);
    return { ...NO_FACTS, missing, measured: size };
  },
  outline: (_, content) => content.polygon ?? [],
  relief: ({ source }) => source.relief,
  piece: ({ layer, frame, grid, polygon }) => polygonPiece(polygon!, layer.source.relief, layer, frame, grid),
  scaled: ({ source }, k) => {
    source.words = scaleWords(source.words, k);
  },
  scaleLengths: ({ source }, k) => {
    source.relief = scaleRelief(source.relief, k);
  },
};
