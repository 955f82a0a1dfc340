import { outlinePolygon, workEdge } from '../../../outline/shapes';
import { polygonPiece } from '../../polygon-piece';
import { scaleEdge, scaleOutline, scaleRelief } from '../../scale-lengths';
import { NO_FACTS, type SourceKind } from '../kind';

/** A shape of our own. */
export const shape: SourceKind<'shape'> = {
  kind: 'shape',
  name: 'shape',
  described: 'shape',
  files: () => [],
  contentKey: () => 'shape',
  passing: false,
  load: async () => ({}),
  facts: async () => NO_FACTS,
  outline: ({ source, size }) => workEdge(outlinePolygon(source.outline, size.x, size.y), source.edge),
  relief: ({ source }) => source.relief,
  piece: ({ layer, frame, grid, polygon }) => polygonPiece(polygon!, layer.source.relief, layer, frame, grid),
  scaleLengths: ({ source }, k) => {
    source.outline = scaleOutline(source.outline, k);
    source.edge = scaleEdge(source.edge, k);
    source.relief = scaleRelief(source.relief, k);
  },
};
