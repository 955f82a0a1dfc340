/** Something that can be done or gone to by its name. */
export interface Command {
  id: string;
  /** What it belongs to, as a heading: stations, layers, jobs. */
  group: string;
  name: string;
  /** The keys that do the same, if any. */
  keys?: string;
  run(): void;
}

/** Most commands that are shown at once. */
export const MOST_SHOWN = 40;

/** How well a name answers a word: at its beginning, at that of one of its words, within; -1 where it does not. */
function rank(name: string, word: string): number {
  const at = name.indexOf(word);
  if (at < 0) return -1;
  if (at === 0) return 3;
  return new RegExp(`[\\s,./-]${word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}`).test(name) ? 2 : 1;
}

/**
 * The commands whose name or group has every word of a text, those whose name begins with one first; else in their own order.
 * All of them, as far as they are shown, for an empty text.
 */
export function matching(commands: Command[], text: string): Command[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const found: { c: Command; points: number }[] = [];
  for (const c of commands) {
    const name = c.name.toLowerCase();
    let points = 0;
    const all = words.every((w) => {
      const r = rank(name, w);
      if (r >= 0) points += r;
      return r >= 0 || c.group.toLowerCase().includes(w);
    });
    if (all) found.push({ c, points });
  }
  return found
    .sort((a, b) => b.points - a.points)
    .slice(0, MOST_SHOWN)
    .map(({ c }) => c);
}
