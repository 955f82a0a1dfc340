import { describeMesh } from '../../../sources/inspect';
import { picturePiece } from '../../picture-piece';
import { NO_FACTS, type SourceKind } from '../kind';
import { meshPiece } from './piece';

/** A relief from a model. */
export const mesh: SourceKind<'mesh'> = {
  kind: 'mesh',
  name: 'relief',
  described: 'relief from a model',
  files: ({ source }) => [source.hash],
  contentKey: ({ source: s }) => JSON.stringify(['mesh', s.hash, s.turns, s.flip, s.base]),
  passing: false,
  load: (l, files) => files.mesh(l),
  facts: async (l, files) => {
    const { mesh } = await files.mesh(l);
    const { turns, flip } = l.source;
    return { ...NO_FACTS, recess: mesh !== undefined && describeMesh(mesh, { turns, mirror: flip }).recess };
  },
  piece: ({ layer, content, frame, grid }) => {
    if (content.mesh) return meshPiece(content.mesh, layer.source, layer, frame, grid);
    const { width, height, data } = content.raster!;
    return picturePiece({ width, height, values: data }, layer, frame, grid, false, true, true);
  },
  report: ({ source }) => ({ unit: source.unit, turns: source.turns }),
};
