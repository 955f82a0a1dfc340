import type { Board } from '../doc/board';
import type { Machine, Rotary } from '../doc/machine';
import { MOTION, ProgramError, type ReadProgram, readProgram } from './reader';
import { TURNED } from './turns';

/** A drum in its machine: what turns it, and its radius, mm. */
export interface OnDrum {
  axis: Rotary;
  radius: number;
}

/** How a board turns in a machine; null where it lies flat, or nothing turns it. */
export const onDrum = (
  { drum, thickness }: Pick<Board, 'drum' | 'thickness'>,
  { rotary }: Pick<Machine, 'rotary'>,
): OnDrum | null => (drum && rotary ? { axis: rotary, radius: thickness } : null);

const RAD = Math.PI / 180;

/**
 * True length of a move around a drum, mm: the tip's way round counts at the radius halfway, which is within 1e-4 mm of its own length where a move
 * rises by less than a millimetre.
 * @param turn radians; z0, z1: heights over the drum's circle
 */
export function lengthRound(radius: number, dx: number, turn: number, z0: number, z1: number): number {
  return Math.hypot(dx, z1 - z0, turn * Math.max(0, radius + (z0 + z1) / 2));
}

/**
 * Minutes that a move takes by its feed as written. In inverse time that is one over it. A feed a minute is that of the straight axes, in mm; the
 * turning one goes along with it, and where only that moves the feed is in degrees (RS-274/NGC, NIST IR 6556, 2.1.2.5; from memory). On
 * machines where a degree counts as a unit of length, a move's length is that of all its axes together, degrees as they are.
 * @param feed one over minutes, or mm a minute; unit: mm a unit of length
 */
function minutesOf(
  { degreesCount }: Rotary,
  {
    straight,
    degrees,
    feed,
    inverse,
    unit,
  }: Record<'straight' | 'degrees' | 'feed' | 'unit', number> & { inverse: boolean },
): number {
  if (inverse) return 1 / feed;
  const units = feed / unit;
  if (degreesCount) return Math.hypot(straight / unit, degrees) / units;
  return straight > 1e-9 ? straight / unit / units : degrees / units;
}

/**
 * A program as read, in the terms of the drum that it turns: x along it, y along its circle, and every feed that of the tip over the wood, mm/min.
 * @param zero where the program's Z zero lies over the drum's circle, mm
 * @throws ProgramError where it turns another axis, or moves across the drum's
 */
function unwound(read: ReadProgram, file: string, { axis, radius }: OnDrum, zero: number): ReadProgram {
  if (read.letter !== null && read.letter !== axis.letter)
    throw new ProgramError(`${file} turns ${read.letter}; the machine’s rotary axis is ${axis.letter}`);
  const { motions: m, turned } = read;
  const [along, across] = axis.along === 'x' ? [0, 1] : [1, 0];
  const out = m.slice();
  for (let k = 0, q = 0; k < m.length; k += MOTION, q += TURNED) {
    if (Math.abs(m[k + across]) > 1e-3 || Math.abs(m[k + 3 + across]) > 1e-3)
      throw new ProgramError(
        `${file}, line ${m[k + 8]}: moves ${across === 1 ? 'Y' : 'X'} off the axis of the drum; its place across is set once, at 0`,
      );
    const [a0, a1, inverse, unit] = turned ? turned.subarray(q, q + TURNED) : [0, 0, 0, 1];
    out[k] = m[k + along];
    out[k + 3] = m[k + 3 + along];
    out[k + 1] = a0 * RAD * radius;
    out[k + 4] = a1 * RAD * radius;
    if (m[k + 6] === 1) continue;
    const straight = Math.hypot(out[k + 3] - out[k], m[k + 5] - m[k + 2]);
    const degrees = Math.abs(a1 - a0);
    const minutes = minutesOf(axis, { straight, degrees, feed: m[k + 7], inverse: inverse === 1, unit });
    const long = lengthRound(radius, out[k + 3] - out[k], (a1 - a0) * RAD, m[k + 2] + zero, m[k + 5] + zero);
    out[k + 7] = minutes > 0 ? long / minutes : m[k + 7];
  }
  return { ...read, motions: out };
}

/** A program as it is written, and the bit that is in the spindle when it starts. */
interface Written {
  text: string;
  file: string;
  tool: number;
}

/**
 * Reads a program in the terms of what it cuts: as it is for a board, by the angle for a drum.
 * @param zero where its Z zero lies over the board's top, or the drum's circle, mm
 * @throws ProgramError for what cannot be followed, or turns a board that lies flat
 */
export function readFor({ text, file, tool }: Written, on: OnDrum | null, zero: number): ReadProgram {
  const read = readProgram(text, file, tool);
  if (on) return unwound(read, file, on, zero);
  if (read.letter !== null) throw new ProgramError(`${file} turns ${read.letter}; the board that it is for lies flat`);
  if (read.turned)
    throw new ProgramError(`${file} says its feeds in inverse time, which is followed round a drum only`);
  return read;
}
