import { centreByRadius, chordsOf } from './arc-chords';
import { TURNING, Turns } from './turns';
import { type Line, withoutComments, wordsOf } from './words';

/** A program that cannot be followed; the message names the line. */
export class ProgramError extends Error {}

/**
 * A straight motion in the program's own coordinates, mm: x0 y0 z0 x1 y1 z1, rapid (0 or 1), feed (mm/min), line, and the spindle as it
 * turns meanwhile (rpm clockwise as seen from above, negative the other way, 0 stopped).
 */
export const MOTION = 10;

/** What a program says once and for all before it moves: units, plane, absolute places, feed a minute, and where zero is. */
export const MODES = ['unit', 'plane', 'places', 'feed', 'offset'] as const;
export type Mode = (typeof MODES)[number];

export interface ReadProgram {
  /** MOTION numbers each. */
  motions: Float64Array;
  /** TURNED numbers a motion, where the program turns an axis or says a feed in inverse time; null elsewhere. */
  turned: Float64Array | null;
  /** The word of the axis that it turns; null where it turns none. */
  letter: string | null;
  /** Tool selected for each stretch of motions: from that motion on, this tool, which was called for at that line (0 at the start), and the number of the length offset said for it (G43 H), null when none was. */
  tools: { from: number; tool: number; line: number; offset: number | null }[];
  /** Comments that stand behind the first words on lines of their own: where in the program one is. */
  notes: { line: number; text: string }[];
  /** Starts of the spindle: the motion that follows, the line, and the seconds waited before it. */
  starts: { from: number; line: number; wait: number }[];
  /** What was not said before the first motion, and the line of that. */
  unsaid: Mode[];
  firstLine: number;
  /** How it ends: whether it says so, and whether the spindle still turns then; with its last line. */
  end: { said: boolean; turning: boolean; line: number };
}

const AXES = ['X', 'Y', 'Z'];
/** Codes that are taken and change nothing that is followed here. */
const G_PASSED = [4, 40, 43, 49, 61, 64, 91.1];
/** What each code that stays in force is of. */
const MODE_OF: Record<number, Mode | undefined> = {
  17: 'plane',
  18: 'plane',
  19: 'plane',
  20: 'unit',
  21: 'unit',
  90: 'places',
  91: 'places',
  93: 'feed',
  94: 'feed',
  54: 'offset',
};
const M_PASSED = [0, 1, 7, 8, 9];

/** What is in force while a program is read, line by line. */
class ProgramReader {
  readonly out: ReadProgram;
  ended = false;
  private buffer = new Float64Array(MOTION * 4096);
  private used = 0;
  private readonly position = [Number.NaN, Number.NaN, Number.NaN];
  private scale = 1;
  private readonly turns = new Turns();
  /** Whether this line says a feed. */
  private fed = false;
  private absolute = true;
  private motion = -1;
  private feed = 0;
  private plane = 17;
  /** 1 clockwise, -1 the other way, 0 stopped. */
  private turning = 0;
  private speed = 0;
  private readonly said = new Set<Mode>();
  private pending: number;
  private number = 0;
  private begun = false;

  constructor(
    private readonly file: string,
    firstTool: number,
  ) {
    this.pending = firstTool;
    this.out = {
      motions: this.buffer,
      turned: null,
      letter: null,
      tools: [{ from: 0, tool: firstTool, line: 0, offset: null }],
      starts: [],
      notes: [],
      unsaid: [],
      firstLine: 0,
      end: { said: false, turning: false, line: 0 },
    };
  }

  private fail(what: string): never {
    throw new ProgramError(`${this.file}, line ${this.number}: ${what}`);
  }

  /** All that was read. */
  finish(): ReadProgram {
    this.out.motions = this.buffer.subarray(0, this.used);
    this.out.turned = this.turns.all(this.used / MOTION);
    this.out.end = { said: this.ended, turning: this.turning !== 0, line: this.number };
    return this.out;
  }

  private push(to: number[], rapid: boolean, angle = this.turns.angle): void {
    const { position, feed, out } = this;
    if (!rapid && feed <= 0) this.fail('a cutting motion without a feed');
    if (!rapid && this.turns.inverse && !this.fed)
      this.fail('a cutting motion in inverse time without a feed of its own');
    if (out.firstLine === 0) this.first();
    if (this.used + MOTION > this.buffer.length) {
      const grown = new Float64Array(this.buffer.length * 2);
      grown.set(this.buffer);
      this.buffer = grown;
    }
    const { buffer, used } = this;
    this.turns.note(angle, used / MOTION, this.scale);
    for (let i = 0; i < 3; i++) {
      buffer[used + i] = Number.isNaN(position[i]) ? to[i] : position[i];
      buffer[used + 3 + i] = to[i];
    }
    buffer[used + 6] = rapid ? 1 : 0;
    buffer[used + 7] = feed;
    buffer[used + 8] = this.number;
    buffer[used + 9] = this.turning * this.speed;
    this.used += MOTION;
    for (let i = 0; i < 3; i++) position[i] = to[i];
  }

  /** The first motion: what has not been said by now is left to what the machine happens to be set to. */
  private first(): void {
    this.out.firstLine = this.number;
    this.out.unsaid = MODES.filter((m) => !this.said.has(m));
  }

