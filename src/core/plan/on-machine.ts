import type { Machine } from '../doc/machine';
import { fitsCollet } from '../doc/machine';
import type { Edit } from '../findings/edit';
import type { SetupView } from '../setup/view';
import { sayLength } from '../units/say';
import { fittedTo } from './at-hand';

/** What another machine means for a job. */
export interface OnMachine {
  /** In sentences; none where nothing follows. */
  said: string[];
  /** Edits that run the job's bits as the machine can. */
  fit: Edit[];
}

/** What follows for a job from the machine that it is on: bits that no collet takes, figures beyond what it does, a board beyond its table. */
export function onMachine(
  { cutters, board, setup }: Pick<SetupView, 'cutters' | 'board' | 'setup'>,
  machine: Machine,
): OnMachine {
  const said: string[] = [];
  const { place } = setup;
  if (place.x < 0 || place.y < 0 || place.x + board.x > machine.x || place.y + board.y > machine.y)
    said.push(
      `the board of ${sayLength(board.x)} by ${sayLength(board.y)} at ${sayLength(place.x)}, ${sayLength(place.y)} reaches beyond the table of ${sayLength(machine.x)} by ${sayLength(machine.y)}`,
    );
  const fitted = cutters.map((c) => fittedTo(machine, c));
  cutters.forEach((c, i) => {
    const f = fitted[i];
    if (!fitsCollet(machine, c))
      said.push(`no collet of it takes the ${sayLength(c.shankDiameter, 3)} shank of ${c.name}`);
    if (f.rpm !== c.rpm)
      said.push(`${c.name} turns at ${c.rpm} rpm, the spindle does ${machine.minRpm} to ${machine.maxRpm}`);
    else if (f.feed !== c.feed || f.plunge !== c.plunge) said.push(`${c.name} is fed faster than its axes go`);
  });
  const differs = fitted.some((f, i) => JSON.stringify(f) !== JSON.stringify(cutters[i]));
  return { said, fit: differs ? [{ set: ['cutters'], to: fitted }] : [] };
}
