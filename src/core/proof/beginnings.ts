import type { Run } from './simulate';

/** The line of the comment that each pass of a program begins with; null where one of them is not there, as in a program from elsewhere. */
export function beginnings(titles: string[], notes: Run['notes']): number[] | null {
  const lines: number[] = [];
  for (const title of titles) {
    const note = notes.find((n) => n.line > (lines.at(-1) ?? 0) && n.text === title);
    if (!note) return null;
    lines.push(note.line);
  }
  return lines;
}
