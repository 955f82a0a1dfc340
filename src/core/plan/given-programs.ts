import type { Found } from '../findings/finding';
import { timeRound } from '../motion/round';
import { motionTime } from '../motion/time';
import { MOTION } from '../program/reader';
import { onDrum, readFor } from '../program/round';
import { zeroOf } from '../setup/frame';
import type { DoneSetup } from './plan-setup';
import type { PlannedProgram } from './programs';

/** A program as it lies in a file, edited by hand or written elsewhere. */
export interface GivenProgram {
  file: string;
  text: string;
}

/** Moves as paths hold them, of a program as read back: x y z and the feed, 0 for a rapid. */
function movesOf(motions: Float64Array): Float64Array {
  const out = new Float64Array((motions.length / MOTION) * 4);
  let k = 0;
  for (let m = 0; m < motions.length; m += MOTION) {
    // A line that says again where the tip is takes no time.
    if (k > 0 && [0, 1, 2].every((a) => motions[m + 3 + a] === out[k - 4 + a])) continue;
    out.set(motions.subarray(m + 3, m + 6), k);
    out[k + 3] = motions[m + 6] === 1 ? 0 : motions[m + 7];
    k += 4;
  }
  return out.subarray(0, k);
}

/**
 * Programs from files in the place of those that were planned, in the order in which they are given: each stands for the planned one of its
 * name, else for the one of its place, whose setup, passes and bit at the start it takes over; and what is not as it was planned is told.
 * @throws ProgramError naming file and line of what cannot be followed
 * @throws RangeError when nothing was planned that they could stand for
 */
export function givenPrograms(given: GivenProgram[], planned: PlannedProgram[], setups: DoneSetup[]) {
  if (planned.length === 0) throw new RangeError('the job has no program that these could stand for; give it a pass');
  const found: Found[] = [];
  const programs = given.map(({ file, text }, n): PlannedProgram => {
    const like = planned.find((p) => p.file === file) ?? planned[Math.min(n, planned.length - 1)];
    const { view } = setups.find((s) => s.view.setup.id === like.setup)!;
    const { board, setup, machine } = view;
    const { motions, starts } = readFor(
      { text, file, tool: like.cutter },
      onDrum(board, machine),
      zeroOf(board, setup).z,
    );
    const moves = movesOf(motions);
    const { seconds, naiveSeconds, cutLength, rapidLength } = board.drum
      ? timeRound(moves, machine, board.thickness)
      : motionTime(moves, machine);
    const waits = starts.reduce((sum, start) => sum + start.wait, 0);
    if (text !== like.text)
      found.push({
        rule: 'not-planned-here',
        severity: 'note',
        subject: { setup: like.setup, file },
        place: null,
        figures: { like: like.file },
      });
    return {
      ...like,
      file,
      text,
      seconds: seconds + waits,
      naiveSeconds: naiveSeconds + waits,
      cutLength,
      rapidLength,
    };
  });
  return { programs, found };
}
