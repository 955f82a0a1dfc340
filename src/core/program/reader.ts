/** A program that cannot be followed; the message names the line. */
export class ProgramError extends Error {}

/** A straight motion in the program's own coordinates, mm: x0 y0 z0 x1 y1 z1, rapid (0 or 1), feed (mm/min), line. */
export const MOTION = 9;

export interface ReadProgram {
  /** MOTION numbers each. */
  motions: Float64Array;
  /** Tool selected for each stretch of motions: from that motion on, this tool. */
  tools: { from: number; tool: number }[];
  /** Highest spindle speed commanded, rpm. */
  topRpm: number;
  /** Line of the first cutting motion that runs with the spindle stopped, or 0. */
  spindleOffLine: number;
  comments: string[];
}

const ARC_CHORD = 0.002;

/** Words of one line: its G and M codes, and the other letters with their numbers. */
interface Line {
  g: number[];
  m: number[];
  words: Map<string, number>;
}

const AXES = ['X', 'Y', 'Z'];
const LETTERS = 'NXYZIJKRFSTPLHD';
/** Codes that are taken and change nothing that is followed here. */
const G_PASSED = [4, 40, 49, 54, 61, 64, 91.1, 94];
const M_PASSED = [0, 1, 7, 8, 9];

/** What is in force while a program is read, line by line. */
class ProgramReader {
  readonly out: ReadProgram;
  ended = false;
  private buffer = new Float64Array(MOTION * 4096);
  private used = 0;
  private readonly position = [Number.NaN, Number.NaN, Number.NaN];
  private scale = 1;
  private absolute = true;
  private motion = -1;
  private feed = 0;
  private plane = 17;
  private spindle = false;
  private speed = 0;
  private pending: number;
  private number = 0;

  constructor(
    private readonly file: string,
    firstTool: number,
  ) {
    this.pending = firstTool;
    this.out = {
      motions: this.buffer,
      tools: [{ from: 0, tool: firstTool }],
      topRpm: 0,
      spindleOffLine: 0,
      comments: [],
    };
  }

  private fail(what: string): never {
    throw new ProgramError(`${this.file}, line ${this.number}: ${what}`);
  }

  /** All that was read. */
  finish(): ReadProgram {
    this.out.motions = this.buffer.subarray(0, this.used);
    return this.out;
  }

  private push(to: number[], rapid: boolean): void {
    const { position, feed, out } = this;
    if (!rapid && feed <= 0) this.fail('a cutting motion without a feed');
    if (!rapid && !this.spindle && out.spindleOffLine === 0) out.spindleOffLine = this.number;
    if (this.used + MOTION > this.buffer.length) {
      const grown = new Float64Array(this.buffer.length * 2);
      grown.set(this.buffer);
      this.buffer = grown;
    }
    const { buffer, used } = this;
    for (let i = 0; i < 3; i++) {
      buffer[used + i] = Number.isNaN(position[i]) ? to[i] : position[i];
      buffer[used + 3 + i] = to[i];
    }
    buffer[used + 6] = rapid ? 1 : 0;
    buffer[used + 7] = feed;
    buffer[used + 8] = this.number;
    this.used += MOTION;
    for (let i = 0; i < 3; i++) position[i] = to[i];
  }

  /** Centre of an arc by its radius, in the plane's first and second axis. */
  private centreByRadius(r: number, clockwise: boolean, from: [number, number], to: [number, number]) {
    const R = Math.abs(r) * this.scale;
    const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
    const d = Math.hypot(dx, dy);
    if (d < 1e-9) this.fail('a radius arc that ends where it starts');
    if (d / 2 > R * 1.001) this.fail(`an arc of radius ${R} mm cannot span ${d.toFixed(3)} mm`);
    const h = Math.sqrt(Math.max(0, R * R - (d * d) / 4));
    // A positive radius is the arc of at most half a turn.
    const side = clockwise === r > 0 ? 1 : -1;
    return [(from[0] + to[0]) / 2 + (side * h * dy) / d, (from[1] + to[1]) / 2 - (side * h * dx) / d];
  }

