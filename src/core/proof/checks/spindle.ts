import type { Rule } from './rule';

/** Cutting with the spindle stopped. */
export const spindleOff: Rule = {
  id: 'spindle-off',
  program({ view, program, read }) {
    if (read.spindleOffLine === 0) return [];
    return [
      {
        rule: 'spindle-off',
        severity: 'error',
        subject: { setup: view.setup.id, file: program.file, line: read.spindleOffLine },
        place: null,
      },
    ];
  },
};
