import { BLACK, isRecess } from '../../../sources/inspect';
import { findTerraces } from '../../../sources/terraces';
import { toneImage } from '../../../sources/tone';
import { picturePiece } from '../../picture-piece';
import { NO_FACTS, type SourceKind } from '../kind';

/** A relief from an image. */
export const image: SourceKind<'image'> = {
  kind: 'image',
  name: 'image',
  described: 'relief from an image',
  files: ({ source }) => [source.hash],
  contentKey: ({ source: s }) => JSON.stringify(['image', s.hash, s.tone]),
  passing: true,
  load: async (l, files) => ({ image: toneImage(await files.image(l), l.source.tone) }),
  facts: async (l, files) => {
    const { values, width, height, depth } = await files.image(l);
    const step = findTerraces(values, width)?.step ?? 0;
    return { ...NO_FACTS, depth, step, recess: isRecess(values, width, height, BLACK) };
  },
  piece: ({ layer, content, frame, grid }) =>
    picturePiece(content.image!, layer, frame, grid, layer.source.blackIsGround, false, false),
};
