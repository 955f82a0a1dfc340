import type { LayerOf } from '../../../doc/layer';
import type { Words } from '../../../doc/words';
import { clean } from '../../../units/round';

/** What words are called until somebody gives them a name: their first line. */
export const nameOfWords = (w: Pick<Words, 'text'>): string => w.text.split('\n')[0].trim().slice(0, 80);

/** Gives a layer other words, with the size that they were measured to have; a name that followed its words goes on doing so. */
export function setWords(l: LayerOf<'words'>, words: Words, size: { x: number; y: number }): void {
  if (l.name === nameOfWords(l.source.words)) l.name = nameOfWords(words) || l.name;
  l.source.words = words;
  l.size = { x: clean(size.x), y: clean(size.y) };
}
