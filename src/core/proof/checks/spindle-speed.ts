import { aboutRun, type Rule } from './rule';
import { endOf, isRapid } from './run-places';

/** A speed that the spindle does not turn at while it cuts. */
export const spindleSpeed: Rule = {
  id: 'spindle-speed',
  run(at) {
    const { view, run } = at;
    const { minRpm, maxRpm, name } = view.machine;
    const off = run.spindle.findIndex((s, i) => !isRapid(run, i) && s > 0 && (s > maxRpm || s < minRpm));
    if (off < 0) return [];
    const { cutter } = run;
    const rpm = Math.min(maxRpm, Math.max(minRpm, cutter.rpm));
    return [
      {
        rule: 'spindle-speed',
        severity: 'warning',
        subject: aboutRun(at, off),
        place: endOf(run, off),
        figures: { rpm: run.spindle[off], least: minRpm, most: maxRpm, machine: name },
        fixes:
          rpm === cutter.rpm
            ? []
            : [{ id: 'use-speed', figures: { rpm }, edits: [{ set: ['cutters', { id: cutter.id }, 'rpm'], to: rpm }] }],
      },
    ];
  },
};
