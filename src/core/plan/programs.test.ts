import { expect, test } from 'vitest';
import { DRAWER, HOBBY_MACHINE, materialNamed, SHOP_MACHINE } from '../doc/defaults';
import { applyEdits } from '../doc/edits';
import type { Pass } from '../doc/pass';
import type { Origin } from '../doc/setup';
import { SPINDLE_WAIT } from '../program/dialects/dialect';
import { MOTION, readProgram } from '../program/reader';
import { zeroOf } from '../setup/frame';
import type { SetupView } from '../setup/view';
import { setupView } from '../setup/view';
import type { Planned } from './plan-passes';
import { plainSetup, proposed } from './plan-test-kit';
import { writePrograms } from './programs';
import { addSetup } from './setups';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
const board = { x: 120, y: 90, thickness: 19, material: materialNamed('maple') };

function job(machine = HOBBY_MACHINE): SetupView {
  return plainSetup({ name: 'Plate', order: 'A-1', machine, rough: bit('em6'), finish: bit('ball3'), board });
}
/** A pass with a little path of its own: down, around a quarter of a circle, up. */
function planned(pass: Pass, cutter: string): Planned {
  const moves: number[] = [20, 20, 5, 0, 20, 20, -1, 300];
  for (let i = 1; i <= 40; i++) {
    const a = (Math.PI / 2) * (i / 40);
    moves.push(10 + 10 * Math.cos(a), 20 + 10 * Math.sin(a), -1, 1000);
  }
  moves.push(10, 30, 5, 0);
  const summary = {
    id: pass.id,
    kind: pass.kind,
    cutter,
    stockToLeave: 0,
    stepover: 0,
    stepdown: 0,
    trench: 0,
    ridge: 0,
    seconds: 60,
    naiveSeconds: 50,
    cutLength: 16,
    rapidLength: 10,
    cutSeconds: 50,
    rapidSeconds: 10,
    spent: {},
    moves: 43,
    entries: {},
    facts: null,
  };
  return { pass, cutter: bit(cutter), moves: Float64Array.from(moves), marks: [], summary };
}
const written = (view: SetupView, planned: Planned[]) => writePrograms([{ view, planned }]);
const empty = (p: Planned): Planned => ({ ...p, moves: new Float64Array(0) });

test('passes that follow each other with one bit share a program; a bit that comes back has another one', () => {
  const j = job();
  const [rough, finish] = j.passes;
  const cutout = proposed('cutout', j, bit('em6'));
  const list = [
    planned(rough, 'em6'),
    planned({ ...rough, id: 'r2' }, 'em6'),
    planned(finish, 'ball3'),
    planned(cutout, 'em6'),
  ];
  const programs = written(j, list);
  expect(programs.map((p) => p.passes)).toEqual([['rough', 'r2'], ['finish'], ['cutout']]);
  expect(programs.map((p) => p.file)).toEqual([
    'a-1_plate_1-end-mill-6.35.nc',
    'a-1_plate_2-ball-3.175.nc',
    'a-1_plate_3-end-mill-6.35.nc',
  ]);
  expect(programs.map((p) => [p.cutter, p.rough])).toEqual([
    [1, true],
    [3, false],
    [1, false],
  ]);
  // Two passes of a minute, and the wait for the spindle, which starts once.
  expect(programs[0].seconds).toBe(120 + SPINDLE_WAIT);
  // What has no path is in no program.
  expect(written(j, [empty(list[0]), list[2]]).map((p) => p.passes)).toEqual([['finish']]);
});

test('one file with tool changes holds them all, but what is cut on the back', () => {
  const j = job(SHOP_MACHINE);
  j.output.oneFile = true;
  const [rough, finish] = j.passes;
  const skim = proposed('skim', j, bit('em6'));
  const other = addSetup(j, 'back');
  applyEdits(j.document, other.edits);
  const back = setupView(j.document, other.id);
  const list = [planned(skim, 'em6'), planned(rough, 'em6'), planned(finish, 'ball3')];
  const programs = writePrograms([
    { view: back, planned: [list[0]] },
    { view: j, planned: [list[1], list[2]] },
  ]);
  expect(programs.map((p) => [p.passes, p.setup])).toEqual([
    [['skim'], 'back'],
    [['rough', 'finish'], 'face'],
  ]);
  expect(programs[0].text).toContain('(board on its face, turned over left to right)');
  expect(programs[1].text.match(/^T\d+ M6$/gm)).toEqual(['T1 M6', 'T3 M6']);
  // A skim of the face goes with the roughing that follows with the same bit, and says what Z counts from.
  const face = written(j, list);
  expect(face).toHaveLength(1);
  expect(face[0].text).toContain('set it from the bed');
});

test('arcs are written for cut-outs and holes; other passes keep every move', () => {
  const j = job();
  const lines = (p: Planned) => {
    const { text } = written(j, [p])[0];
    return { text, arcs: (text.match(/ I\S+ J/g) ?? []).length, moves: text.match(/^(G\d )?X/gm)?.length ?? 0 };
  };
  const rough = lines(planned(j.passes[0], 'em6'));
  expect(rough.arcs).toBe(0);
  expect(rough.moves).toBeGreaterThan(35);
  const cut = lines(planned(proposed('cutout', j, bit('em6')), 'em6'));
  expect(cut.arcs).toBe(1);
  expect(cut.moves).toBeLessThan(5);
  expect(lines(planned(proposed('hole', j, bit('em6')), 'em6')).arcs).toBe(1);
  expect(lines(planned(proposed('letter', j, bit('v60')), 'v60')).arcs).toBe(0);
  // Read back, both end at the same place by the same way.
  const end = (text: string) =>
    Array.from(
      readProgram(text, 'p.nc')
        .motions.slice(3 - MOTION)
        .subarray(0, 3),
    );
  expect(end(cut.text)).toEqual(end(rough.text));
});

test('the zero of the programs is where the board says, on its top or on the bed', () => {
  const at = (origin: Origin, z: 'top' | 'bed') => zeroOf(job().board, { zero: { origin, z } });
  expect(at('lower-left', 'top')).toEqual({ x: 0, y: 0, z: 0 });
  expect(at('upper-right', 'bed')).toEqual({ x: 120, y: 90, z: -19 });
  expect(at('centre', 'top')).toEqual({ x: 60, y: 45, z: 0 });
});