  private arc(to: number[], words: Map<string, number>, clockwise: boolean): void {
    const { position, plane, scale } = this;
    if (position.some(Number.isNaN)) this.fail('an arc from an unknown place');
    if (this.turns.inverse) this.fail('an arc in inverse time');
    if (TURNING.some((l) => words.has(l))) this.fail('an arc that turns an axis');
    // First and second axis of the plane, and the one across it, so that the plane is seen from its positive side.
    const [a, b, c] = plane === 17 ? [0, 1, 2] : plane === 18 ? [2, 0, 1] : [1, 2, 0];
    const letters = ['I', 'J', 'K'];
    const from = position.slice();
    const r = words.get('R');
    if (r === undefined && !words.has(letters[a]) && !words.has(letters[b]))
      this.fail('an arc without centre or radius');
    const ends = { from: [from[a], from[b]], to: [to[a], to[b]], clockwise } as const;
    const fail = (what: string) => this.fail(what);
    const centre =
      r !== undefined
        ? centreByRadius(r * scale, ends, fail)
        : ([from[a] + (words.get(letters[a]) ?? 0) * scale, from[b] + (words.get(letters[b]) ?? 0) * scale] as const);
    for (const [u, v, t] of chordsOf(ends, centre, fail)) {
      const p = to.slice();
      if (t < 1) {
        p[a] = u;
        p[b] = v;
        p[c] = from[c] + (to[c] - from[c]) * t;
      }
      this.push(p, false);
    }
  }

  /** Preparatory codes. @returns whether one of them is a motion */
  private prepare(g: number[]): boolean {
    let motionHere = false;
    for (const code of g) {
      if (code === 0 || code === 1 || code === 2 || code === 3) {
        if (motionHere) this.fail('two motions on one line');
        this.motion = code;
        motionHere = true;
      } else this.mode(code);
    }
    return motionHere;
  }

  /** Codes that stay in force. */
  private mode(code: number): void {
    const mode = MODE_OF[code];
    if (mode) this.said.add(mode);
    if (code === 17 || code === 18 || code === 19) this.plane = code;
    else if (code === 20) this.scale = 25.4;
    else if (code === 21) this.scale = 1;
    else if (code === 90) this.absolute = true;
    else if (code === 91) this.absolute = false;
    else if (code === 93 || code === 94) {
      // A feed of one mode means nothing in the other.
      if (this.turns.inverse !== (code === 93)) this.feed = 0;
      this.turns.inverse = code === 93;
    } else if (code === 80) this.motion = -1;
    else if (!G_PASSED.includes(code) && !mode) this.fail(`G${code} is not followed by this reader`);
  }

  /** The spindle starts, or goes on turning. */
  private start(turning: number): void {
    if (this.turning === 0) this.out.starts.push({ from: this.used / MOTION, line: this.number, wait: 0 });
    this.turning = turning;
  }

  /** Length offsets, and waits after a start. */
  private settle({ g, words }: Line): void {
    const tool = this.out.tools[this.out.tools.length - 1];
    if (g.includes(43)) tool.offset = words.get('H') ?? null;
    if (g.includes(49)) tool.offset = null;
    const start = this.out.starts.at(-1);
    if (g.includes(4) && start?.from === this.used / MOTION) start.wait += words.get('P') ?? 0;
  }

  private machine({ m, words }: Line): void {
    const f = words.get('F');
    this.fed = f !== undefined;
    if (f !== undefined) this.feed = this.turns.inverse ? f : f * this.scale;
    this.speed = words.get('S') ?? this.speed;
    this.pending = words.get('T') ?? this.pending;
    for (const code of m) {
      if (code === 3 || code === 4) this.start(code === 3 ? 1 : -1);
      else if (code === 5) this.turning = 0;
      else if (code === 6)
        this.out.tools.push({ from: this.used / MOTION, tool: this.pending, line: this.number, offset: null });
      else if (code === 2 || code === 30) this.ended = true;
      else if (!M_PASSED.includes(code)) this.fail(`M${code} is not followed by this reader`);
    }
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
    const letter = TURNING.find((l) => words.has(l));
    if (letter && this.out.letter && letter !== this.out.letter) this.fail(`turns ${this.out.letter} and ${letter}`);
    if (letter) this.out.letter = letter;
    const by = letter ? words.get(letter) : undefined;
    const turned = by === undefined ? this.turns.angle : absolute ? by : this.turns.angle + by;
    if (letter && Number.isNaN(turned)) this.fail('a relative turn from an unknown angle');
    if (to.some(Number.isNaN)) {
      this.turns.angle = turned;
      // An axis not named yet: remember the others, nothing can be cut before all three are known.
      if (motion !== 0) this.fail('a cutting motion before every axis has a place');
      for (let i = 0; i < 3; i++) position[i] = to[i];
    } else if (motion <= 1) this.push(to, motion === 0, turned);
    else this.arc(to, words, motion === 2);
  }

  read(text: string): void {
    this.number++;
    let comment = '';
    const line = withoutComments(
      text,
      (said) => (comment = said),
      (why) => this.fail(why),
    )
      .trim()
      .toUpperCase();
    if (line === '' && comment !== '' && this.begun) this.out.notes.push({ line: this.number, text: comment });
    if (line === '' || line === '%' || line[0] === '/') return;
    this.begun = true;
    const found = wordsOf(line, (why) => this.fail(why));
    const motionHere = this.prepare(found.g);
    this.machine(found);
    this.settle(found);
    if (found.g.includes(4)) return;
    const { words } = found;
    const turns = motionHere && this.motion >= 2 && ['I', 'J', 'K'].some((l) => words.has(l));
    if ([...AXES, ...TURNING].some((a) => words.has(a)) || turns) this.move(found);
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
