import { splitLines } from '@/core/arrange/kinds/words/split';
import { isOf, type LayerOf } from '@/core/doc/layer';
import { newId } from '../actions';
import { arranged } from '../use-arrangement';
import type { FieldsProps } from './kind-fields';

/** Makes each line of words a layer of its own, where it stood. */
export async function splitInto(
  layer: LayerOf<'words'>,
  change: FieldsProps['change'],
  onSelect: FieldsProps['onSelect'],
): Promise<void> {
  const { words } = layer.source;
  const lines = words.text.split('\n');
  const sizes = await Promise.all(
    lines.map((text) =>
      text.trim() === ''
        ? { x: 1, y: 1 }
        : arranged('quick', (a) => a.measure({ ...words, text, nudges: {} })).then((m) => m.size),
    ),
  );
  const ids = lines.map(() => newId());
  change((j) => {
    const at = j.layers.findIndex((l) => l.id === layer.id);
    const own = j.layers[at];
    if (own && isOf(own, 'words')) j.layers.splice(at, 1, ...splitLines(own, ids, sizes));
  });
  onSelect([ids[0]]);
}
