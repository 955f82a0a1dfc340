import { expect, test } from 'vitest';
import { readProgram } from '../program/reader';
import { zeroOf } from '../program/writer';
import { DRAWER, HOBBY_MACHINE, SHOP_MACHINE } from './defaults';
import type { Job } from './job';
import type { Pass } from './pass';
import type { Planned } from './paths';
import { writePrograms } from './programs';
import { plainJob, proposeCutout, proposeHoles, proposeLetter, proposeSkim } from './propose';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
const board = { x: 120, y: 90, thickness: 19, material: 'maple' };

function job(machine = HOBBY_MACHINE): Job {
  return plainJob({ name: 'Plate', order: 'A-1', machine, rough: bit('em6'), finish: bit('ball3'), board });
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
    moves: 43,
    cutout: null,
    edges: [],
  };
  return { pass, cutter: bit(cutter), moves: Float64Array.from(moves), summary };
}
const empty = (p: Planned): Planned => ({ ...p, moves: new Float64Array(0) });

test('passes that follow each other with one bit share a program; a bit that comes back has another one', () => {
  const j = job();
  const [rough, finish] = j.passes;
  const cutout = proposeCutout(j, bit('em6'));
  const list = [
    planned(rough, 'em6'),
    planned({ ...rough, id: 'r2' }, 'em6'),
    planned(finish, 'ball3'),
    planned(cutout, 'em6'),
  ];
  const programs = writePrograms(j, list, zeroOf(j.board));
  expect(programs.map((p) => p.passes)).toEqual([['rough', 'r2'], ['finish'], ['cutout']]);
  expect(programs.map((p) => p.file)).toEqual([
    'a-1_plate_1-end-mill-6.35.nc',
    'a-1_plate_2-ball-3.175.nc',
    'a-1_plate_3-end-mill-6.35.nc',
  ]);
  expect(programs.map((p) => [p.cutter, p.rough, p.back])).toEqual([
    [1, true, false],
    [3, false, false],
    [1, false, false],
  ]);
  expect(programs[0].seconds).toBe(120);
  // What has no path is in no program.
  expect(writePrograms(j, [empty(list[0]), list[2]], zeroOf(j.board)).map((p) => p.passes)).toEqual([['finish']]);
});

test('one file with tool changes holds them all, but what is cut on the back', () => {
  const j = job(SHOP_MACHINE);
  j.output.oneFile = true;
  const [rough, finish] = j.passes;
  const skim = { ...proposeSkim(j, bit('em6')), side: 'back' as const };
  const list = [planned(skim, 'em6'), planned(rough, 'em6'), planned(finish, 'ball3')];
  const programs = writePrograms(j, list, zeroOf(j.board));
  expect(programs.map((p) => [p.passes, p.back])).toEqual([
    [['skim'], true],
    [['rough', 'finish'], false],
  ]);
  expect(programs[0].text).toContain('(board on its face, turned over its y axis)');
  expect(programs[1].text.match(/^T\d+ M6$/gm)).toEqual(['T1 M6', 'T3 M6']);
  // A skim of the face goes with the roughing that follows with the same bit, and says what Z counts from.
  const face = writePrograms(j, [planned({ ...skim, side: 'face' }, 'em6'), list[1], list[2]], zeroOf(j.board));
  expect(face).toHaveLength(1);
  expect(face[0].text).toContain('set it from the bed');
});

test('arcs are written for cut-outs and holes; other passes keep every move', () => {
  const j = job();
  const lines = (p: Planned) => {
    const { text } = writePrograms(j, [p], zeroOf(j.board))[0];
    return { text, arcs: (text.match(/ I\S+ J/g) ?? []).length, moves: text.match(/^(G\d )?X/gm)?.length ?? 0 };
  };
  const rough = lines(planned(j.passes[0], 'em6'));
  expect(rough.arcs).toBe(0);
  expect(rough.moves).toBeGreaterThan(35);
  const cut = lines(planned(proposeCutout(j, bit('em6')), 'em6'));
  expect(cut.arcs).toBe(1);
  expect(cut.moves).toBeLessThan(5);
  expect(lines(planned(proposeHoles(j, bit('em6')), 'em6')).arcs).toBe(1);
  expect(lines(planned(proposeLetter(bit('v60')), 'v60')).arcs).toBe(0);
  // Read back, both end at the same place by the same way.
  const end = (text: string) => Array.from(readProgram(text, 'p.nc').motions.slice(-6, -3));
  expect(end(cut.text)).toEqual(end(rough.text));
});

test('the zero of the programs is where the board says, on its top or on the bed', () => {
  const at = (origin: Job['board']['origin'], zZero: 'top' | 'bed') => zeroOf({ ...job().board, origin, zZero });
  expect(at('lower-left', 'top')).toEqual({ x: 0, y: 0, z: 0 });
  expect(at('upper-right', 'bed')).toEqual({ x: 120, y: 90, z: -19 });
  expect(at('centre', 'top')).toEqual({ x: 60, y: 45, z: 0 });
});