  private arc(to: number[], words: Map<string, number>, clockwise: boolean): void {
    const { position, plane, scale } = this;
    if (position.some(Number.isNaN)) this.fail('an arc from an unknown place');
    // First and second axis of the plane, and the one across it, so that the plane is seen from its positive side.
    const [a, b, c] = plane === 17 ? [0, 1, 2] : plane === 18 ? [2, 0, 1] : [1, 2, 0];
    const letters = ['I', 'J', 'K'];
    const from = position.slice();
    const r = words.get('R');
    if (r === undefined && !words.has(letters[a]) && !words.has(letters[b]))
      this.fail('an arc without centre or radius');
    const [ca, cb] =
      r !== undefined
        ? this.centreByRadius(r, clockwise, [from[a], from[b]], [to[a], to[b]])
        : [from[a] + (words.get(letters[a]) ?? 0) * scale, from[b] + (words.get(letters[b]) ?? 0) * scale];
    const R = Math.hypot(from[a] - ca, from[b] - cb);
    const R1 = Math.hypot(to[a] - ca, to[b] - cb);
    if (Math.abs(R - R1) > Math.max(0.01, R * 0.001))
      this.fail(`the arc's ends lie ${R.toFixed(3)} and ${R1.toFixed(3)} mm from its centre`);
    const t0 = Math.atan2(from[b] - cb, from[a] - ca);
    let sweep = Math.atan2(to[b] - cb, to[a] - ca) - t0;
    if (clockwise) while (sweep >= -1e-9) sweep -= 2 * Math.PI;
    else while (sweep <= 1e-9) sweep += 2 * Math.PI;
    const step = 2 * Math.acos(Math.max(0, 1 - ARC_CHORD / Math.max(R, ARC_CHORD)));
    const n = Math.max(1, Math.ceil(Math.abs(sweep) / Math.max(step, 1e-3)));
    for (let i = 1; i <= n; i++) {
      const p = to.slice();
      if (i < n) {
        const t = t0 + (sweep * i) / n;
        p[a] = ca + R * Math.cos(t);
        p[b] = cb + R * Math.sin(t);
        p[c] = from[c] + ((to[c] - from[c]) * i) / n;
      }
      this.push(p, false);
    }
  }

  /** A line without its comments, which are kept. */
  private withoutComments(line: string): string {
    if (!line.includes('(') && !line.includes(';')) return line;
    let rest = line.replace(/\(([^()]*)\)/g, (_, c: string) => {
      this.out.comments.push(c);
      return ' ';
    });
    const semicolon = rest.indexOf(';');
    if (semicolon >= 0) rest = rest.slice(0, semicolon);
    if (/[()]/.test(rest)) this.fail('a comment that is not closed');
    return rest;
  }

  private wordsOf(line: string): Line {
    const out: Line = { g: [], m: [], words: new Map() };
    const word = /([A-Z])\s*([+-]?\s*(?:\d+\.?\d*|\.\d+))/y;
    while (word.lastIndex < line.length) {
      const from = word.lastIndex;
      const match = word.exec(line);
      if (!match) {
        const gap = /^\s+/.exec(line.slice(from));
        if (!gap) this.fail(`"${line.slice(from, from + 12)}" is not a word`);
        if (from + gap[0].length >= line.length) break;
        word.lastIndex = from + gap[0].length;
        continue;
      }
      const value = Number(match[2].replace(/\s/g, ''));
      if (match[1] === 'G') out.g.push(value);
      else if (match[1] === 'M') out.m.push(value);
      else if (out.words.has(match[1])) this.fail(`the word ${match[1]} twice`);
      else out.words.set(match[1], value);
    }
    for (const letter of out.words.keys()) if (!LETTERS.includes(letter)) this.fail(`an unknown word ${letter}`);
    return out;
  }

