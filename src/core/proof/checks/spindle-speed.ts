import type { Rule } from './rule';

/** A speed that the spindle does not turn at. */
export const spindleSpeed: Rule = {
  id: 'spindle-speed',
  program({ view, program, read }) {
    const { minRpm, maxRpm, name } = view.machine;
    if (read.topRpm <= maxRpm && read.topRpm >= minRpm) return [];
    const used = view.cutters.filter((c) =>
      view.passes.some((p) => program.passes.includes(p.id) && p.cutter === c.id),
    );
    const off = used.filter((c) => c.rpm > maxRpm || c.rpm < minRpm);
    return [
      {
        rule: 'spindle-speed',
        severity: 'warning',
        subject: { setup: view.setup.id, file: program.file },
        place: null,
        figures: { rpm: read.topRpm, least: minRpm, most: maxRpm, machine: name },
        fixes:
          off.length > 0
            ? [
                {
                  id: 'use-speed',
                  figures: { rpm: Math.min(maxRpm, Math.max(minRpm, off[0].rpm)) },
                  edits: off.map((c) => ({
                    set: ['cutters', { id: c.id }, 'rpm'],
                    to: Math.min(maxRpm, Math.max(minRpm, c.rpm)),
                  })),
                },
              ]
            : [],
      },
    ];
  },
};
