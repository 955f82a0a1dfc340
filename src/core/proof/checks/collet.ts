import { fitsCollet } from '../../doc/machine';
import { aboutRun, type Rule } from './rule';

/** A bit whose shank fits no collet that the machine has. */
export const collet: Rule = {
  id: 'collet',
  run(at) {
    const { machine } = at.view;
    const { cutter } = at.run;
    if (fitsCollet(machine, cutter)) return [];
    return [
      {
        rule: 'collet',
        severity: 'warning',
        subject: aboutRun(at, 0),
        place: null,
        figures: { bit: cutter.name, shank: cutter.shankDiameter, machine: machine.name },
      },
    ];
  },
};
