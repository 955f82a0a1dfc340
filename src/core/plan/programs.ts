import { isReserve } from '../doc/pass';
import { kindOf } from '../passes/registry';
import { DIALECT_OF } from '../program/dialects/registry';
import { onDrum } from '../program/round';
import { commentText, fileStem, type ProgramPart, waitsOf, writeProgram } from '../program/writer';
import type { ProgramFigures } from '../proof/figures';
import { FLIP_WORDS, zeroOf } from '../setup/frame';
import { offInWords } from '../setup/thickness-off';
import type { SetupView } from '../setup/view';
import { formatDuration, formatLength } from '../units/length';
import type { Planned } from './plan-passes';

/** Most that arcs may lie off the path that they are fitted to, mm. */
const ARC_TOLERANCE = 0.01;

export interface PlannedProgram extends ProgramFigures {
  file: string;
  /** The setup that it is for. */
  setup: string;
  /** Number of the bit it starts with. */
  cutter: number;
  text: string;
  passes: string[];
  /** The comment that each of its passes begins with. */
  titles: string[];
  rough: boolean;
  /** Kept in reserve: cut only if it is wanted, and not counted with what is cut. */
  reserve: boolean;
  /** With the waits for its spindle; naive: its length over its feeds. */
  seconds: number;
  naiveSeconds: number;
  cutLength: number;
  rapidLength: number;
}

/** Figures of a program that the proof has not seen yet. */
const NOT_PROVEN: ProgramFigures = { volume: 0, bite: null, air: 0, byPass: [], held: { loose: [], weak: [] } };

/** The planned passes of a setup. */
export interface PlannedSetup {
  view: SetupView;
  planned: Planned[];
}

/**
 * Passes that follow each other with the same bit share a run; a run is a file, or a setup's are all in one where bits change by themselves. What is
 * kept in reserve is in files of its own.
 */
function runsOf({ view, planned }: PlannedSetup): Planned[][] {
  const runs: Planned[][] = [];
  for (const p of planned) {
    if (p.moves.length === 0) continue;
    const reserve = isReserve(p.pass);
    const last = runs.at(-1);
    const together = last && (view.output.oneFile || last[0].cutter.id === p.cutter.id);
    if (together && isReserve(last[0].pass) === reserve) last.push(p);
    else runs.push([p]);
  }
  return runs;
}

const SUMS = ['seconds', 'naiveSeconds', 'cutLength', 'rapidLength'] as const;
const sumsOf = (run: Planned[]) =>
  Object.fromEntries(SUMS.map((k) => [k, run.reduce((s, p) => s + p.summary[k], 0)])) as Record<
    (typeof SUMS)[number],
    number
  >;

const ORIGINS = {
  'lower-left': 'near left corner',
  'lower-right': 'near right corner',
  'upper-left': 'far left corner',
  'upper-right': 'far right corner',
  centre: 'centre',
} as const;

const boardLines = ({ board, setup, output }: SetupView): string[] => [
  `board ${formatLength(board.x)} x ${formatLength(board.y)} x ${formatLength(board.thickness)} ${board.material.name}`,
  `origin ${ORIGINS[setup.zero.origin]}, Z zero on the ${setup.zero.z === 'top' ? 'board top' : 'machine bed'}, ${output.unit}`,
];

/** Of a drum the angle has its zero at the sheet's edge, or at its middle. */
function drumLines({ board, setup, machine, output }: SetupView): string[] {
  const { rotary } = machine;
  const { x, y } = zeroOf(board, setup);
  const at = x === 0 ? 'left end' : x === board.x ? 'right end' : 'middle';
  return [
    `drum ${formatLength(2 * board.thickness)} across, ${formatLength(board.x)} long, ${board.material.name}`,
    `zero at the ${at}, ${rotary?.letter} 0 at ${formatLength(y)} of the sheet, Z zero on the ${setup.zero.z === 'top' ? 'surface' : 'axis of turning'}, ${output.unit}`,
    ...(rotary?.along === 'y' ? ['the drum lies along Y'] : []),
    ...(board.drum?.collar
      ? [
          `collar at ${formatLength(board.drum.collar.x)} from the left end stays: touch off there, its mark at ${rotary?.letter} 0 of the sheet`,
        ]
      : []),
  ];
}

/** What a person at the machine is to know before the first move. */
function headerOf({ view }: PlannedSetup, run: Planned[], seconds: number): string[] {
  const { board, setup, name, order } = view;
  return [
    `${name}${order ? `, order ${order}` : ''}`,
    ...(board.drum ? drumLines(view) : boardLines(view)),
    ...run.map(
      (p) =>
        `${kindOf(p.pass).name} with bit ${p.cutter.number} ${p.cutter.name} at ${p.cutter.rpm} rpm, ${formatDuration(p.summary.seconds)}`,
    ),
    ...(setup.up === 'back' ? [`board on its face, turned over ${FLIP_WORDS[board.flip]}`] : []),
    ...(new Set(board.setups.map((s) => s.up)).size > 1 ? [offInWords(board, setup, formatLength)] : []),
    ...run.flatMap((p) => kindOf(p.pass).zeroNote ?? []),
    `about ${formatDuration(seconds)}`,
    ...(isReserve(run[0].pass) ? ['kept in reserve: only if it is wanted'] : []),
    ...(board.drum
      ? ['no loose sleeves, guard over the chuck, chuck key out, tail stock tight, first turns slow']
      : []),
    'eye and hearing protection, dust extraction, never leave it running alone',
  ].map(commentText);
}

function programOf(s: PlannedSetup, run: Planned[], number: number): PlannedProgram {
  const { view } = s;
  const bits = [...new Set(run.map((p) => p.cutter.name))];
  const parts: ProgramPart[] = run.map((p) => ({
    title: `${kindOf(p.pass).name}, ${p.cutter.name}`,
    toolNumber: p.cutter.number,
    rpm: p.cutter.rpm,
    moves: p.moves,
    marks: p.marks,
    arcs: kindOf(p.pass).arcs ? ARC_TOLERANCE : 0,
  }));
  const dialect = DIALECT_OF[view.machine.dialect];
  const sums = sumsOf(run);
  const waits = waitsOf(parts, dialect);
  sums.seconds += waits;
  sums.naiveSeconds += waits;
  const text = writeProgram(parts, {
    header: headerOf(s, run, sums.seconds),
    zero: zeroOf(view.board, view.setup),
    unit: view.output.unit,
    safeZ: view.setup.heights.everything,
    toolChanger: view.output.oneFile && view.machine.toolChanger,
    dialect,
    round: onDrum(view.board, view.machine),
  });
  return {
    file: `${fileStem(view.order, view.name, `${number}-${bits.join('-')}`)}.nc`,
    setup: view.setup.id,
    cutter: run[0].cutter.number,
    text,
    passes: run.map((p) => p.pass.id),
    titles: parts.map((p) => commentText(p.title)),
    rough: run.every((p) => kindOf(p.pass).rough),
    reserve: isReserve(run[0].pass),
    ...sums,
    ...NOT_PROVEN,
  };
}

/** The programs of all setups, numbered in the order in which they are run. */
export function writePrograms(setups: PlannedSetup[]): PlannedProgram[] {
  const runs = setups.flatMap((s) => runsOf(s).map((run) => ({ s, run })));
  return runs.map(({ s, run }, i) => programOf(s, run, i + 1));
}
