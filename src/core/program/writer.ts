import type { Mark } from '../motion/path';
import { BLOCK, fitArcs } from '../outline/arcs';
import { MM_PER_INCH, trimNumber } from '../units/length';
import type { Dialect } from './dialects/dialect';
import type { OnDrum } from './round';
import { RoundWords } from './round-words';

export interface ProgramPart {
  /** What the part is, for a comment. */
  title: string;
  toolNumber: number;
  rpm: number;
  /** Moves as Path holds them, board coordinates. */
  moves: Float64Array;
  /** Where in its pass the path has come to, told in comments. */
  marks: Mark[];
  /** Most that arcs may lie off the moves, mm; 0 writes every move as it is. */
  arcs: number;
}

export interface ProgramOptions {
  header: string[];
  zero: { x: number; y: number; z: number };
  unit: 'mm' | 'in';
  /** Tip height that clears everything, board coordinates. */
  safeZ: number;
  /** Whether the machine changes bits itself. */
  toolChanger: boolean;
  dialect: Dialect;
  /** What turns the drum that is cut; absent or null for a board. */
  round?: OnDrum | null;
}

/** Text that may stand between parentheses: printable ASCII without parentheses. */
export function commentText(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[()]/g, ' ')
    .replace(/[^\x20-\x7e]/g, '')
    .slice(0, 100)
    .trim();
}

/** Whether the spindle has to start, or take another speed, for a part after the one before it. */
const startsFor = (part: ProgramPart, before: ProgramPart | undefined): boolean =>
  part.toolNumber !== before?.toolNumber || part.rpm !== before.rpm;

/** Time that a program waits for its spindle, s. */
export const waitsOf = (parts: ProgramPart[], { wait }: Dialect): number =>
  wait * parts.filter((p, i) => startsFor(p, parts[i - 1])).length;

/**
 * Writes RS-274 (ISO 6983) text in a dialect of it: absolute coordinates, feed in units a minute, modal words left out when unchanged,
 * and no trailing zeros. A bit that the machine changes gets its length offset, a spindle that starts the time to reach its speed. Heights are rounded upwards, so that rounding never cuts
 * deeper than planned. Arcs are G2 and G3 with their centre from where they start (I, J); ends rounded to the last decimal lie within
 * a thousandth of the same radius. Every program begins and ends at safeZ with the spindle off.
 */
export function writeProgram(parts: ProgramPart[], o: ProgramOptions): string {
  const { dialect } = o;
  const words = wordsFor(o);
  const safe = words.height(o.safeZ);
  const lines: string[] = o.header.map((h) => dialect.comment(commentText(h)));
  const round = o.round ? new RoundWords(o.round, o) : null;
  lines.push(o.unit === 'mm' ? 'G21' : 'G20', `G17 G90 ${round?.mode ?? 'G94'}`, 'G54');
  for (const [i, part] of parts.entries()) {
    const before = parts[i - 1];
    const had = before?.toolNumber ?? 0;
    lines.push(dialect.comment(commentText(part.title)));
    if (part.toolNumber !== had && o.toolChanger) lines.push(...changed(part.toolNumber, had, dialect));
    lines.push(`G0 Z${safe}`);
    if (startsFor(part, before)) lines.push(...started(part.rpm, dialect));
    for (const line of round ? round.lines(part, safe, placeText) : blockLines(part, words, safe, dialect))
      lines.push(line);
  }
  lines.push(...(round?.ending() ?? []), 'M5', dialect.end);
  return `${numberedBy(dialect.numbers, lines).join('\n')}\n`;
}

/** How numbers are written: places along x and y, heights, lengths, and feeds. */
export interface Words {
  x(v: number): string;
  y(v: number): string;
  height(z: number): string;
  /** From a place written before to one along x or y. */
  from(written: string, v: number, axis: 'x' | 'y'): string;
  feed(v: number): string;
}

