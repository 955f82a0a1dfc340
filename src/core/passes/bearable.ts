import type { Cutter } from '../cutter/cutter';
import type { Pass } from '../doc/pass';
import type { Found } from '../findings/finding';
import { aboutPass, type PassDone } from './kind';
import { setOf } from './pass-problems';

/** A pass as it is planned: it takes no more at once than its bit may, whatever was asked of it. */
export const bearable = (pass: Pass, { maxStepdown }: Pick<Cutter, 'maxStepdown'>): Pass =>
  'stepdown' in pass && pass.stepdown > maxStepdown ? { ...pass, stepdown: maxStepdown } : pass;

/** More is asked of a bit at once than it may take. */
export function stepdownDeep(d: PassDone<Pass, unknown>): Found[] {
  const { pass, cutter } = d;
  const planned = bearable(pass, cutter);
  if (planned === pass || !('stepdown' in pass)) return [];
  return [
    {
      rule: 'stepdown-deep',
      severity: 'warning',
      subject: aboutPass(d),
      place: null,
      figures: { bit: cutter.name, asked: pass.stepdown, most: cutter.maxStepdown },
      fixes: [
        {
          id: 'use-stepdown',
          figures: { stepdown: cutter.maxStepdown },
          edits: [setOf(d, 'stepdown', cutter.maxStepdown)],
        },
      ],
    },
  ];
}
