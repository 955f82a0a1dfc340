export type LengthUnit = 'mm' | 'in';
export const MM_PER_INCH = 25.4;

/** A length that could not be read; the message names the text and what would do. */
export class LengthError extends Error {}

const UNITS: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  '"': MM_PER_INCH,
  '″': MM_PER_INCH,
  ft: 304.8,
  "'": 304.8,
};

const EXAMPLES = '"12.7 mm", "3/8 in", "1 1/2 in" or "200 - 2*15"';

interface Quantity {
  value: number;
  /** Whether a unit has been given anywhere in it: a bare number takes the default unit. */
  unit: boolean;
}

const isNumber = (t: string | undefined) => t !== undefined && /^\d*\.?\d+$/.test(t);

/** The tokens of a length on their way: sums of products of numbers with and without units. */
class LengthReader {
  private at = 0;
  private readonly tokens: string[];

  constructor(
    private readonly text: string,
    private readonly unit: LengthUnit,
  ) {
    const source = text.trim().toLowerCase().replace(/[×]/g, '*').replace(/[−–]/g, '-').replace(/,/g, '.');
    this.tokens = source.match(/\d*\.?\d+|[a-z]+|["″']|[-+*/()]|\S/g) ?? [];
    if (this.tokens.length === 0 || source.length > 200) this.fail();
  }

  private fail(): never {
    throw new LengthError(`"${this.text}" is not a length; write it like ${EXAMPLES}`);
  }

  private number(): number {
    const { tokens } = this;
    if (!isNumber(tokens[this.at])) this.fail();
    const value = Number(tokens[this.at++]);
    const [a, b, c] = tokens.slice(this.at, this.at + 3);
    // A mixed fraction: a whole number followed directly by "n/d".
    if (isNumber(a) && b === '/' && isNumber(c) && Number.isInteger(value)) {
      this.at += 3;
      return value + Number(a) / Number(c);
    }
    if (a !== '/' || !isNumber(b)) return value;
    this.at += 2;
    return value / Number(b);
  }

  private factor(): Quantity {
    if (this.tokens[this.at] === '-') {
      this.at++;
      const q = this.factor();
      return { value: -q.value, unit: q.unit };
    }
    if (this.tokens[this.at] === '(') {
      this.at++;
      const q = this.sum();
      if (this.tokens[this.at++] !== ')') this.fail();
      return q;
    }
    const value = this.number();
    const name = this.tokens[this.at];
    if (name === undefined || !Object.hasOwn(UNITS, name)) return { value, unit: false };
    this.at++;
    return { value: value * UNITS[name], unit: true };
  }

  private product(): Quantity {
    let left = this.factor();
    while (this.tokens[this.at] === '*' || this.tokens[this.at] === '/') {
      const times = this.tokens[this.at++] === '*';
      const right = this.factor();
      if (right.unit && (left.unit || !times)) this.fail();
      left = { value: times ? left.value * right.value : left.value / right.value, unit: left.unit || right.unit };
    }
    return left;
  }

  private mm(q: Quantity): number {
    return q.unit ? q.value : q.value * UNITS[this.unit];
  }

  private sum(): Quantity {
    let total = this.product();
    while (this.tokens[this.at] === '+' || this.tokens[this.at] === '-') {
      const sign = this.tokens[this.at++] === '+' ? 1 : -1;
      total = { value: this.mm(total) + sign * this.mm(this.product()), unit: true };
    }
    return total;
  }

  read(): number {
    const mm = this.mm(this.sum());
    if (this.at !== this.tokens.length || !Number.isFinite(mm)) this.fail();
    return mm;
  }
}

/**
 * Reads a length: decimals, fractions ("3/8", "1 1/2"), units after the number (mm, cm, m, in, ", ft), and simple sums
 * with + - * / and parentheses. A bare number is in `unit`; in a sum that names a unit, each bare term of the
 * sum still is. Multipliers and divisors are plain numbers.
 * @returns mm
 * @throws LengthError naming the text
 */
export function parseLength(text: string, unit: LengthUnit = 'mm'): number {
  return new LengthReader(text, unit).read();
}

/** Prints `value` with at most `digits` decimals and no trailing zeros. */
export function trimNumber(value: number, digits: number): string {
  const text = value.toFixed(digits);
  const trimmed = text.includes('.') ? text.replace(/\.?0+$/, '') : text;
  return trimmed === '-0' ? '0' : trimmed;
}

/** A length in mm shown in `unit`, with the unit's name; to 0.01 mm or 0.001 in unless `digits` says otherwise. */
export function formatLength(mm: number, unit: LengthUnit = 'mm', digits = unit === 'mm' ? 2 : 3): string {
  return `${trimNumber(unit === 'mm' ? mm : mm / MM_PER_INCH, digits)} ${unit}`;
}

/** Seconds as a carver says them: "48 s", "7 min", "1 h 32 min". */
export function formatDuration(seconds: number): string {
  if (seconds < 90) return `${Math.round(seconds)} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}