export function wordsFor({ zero, unit, dialect }: Pick<ProgramOptions, 'zero' | 'unit' | 'dialect'>): Words {
  const digits = dialect.decimals[unit];
  const scale = unit === 'mm' ? 1 : 1 / MM_PER_INCH;
  const grid = 10 ** digits;
  const num = (v: number) => trimNumber(v, digits);
  return {
    x: (v) => num((v - zero.x) * scale),
    y: (v) => num((v - zero.y) * scale),
    height: (z) => num(Math.ceil((z - zero.z) * scale * grid - 1e-6) / grid),
    from: (written, v, axis) => num((v - zero[axis]) * scale - Number(written)),
    feed: (v) => trimNumber(v * scale, unit === 'mm' ? 0 : 1),
  };
}

/** The motions of a part, from the safe height and back to it. */
function* blockLines(part: ProgramPart, words: Words, safe: string, dialect: Dialect): Generator<string> {
  let [x, y, z, f] = ['', '', safe, ''];
  let mode = 0;
  let mark = 0;
  const m = blocksOf(part, dialect.arcs);
  for (let k = 0; k < m.length; k += BLOCK) {
    // Of several marks on the way to a block the last one holds.
    const passed = mark;
    while (mark < part.marks.length && part.marks[mark].move <= m[k + BLOCK - 1]) mark++;
    if (mark > passed) yield dialect.comment(placeText(part.marks[mark - 1]));
    const [X, Y, Z] = [words.x(m[k]), words.y(m[k + 1]), words.height(m[k + 2])];
    const code = m[k + 3] > 0 ? m[k + 4] || 1 : 0;
    let line = '';
    if (X !== x || code > 1) line += ` X${X}`;
    if (Y !== y || code > 1) line += ` Y${Y}`;
    if (Z !== z) line += ` Z${Z}`;
    if (line === '' || (code > 1 && X === x && Y === y)) continue;
    if (k === 0 && Z !== safe) throw new Error('a path must begin at the safe height');
    if (code > 1) line += ` I${words.from(x, m[k + 5], 'x')} J${words.from(y, m[k + 6], 'y')}`;
    if (code > 0) {
      const F = words.feed(m[k + 3]);
      if (F !== f) line += ` F${F}`;
      f = F;
    }
    yield k === 0 || code !== mode ? `G${code}${line}` : line.slice(1);
    [x, y, z, mode] = [X, Y, Z, code];
  }
  if (z !== safe) yield `G0 Z${safe}`;
}

/** "outline 1 of 2, lap 3 of 5". */
function placeText({ place }: Mark): string {
  return place.map(([what, number, of]) => `${what} ${number} of ${of}`).join(', ');
}

/** The lines that change a bit, with its length. @param had the bit before, 0 for none */
function changed(tool: number, had: number, { lengthOffset }: Dialect): string[] {
  return [...(had === 0 ? [] : ['M5']), `T${tool} M6`, ...(lengthOffset ? [`G43 H${tool}`] : [])];
}

/** The lines that start the spindle, and wait for it. */
function started(rpm: number, { wait }: Dialect): string[] {
  return [`S${Math.round(rpm)} M3`, ...(wait > 0 ? [`G4 P${wait}`] : [])];
}

/** Lines with their numbers before them; comments stay as they are. */
function numberedBy(step: number, lines: string[]): string[] {
  if (step === 0) return lines;
  let n = 0;
  return lines.map((l) => (/^[(;]/.test(l) ? l : `N${(n += step)} ${l}`));
}

/** The blocks of a part: its moves, or the lines and arcs that they are brought to. */
function blocksOf({ moves, arcs }: ProgramPart, asArcs: boolean): Float64Array {
  if (arcs > 0 && asArcs) return fitArcs(moves, arcs);
  const out = new Float64Array((moves.length / 4) * BLOCK);
  for (let k = 0; k < moves.length / 4; k++) {
    out.set(moves.subarray(4 * k, 4 * k + 4), k * BLOCK);
    out[(k + 1) * BLOCK - 1] = k;
  }
  return out;
}

/** A file name from what people typed: letters, digits and dashes only, so that it can never be a path. */
export function fileStem(...parts: string[]): string {
  const words = parts
    .map((p) =>
      p
        .normalize('NFKD')
        .replace(/[^\x20-\x7e]/g, '')
        .toLowerCase()
        .replace(/[^a-z0-9.]+/g, '-')
        .replace(/\.(?!\d)|^\.+/g, '')
        .replace(/^-+|-+$/g, ''),
    )
    .filter((p) => p.length > 0);
  return words.join('_').slice(0, 100) || 'job';
}
