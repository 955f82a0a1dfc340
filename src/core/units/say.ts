import { type LengthUnit, MM_PER_INCH, trimNumber } from './length';

/**
 * The unit in which sentences and tables tell lengths to whoever reads them. Programs, reports and the command line are told in mm: nobody chooses
 * another there.
 */
let said: LengthUnit = 'mm';

/** Tells lengths and feeds in a unit from now on. */
export function sayIn(unit: LengthUnit): void {
  said = unit;
}

/** The unit in which lengths are told now, for the heads of tables. */
export const saidUnit = (): LengthUnit => said;

/** The unit in which feeds are told now. */
export const saidFeedUnit = () => `${said}/min` as const;

/**
 * A length's number in the reader's unit. In inches it has one place more than in mm, and two more under a millimetre: a thousandth of an inch is
 * 0.025 mm.
 * @param digits places in mm
 */
export function sayNumber(mm: number, digits = 2): string {
  if (said === 'mm') return trimNumber(mm, digits);
  return trimNumber(mm / MM_PER_INCH, digits + (Math.abs(mm) < 1 ? 2 : 1));
}

/** A length in the reader's unit, with the unit's name. @param digits places in mm */
export const sayLength = (mm: number, digits = 2): string => `${sayNumber(mm, digits)} ${said}`;

/** A size in the reader's unit, such as 300 × 200 × 19 mm. @param digits places in mm */
export const saySize = (sides: number[], digits = 1): string =>
  `${sides.map((v) => sayNumber(v, digits)).join(' × ')} ${said}`;

/** A feed of so many mm/min in the reader's unit. */
export const sayFeed = (feed: number): string => `${sayFeedNumber(feed)} ${saidFeedUnit()}`;

/** A feed's number in the reader's unit. */
export const sayFeedNumber = (feed: number): string =>
  said === 'mm' ? trimNumber(feed, 1) : trimNumber(feed / MM_PER_INCH, 1);
