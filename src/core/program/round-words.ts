import { unrolled } from '../field/drum';
import type { Mark } from '../motion/path';
import { MM_PER_INCH, trimNumber } from '../units/length';
import type { Dialect } from './dialects/dialect';
import { lengthRound, type OnDrum } from './round';

/** Decimals of an angle, degrees: a ten-thousandth is 0.2 micrometres on a drum of 230 mm. */
const DEGREES = 4;
/** Moves that take less than this are left out, minutes: a word for them would be larger than controllers read, and they are no longer than a few micrometres. */
const SHORTEST = 2e-6;
/** Digits of a feed that count: times by the words lie within a two-thousandth of those that are meant. */
const DIGITS = 5;

/** What of a program the words of a turning axis go by. */
interface Writing {
  zero: { x: number; y: number; z: number };
  unit: 'mm' | 'in';
  dialect: Dialect;
}

/** A part of a program, as far as its moves go. */
interface Turned {
  moves: Float64Array;
  marks: Mark[];
}

/** A number with so many digits that count and no exponent. */
const digits = (v: number): string => {
  const whole = Math.max(0, Math.ceil(Math.log10(Math.max(v, 1e-9))));
  return trimNumber(v, Math.max(0, DIGITS - whole));
};

/**
 * The words of moves around a drum: along its axis, the angle in degrees, and Z. The tip's way over the wood is held to its feed: a move's time is
 * its true length over the feed, by the words as they are rounded, and no less than the axis takes to turn; written as one over it (G93, on
 * every cutting line) or as the feed a minute that makes it so (G94).
 */
export class RoundWords {
  private angle = '';
  private begun = false;
  /** Whole turns that the axis has counted on beyond its path, mm round. */
  private wound = 0;

  constructor(
    private readonly on: OnDrum,
    private readonly o: Writing,
  ) {}

  /** The word for how feeds are meant. */
  get mode(): string {
    return this.on.axis.feed === 'inverse-time' ? 'G93' : 'G94';
  }

  /** What a program ends with: an axis that does not turn on and on goes back to where it began, and feeds are a minute's again. */
  ending(): string[] {
    const { endless, letter, feed } = this.on.axis;
    const unwinds = !endless && Math.abs(Number(this.angle)) > 360;
    return [...(unwinds ? [`G0 ${letter}0`] : []), ...(feed === 'inverse-time' ? ['G94'] : [])];
  }

  private numbers() {
    const { zero, unit, dialect } = this.o;
    const { radius } = this.on;
    const places = dialect.decimals[unit];
    const [scale, grid] = [unit === 'mm' ? 1 : 1 / MM_PER_INCH, 10 ** places];
    return {
      unit: 1 / scale,
      along: (v: number) => trimNumber((v - zero.x) * scale, places),
      angle: (v: number) => trimNumber(((v - zero.y) / radius) * (180 / Math.PI), DEGREES),
      height: (z: number) => trimNumber(Math.ceil((z - zero.z) * scale * grid - 1e-6) / grid, places),
    };
  }

  /** The feed word of a move; null where it is too short to have one. Places as they are written, the last one first. */
  private feedWord(from: string[], to: string[], feed: number, unit: number): string | null {
    const { axis, radius } = this.on;
    const [x0, a0, z0] = from.map(Number);
    const [x1, a1, z1] = to.map(Number);
    const degrees = Math.abs(a1 - a0);
    const { z } = this.o.zero;
    const long = lengthRound(radius, (x1 - x0) * unit, (degrees * Math.PI) / 180, z0 * unit + z, z1 * unit + z);
    const minutes = Math.max(long / feed, degrees / axis.maxSpeed);
    if (minutes < SHORTEST) return null;
    if (axis.feed === 'inverse-time') return digits(1 / minutes);
    const straight = Math.hypot(x1 - x0, z1 - z0);
    if (axis.degreesCount) return digits(Math.hypot(straight, degrees) / minutes);
    return digits((straight > 1e-9 ? straight : degrees) / minutes);
  }

  /** Before a move over everything: an axis that turns on and on takes the shorter way round, whatever its path has counted to. @param y where it goes, mm round */
  private wind(y: number, angle: (y: number) => string): void {
    const { axis, radius } = this.on;
    if (!axis.endless || this.angle === '') return;
    this.wound = unrolled(radius) * Math.round((Number(this.angle) - Number(angle(y))) / 360);
  }

  /** The motions of a part, from the safe height and back to it. */
  *lines({ moves, marks }: Turned, safe: string, said: (mark: Mark) => string): Generator<string> {
    const { axis } = this.on;
    const n = this.numbers();
    const [alongLetter, acrossLetter] = axis.along === 'x' ? ['X', 'Y'] : ['Y', 'X'];
    let at = ['', this.angle, safe];
    let [mode, feed, mark] = [-1, '', 0];
    for (let k = 0; k < moves.length; k += 4) {
      const passed = mark;
      while (mark < marks.length && marks[mark].move <= k / 4) mark++;
      if (mark > passed) yield this.o.dialect.comment(said(marks[mark - 1]));
      const height = n.height(moves[k + 2]);
      const free = moves[k + 3] === 0 && at[2] === safe && height === safe;
      if (free) this.wind(moves[k + 1], n.angle);
      const to = [n.along(moves[k]), n.angle(moves[k + 1] + this.wound), height];
      if (k === 0 && to[2] !== safe) throw new Error('a path must begin at the safe height');
      const cut = moves[k + 3] > 0;
      const F = cut ? this.feedWord(at, to, moves[k + 3], n.unit) : '';
      if (F === null && k + 4 < moves.length && moves[k + 7] > 0) continue;
      let line = '';
      [alongLetter, axis.letter, 'Z'].forEach((letter, i) => {
        if (to[i] !== at[i]) line += ` ${letter}${to[i]}`;
      });
      if (line === '') continue;
      // The bit stands over the axis and stays there.
      if (!this.begun) line += ` ${acrossLetter}0`;
      this.begun = true;
      if (cut && (axis.feed === 'inverse-time' || F !== feed)) line += ` F${F ?? digits(1 / SHORTEST)}`;
      if (cut) feed = F ?? '';
      const code = cut ? 1 : 0;
      yield k === 0 || code !== mode ? `G${code}${line}` : line.slice(1);
      [at, mode] = [to, code];
      this.angle = at[1];
    }
    if (at[2] !== safe) yield `G0 Z${safe}`;
  }
}
