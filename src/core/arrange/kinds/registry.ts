import type { Layer, SourceName } from '../../doc/layer';
import { image } from './image/kind';
import type { SourceKind } from './kind';
import { mesh } from './mesh/kind';
import { shape } from './shape/kind';
import { turned } from './turned/kind';
import { words } from './words/kind';

/** All kinds of sources; a new one has a line here and one in doc/layer.ts. */
const KINDS = [mesh, image, shape, words, turned];

const byName = new Map(KINDS.map((k) => [k.kind as SourceName, k as unknown as SourceKind]));

/** What is known of the kind of a layer's source. */
export const sourceKind = (l: Pick<Layer, 'source'>): SourceKind => byName.get(l.source.kind) as SourceKind;
