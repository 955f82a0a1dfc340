import type { Layer, SourceName } from '@/core/doc/layer';
import { imageFields } from './image-fields';
import type { KindFields } from './kind-fields';
import { meshFields } from './mesh-fields';
import { shapeFields } from './shape-fields';
import { turnedFields } from './turned-fields';
import { wordsFields } from './words-fields';

/** The fields of all kinds of sources. */
const FIELDS: { [K in SourceName]: KindFields<K> } = {
  mesh: meshFields,
  image: imageFields,
  shape: shapeFields,
  words: wordsFields,
  turned: turnedFields,
};

/** The fields of a layer's kind. */
export const fieldsOf = (l: Layer): KindFields => FIELDS[l.source.kind] as unknown as KindFields;