  /** Preparatory codes. @returns whether one of them is a motion */
  private prepare(g: number[]): boolean {
    let motionHere = false;
    for (const code of g) {
      if (code === 0 || code === 1 || code === 2 || code === 3) {
        if (motionHere) this.fail('two motions on one line');
        this.motion = code;
        motionHere = true;
      } else if (code === 17 || code === 18 || code === 19) this.plane = code;
      else if (code === 20) this.scale = 25.4;
      else if (code === 21) this.scale = 1;
      else if (code === 90) this.absolute = true;
      else if (code === 91) this.absolute = false;
      else if (code === 80) this.motion = -1;
      else if (!G_PASSED.includes(code)) this.fail(`G${code} is not followed by this reader`);
    }
    return motionHere;
  }

  private machine({ m, words }: Line): void {
    const f = words.get('F');
    if (f !== undefined) this.feed = f * this.scale;
    this.speed = words.get('S') ?? this.speed;
    this.pending = words.get('T') ?? this.pending;
    for (const code of m) {
      if (code === 3 || code === 4) this.spindle = true;
      else if (code === 5) this.spindle = false;
      else if (code === 6) this.out.tools.push({ from: this.used / MOTION, tool: this.pending });
      else if (code === 2 || code === 30) this.ended = true;
      else if (!M_PASSED.includes(code)) this.fail(`M${code} is not followed by this reader`);
    }
    if (this.spindle) this.out.topRpm = Math.max(this.out.topRpm, this.speed);
  }

  private move({ words }: Line): void {
    const { position, absolute, scale, motion } = this;
    if (motion < 0) this.fail('a place without a motion (no G0 to G3 in force)');
    const to = AXES.map((a, i) => {
      const v = words.get(a);
      if (v === undefined) return position[i];
      if (!absolute && Number.isNaN(position[i])) this.fail('a relative motion from an unknown place');
      return absolute ? v * scale : position[i] + v * scale;
    });
    if (to.some(Number.isNaN)) {
      // An axis not named yet: remember the others, nothing can be cut before all three are known.
      if (motion !== 0) this.fail('a cutting motion before every axis has a place');
      for (let i = 0; i < 3; i++) position[i] = to[i];
    } else if (motion <= 1) this.push(to, motion === 0);
    else this.arc(to, words, motion === 2);
  }

  read(text: string): void {
    this.number++;
    const line = this.withoutComments(text).trim().toUpperCase();
    if (line === '' || line === '%' || line[0] === '/') return;
    const found = this.wordsOf(line);
    const motionHere = this.prepare(found.g);
    this.machine(found);
    if (found.g.includes(4)) return;
    const { words } = found;
    const turns = motionHere && this.motion >= 2 && ['I', 'J', 'K'].some((l) => words.has(l));
    if (AXES.some((a) => words.has(a)) || turns) this.move(found);
  }
}

/**
 * Reads RS-274 text as the RS-274/NGC report describes it (NIST IR 6556; from memory): words in any order on a line,
 * comments in parentheses or after a semicolon, modal groups, G0 G1 G2 G3, planes G17 G18 G19, G20 G21, G90 G91, arcs by
 * centre (I J K from the start) or radius. Arcs become chords within 0.002 mm. The start position is unknown until an
 * axis has been named, so the first motion of each axis starts where it ends.
 * Shares no code with the writer.
 * @throws ProgramError for anything it cannot follow to the letter
 */
export function readProgram(text: string, file: string, firstTool = 0): ReadProgram {
  const reader = new ProgramReader(file, firstTool);
  for (let at = 0; at < text.length && !reader.ended; ) {
    let end = text.indexOf('\n', at);
    if (end < 0) end = text.length;
    reader.read(text.slice(at, end));
    at = end + 1;
  }
  return reader.finish();
}
