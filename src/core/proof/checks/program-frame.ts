import type { Found } from '../../findings/finding';
import { DIALECT_OF } from '../../program/dialects/registry';
import { MOTION } from '../../program/reader';
import { zeroOf } from '../../setup/frame';
import type { AfterProgram, Rule } from './rule';

const about = ({ view, program }: AfterProgram, line: number) => ({
  setup: view.setup.id,
  file: program.file,
  line,
});

/** What a program leaves to what the machine happens to be set to. */
export const programModes: Rule = {
  id: 'program-modes',
  program(at) {
    const { unsaid, firstLine } = at.read;
    if (unsaid.length === 0) return [];
    return [
      {
        rule: 'program-modes',
        severity: 'error',
        subject: about(at, firstLine),
        place: null,
        figures: { unsaid },
      },
    ];
  },
};

/** Heights lower by less than this are rounding, mm. */
const ROUNDING = 0.01;

/** A program that ends without saying so, in the wood or low over it, or with the spindle turning. */
export const programEnd: Rule = {
  id: 'program-end',
  program(at) {
    const { view, read } = at;
    const { end, motions } = read;
    if (motions.length === 0) return [];
    const z = motions[motions.length - MOTION + 5] + zeroOf(view.board, view.setup).z;
    const low = z < view.setup.heights.everything - ROUNDING;
    if (end.said && !end.turning && !low) return [];
    const found: Found = {
      rule: 'program-end',
      severity: 'error',
      subject: about(at, end.line),
      place: null,
      figures: { said: end.said, turning: end.turning, low, z, least: view.setup.heights.everything },
    };
    return [found];
  },
};

/** A bit called for that the job does not have, or where nothing changes it, or without its length said. */
export const toolWord: Rule = {
  id: 'tool-word',
  program(at) {
    const { view, read } = at;
    const needsOffset = DIALECT_OF[view.machine.dialect].lengthOffset;
    return read.tools.flatMap(({ tool, line, from, offset }, n): Found[] => {
      const to = read.tools[n + 1]?.from ?? read.motions.length / MOTION;
      const missing = to > from && !view.cutters.some((c) => c.number === tool);
      const byHand = line > 0 && !view.machine.toolChanger;
      const unsized = line > 0 && view.machine.toolChanger && needsOffset && offset !== tool;
      if (!missing && !byHand && !unsized) return [];
      return [
        {
          rule: 'tool-word',
          severity: 'error',
          subject: about(at, line || read.firstLine),
          place: null,
          figures: { tool, missing, unsized: unsized && !missing, machine: view.machine.name },
        },
      ];
    });
  },
};

/** Least time that a spindle gets before the first move after its start, s (common practice, no source). */
const LEAST_WAIT = 1;

/** A spindle that is not waited for: the bit meets wood before it turns as fast as it is to. */
export const spindleWait: Rule = {
  id: 'spindle-wait',
  program(at) {
    const start = at.read.starts.find((s) => s.wait < LEAST_WAIT);
    if (!start) return [];
    return [
      {
        rule: 'spindle-wait',
        severity: 'warning',
        subject: about(at, start.line),
        place: null,
        figures: { wait: start.wait, least: LEAST_WAIT },
      },
    ];
  },
};

/** A program that is longer than the machine takes. */
export const programLong: Rule = {
  id: 'program-long',
  program(at) {
    const { view, program, read } = at;
    const { lines, bytes } = view.machine.programLimit;
    const over =
      lines !== null && read.end.line > lines
        ? { has: read.end.line, most: lines, unit: 'lines' }
        : bytes !== null && program.text.length > bytes
          ? { has: program.text.length, most: bytes, unit: 'bytes' }
          : null;
    if (!over) return [];
    return [
      {
        rule: 'program-long',
        severity: 'error',
        subject: { setup: view.setup.id, file: program.file },
        place: null,
        figures: { ...over, machine: view.machine.name },
      },
    ];
  },
};
