import type { LayerOf } from '../../../doc/layer';
import { clean } from '../../../units/round';

/** Each line of words as a layer of its own, where it stood. @param sizes of the lines as they would be set alone */
export function splitLines(l: LayerOf<'words'>, ids: string[], sizes: { x: number; y: number }[]): LayerOf<'words'>[] {
  const { words } = l.source;
  const lines = words.text.split('\n');
  const a = (l.turn * Math.PI) / 180;
  let first = 0;
  return lines
    .map((text, i) => {
      const nudges = Object.fromEntries(
        Object.entries(words.nudges)
          .map(([k, v]) => [Number(k) - first, v] as const)
          .filter(([k]) => k >= 0 && k < [...text].length)
          .map(([k, v]) => [String(k), v]),
      );
      first += [...text].length + 1;
      const up = ((lines.length - 1) / 2 - i) * words.lineGap * words.height;
      const sideways = words.align === 'middle' ? 0 : ((words.align === 'left' ? -1 : 1) * (l.size.x - sizes[i].x)) / 2;
      return {
        ...structuredClone(l),
        id: ids[i],
        name: text.trim().slice(0, 80) || 'Line',
        source: { ...l.source, words: { ...words, text, nudges } },
        size: { x: clean(sizes[i].x), y: clean(sizes[i].y) },
        centre: {
          x: clean(l.centre.x + sideways * Math.cos(a) - up * Math.sin(a)),
          y: clean(l.centre.y + sideways * Math.sin(a) + up * Math.cos(a)),
        },
      };
    })
    .filter((n) => n.source.words.text.trim() !== '');
}
