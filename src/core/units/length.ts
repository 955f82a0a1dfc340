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

/**
 * Reads a length: decimals, fractions ("3/8", "1 1/2"), units after the number (mm, cm, m, in, ", ft), and simple sums
 * with + - * / and parentheses. A bare number is in `unit`; in a sum that names a unit, each bare term of the
 * sum still is. Multipliers and divisors are plain numbers.
 * @returns mm
 * @throws LengthError naming the text
 */
export function parseLength(text: string, unit: LengthUnit = 'mm'): number {
  const source = text.trim().toLowerCase().replace(/[×]/g, '*').replace(/[−–]/g, '-').replace(/,/g, '.');
  const tokens = source.match(/\d*\.?\d+|[a-z]+|["″']|[-+*/()]|\S/g) ?? [];
  let at = 0;
  const fail = (): never => {
    throw new LengthError(`"${text}" is not a length; write it like ${EXAMPLES}`);
  };
  if (tokens.length === 0 || source.length > 200) fail();
  const isNumber = (t: string | undefined) => t !== undefined && /^\d*\.?\d+$/.test(t);

  function number(): number {
    if (!isNumber(tokens[at])) fail();
    let value = Number(tokens[at++]);
    // A mixed fraction: a whole number followed directly by "n/d".
    if (isNumber(tokens[at]) && tokens[at + 1] === '/' && isNumber(tokens[at + 2]) && Number.isInteger(value)) {
      value += Number(tokens[at]) / Number(tokens[at + 2]);
      at += 3;
    } else if (tokens[at] === '/' && isNumber(tokens[at + 1])) {
      value /= Number(tokens[at + 1]);
      at += 2;
    }
    return value;
  }
  function factor(): Quantity {
    if (tokens[at] === '-') {
      at++;
      const q = factor();
      return { value: -q.value, unit: q.unit };
    }
    if (tokens[at] === '(') {
      at++;
      const q = sum();
      if (tokens[at++] !== ')') fail();
      return q;
    }
    const value = number();
    const name = tokens[at];
    if (name !== undefined && Object.hasOwn(UNITS, name)) {
      at++;
      return { value: value * UNITS[name], unit: true };
    }
    return { value, unit: false };
  }
  function product(): Quantity {
    let left = factor();
    while (tokens[at] === '*' || tokens[at] === '/') {
      const times = tokens[at++] === '*';
      const right = factor();
      if (right.unit && (left.unit || !times)) fail();
      left = { value: times ? left.value * right.value : left.value / right.value, unit: left.unit || right.unit };
    }
    return left;
  }
  function sum(): Quantity {
    const scale = (q: Quantity) => (q.unit ? q.value : q.value * UNITS[unit]);
    let total = product();
    while (tokens[at] === '+' || tokens[at] === '-') {
      const sign = tokens[at++] === '+' ? 1 : -1;
      total = { value: scale(total) + sign * scale(product()), unit: true };
    }
    return total;
  }
  const q = sum();
  if (at !== tokens.length) fail();
  const mm = q.unit ? q.value : q.value * UNITS[unit];
  if (!Number.isFinite(mm)) fail();
  return mm;
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
