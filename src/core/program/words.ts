/** Words of one line: its G and M codes, and the other letters with their numbers. */
export interface Line {
  g: number[];
  m: number[];
  words: Map<string, number>;
}

/** Letters of the words that are known. */
const LETTERS = 'NXYZABCIJKRFSTPLHD';

/** A line without its comments, each of which is told. @param fail throws for one that is not closed */
export function withoutComments(line: string, tell: (comment: string) => void, fail: (why: string) => never): string {
  if (!line.includes('(') && !line.includes(';')) return line;
  let rest = line.replace(/\(([^()]*)\)/g, (_, c: string) => {
    tell(c);
    return ' ';
  });
  const semicolon = rest.indexOf(';');
  if (semicolon >= 0) {
    tell(rest.slice(semicolon + 1).trim());
    rest = rest.slice(0, semicolon);
  }
  if (/[()]/.test(rest)) fail('a comment that is not closed');
  return rest;
}

/** The words of a line in capitals. @param fail throws for what is no word, or is said twice */
export function wordsOf(line: string, fail: (why: string) => never): Line {
  const out: Line = { g: [], m: [], words: new Map() };
  const word = /([A-Z])\s*([+-]?\s*(?:\d+\.?\d*|\.\d+))/y;
  while (word.lastIndex < line.length) {
    const from = word.lastIndex;
    const match = word.exec(line);
    if (!match) {
      const gap = /^\s+/.exec(line.slice(from));
      if (!gap) return fail(`"${line.slice(from, from + 12)}" is not a word`);
      if (from + gap[0].length >= line.length) break;
      word.lastIndex = from + gap[0].length;
      continue;
    }
    const value = Number(match[2].replace(/\s/g, ''));
    if (match[1] === 'G') out.g.push(value);
    else if (match[1] === 'M') out.m.push(value);
    else if (out.words.has(match[1])) fail(`the word ${match[1]} twice`);
    else out.words.set(match[1], value);
  }
  for (const letter of out.words.keys()) if (!LETTERS.includes(letter)) fail(`an unknown word ${letter}`);
  return out;
}
