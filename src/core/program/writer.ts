import { BLOCK, fitArcs } from '../outline/arcs';
import { MM_PER_INCH, trimNumber } from '../units/length';

export interface ProgramPart {
  /** What the part is, for a comment. */
  title: string;
  toolNumber: number;
  rpm: number;
  /** Moves as Path holds them, board coordinates. */
  moves: Float64Array;
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

/**
 * Writes RS-274 (ISO 6983) text: absolute coordinates, feed in units a minute, modal words left out when unchanged, at
 * most 3 decimals of a mm (4 of an inch) and no trailing zeros. Heights are rounded upwards, so that rounding never cuts
 * deeper than planned. Arcs are G2 and G3 with their centre from where they start (I, J); ends rounded to the last decimal lie within
 * a thousandth of the same radius. Every program begins and ends at safeZ with the spindle off.
 */
export function writeProgram(parts: ProgramPart[], o: ProgramOptions): string {
  const digits = o.unit === 'mm' ? 3 : 4;
  const scale = o.unit === 'mm' ? 1 : 1 / MM_PER_INCH;
  const grid = 10 ** digits;
  const lines: string[] = o.header.map((h) => `(${commentText(h)})`);
  lines.push(o.unit === 'mm' ? 'G21' : 'G20', 'G17 G90 G94', 'G54');
  const num = (v: number) => trimNumber(v, digits);
  const height = (z: number) => num(Math.ceil((z - o.zero.z) * scale * grid - 1e-6) / grid);
  const safe = height(o.safeZ);
  let tool = 0;
  let rpm = 0;
  for (const part of parts) {
    lines.push(`(${commentText(part.title)})`);
    if (part.toolNumber !== tool) {
      if (o.toolChanger) {
        if (tool !== 0) lines.push('M5');
        lines.push(`T${part.toolNumber} M6`);
      }
      tool = part.toolNumber;
      rpm = 0;
    }
    lines.push(`G0 Z${safe}`);
    if (part.rpm !== rpm) {
      lines.push(`S${Math.round(part.rpm)} M3`);
      rpm = part.rpm;
    }
    let [x, y, z, f] = ['', '', safe, ''];
    let mode = 0;
    const m = blocksOf(part);
    for (let k = 0; k < m.length; k += BLOCK) {
      const X = num((m[k] - o.zero.x) * scale);
      const Y = num((m[k + 1] - o.zero.y) * scale);
      const Z = height(m[k + 2]);
      const code = m[k + 3] > 0 ? m[k + 4] || 1 : 0;
      let line = '';
      if (X !== x || code > 1) line += ` X${X}`;
      if (Y !== y || code > 1) line += ` Y${Y}`;
      if (Z !== z) line += ` Z${Z}`;
      if (line === '' || (code > 1 && X === x && Y === y)) continue;
      if (k === 0 && Z !== safe) throw new Error('a path must begin at the safe height');
      if (code > 1) {
        line += ` I${num((m[k + 5] - o.zero.x) * scale - Number(x))} J${num((m[k + 6] - o.zero.y) * scale - Number(y))}`;
      }
      if (code > 0) {
        const F = trimNumber(m[k + 3] * scale, o.unit === 'mm' ? 0 : 1);
        if (F !== f) line += ` F${F}`;
        f = F;
      }
      lines.push(k === 0 || code !== mode ? `G${code}${line}` : line.slice(1));
      x = X;
      y = Y;
      z = Z;
      mode = code;
    }
    if (z !== safe) lines.push(`G0 Z${safe}`);
  }
  lines.push('M5', 'M30', '');
  return lines.join('\n');
}

/** The blocks of a part: its moves, or the lines and arcs that they are brought to. */
function blocksOf({ moves, arcs }: ProgramPart): Float64Array {
  if (arcs > 0) return fitArcs(moves, arcs);
  const out = new Float64Array((moves.length / 4) * BLOCK);
  for (let k = 0; k < moves.length / 4; k++) out.set(moves.subarray(4 * k, 4 * k + 4), k * BLOCK);
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
