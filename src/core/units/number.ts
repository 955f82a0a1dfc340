/** A plain number that could not be read; the message names the text and what would do. */
export class NumberError extends Error {}

/** Reads a number as a person writes it: a comma for the point, a unit after it. @throws NumberError */
export function parseNumber(text: string, whole: boolean): number {
  const digits = text
    .trim()
    .replace(',', '.')
    .replace(/[^\d.]+$/, '');
  const v = Number(digits);
  if (digits === '' || !Number.isFinite(v)) throw new NumberError(`"${text}" is not a number`);
  if (whole && !Number.isInteger(v)) throw new NumberError(`${text.trim()} is not a whole number`);
  return v;
}

/** Numbers above 0 from a line of text such as "3.175, 6, 6.35"; what is none is passed over. @param most that are taken */
export function numbersIn(text: string, most: number): number[] {
  return text
    .split(/[\s;,]+/)
    .map(Number)
    .filter((v) => Number.isFinite(v) && v > 0)
    .slice(0, most);
}
