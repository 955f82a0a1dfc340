import svgpath from 'svgpath';
import type { Words } from '../../../doc/words';
import { clean } from '../../../units/round';

/** Words of another size: letters, spaces and the line that they stand on grow together. */
export function scaleWords(w: Words, k: number): Words {
  const nudges = Object.fromEntries(Object.entries(w.nudges).map(([i, v]) => [i, clean(v * k)]));
  const line =
    w.line.kind === 'arc'
      ? { ...w.line, radius: clean(w.line.radius * k) }
      : w.line.kind === 'curve'
        ? { ...w.line, d: svgpath(w.line.d).scale(k).round(4).toString() }
        : w.line;
  return { ...w, height: clean(w.height * k), spacing: clean(w.spacing * k), nudges, line };
}
