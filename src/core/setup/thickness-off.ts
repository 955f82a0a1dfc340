import type { Board } from '../doc/board';
import type { Setup, Side } from '../doc/setup';

/** What becomes of a board that is thicker than it was measured, mm: less than nothing is so much less. */
export interface ThicknessOff {
  /** The wood between what both sides cut, the board that neither side cuts, and how deep this setup cuts from the side that is up. */
  web: number;
  rim: number;
  depth: number;
}

/** What a thickness is off by as a rule: a board that is measured at one place only (common practice, no source), mm. */
export const OFF = 0.2;

/** What Z is counted from on a side of a board: its first setup's, for both sides are cut from one zero each. Null where it is not cut. */
const zeroOn = ({ setups }: Pick<Board, 'setups'>, side: Side) => setups.find((s) => s.up === side)?.zero.z ?? null;

/**
 * What a board does that is thicker than measured by `off` mm. Counted from the top of the side that is up a cut is as deep as ever, and the web takes all of
 * it. Counted from the bed, which is where the other side lies, a cut is deeper by it, and the web stays; where both sides count from the bed the web
 * loses as much (arithmetic).
 */
export function thicknessOff(board: Pick<Board, 'setups'>, setup: Pick<Setup, 'zero'>, off: number): ThicknessOff {
  const fromBed = (['face', 'back'] as const).filter((s) => zeroOn(board, s) === 'bed').length;
  return { web: off * (1 - fromBed), rim: off, depth: setup.zero.z === 'bed' ? off : 0 };
}

/** The same in words, for a board that both sides are cut of; lengths as a function says them. */
export function offInWords(
  board: Pick<Board, 'setups'>,
  setup: Pick<Setup, 'zero'>,
  say: (mm: number) => string,
): string {
  const { web, depth } = thicknessOff(board, setup, OFF);
  const change = (by: number, more: string, less: string) => (by > 0 ? `${say(by)} ${more}` : `${say(-by)} ${less}`);
  const webSaid = web === 0 ? 'the web stays' : `the web gets ${change(web, 'thicker', 'thinner')}`;
  const cuts = depth === 0 ? 'cuts here are as deep' : `cuts here go ${change(depth, 'deeper', 'less deep')}`;
  return `if the board is ${say(OFF)} thicker than measured: ${webSaid}, its rim ${say(OFF)} thicker, ${cuts}`;
}
