import { expect, test } from 'vitest';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { jobSchema } from '../doc/job';
import { describeIssues } from '../doc/refusal';
import { cellOf, MAX_CELLS } from '../passes/cell';
import { stepdownFor } from '../passes/proposals';
import type { RoughPass } from '../passes/rough/schema';
import { resolveTrenches } from '../passes/trenches';
import { type SetupView, setupView } from '../setup/view';
import type { SourceInfo } from '../sources/inspect';
import { packStage, unpackStage } from './pack';
import { wrongIn } from './plan-test-kit';
import { proposeJob, SOUND_FLOOR } from './propose';
import { sectionOf } from './view';

const info: SourceInfo = {
  kind: 'mesh',
  unit: 'mm',
  turns: [0, 0, 0],
  mirror: false,
  base: 0,
  flatBack: true,
  size: { x: 200, y: 100, z: 40 },
  triangles: 10,
  pixels: null,
  terraces: null,
  recess: false,
  drawing: null,
  notes: [],
};
const [rough, ball] = [DRAWER.find((c) => c.id === 'em6')!, DRAWER.find((c) => c.id === 'ball3')!];
const proposal = {
  name: 'a',
  order: '',
  file: 'a.stl',
  hash: '0'.repeat(64),
  info,
  machine: HOBBY_MACHINE,
  rough,
  finish: ball,
};

const proposed = (p: Parameters<typeof proposeJob>[0]) => setupView(proposeJob(p));

test('on a given board the relief is as large as leaves room for its trench, and no higher than leaves a sound floor', () => {
  const job = proposed({ ...proposal, board: { x: 300, y: 200, thickness: 19 } });
  expect(wrongIn(job)).toBe('');
  expect(job.layers[0].size.x).toBeCloseTo(300 - 2 * 9.525, 1);
  expect(job.layers[0].size.y / job.layers[0].size.x).toBeCloseTo(0.5, 3);
  // In proportion it would be 56 mm high.
  expect(job.layers[0].rise).toBeLessThanOrEqual(19 - SOUND_FLOOR);
  expect(job.layers[0].rise).toBeGreaterThan(15);
  expect(resolveTrenches(job).map((t) => Number(t.toFixed(6)))).toEqual([9.525, 3.175]);
});

test('without a board one is proposed around the relief, within the machine; inches are 25.4 times as large', () => {
  const small = proposed({ ...proposal, info: { ...info, unit: 'in', size: { x: 4, y: 2, z: 0.5 } } });
  expect(small.layers[0].size.x).toBeCloseTo(101.6, 3);
  expect(small.layers[0].rise).toBeCloseTo(12.7, 2);
  expect(small.board.x).toBeGreaterThanOrEqual(101.6 + 2 * 9.525);
  const huge = proposed({ ...proposal, info: { ...info, size: { x: 9000, y: 4500, z: 10 } } });
  expect(huge.board.x).toBeLessThanOrEqual(HOBBY_MACHINE.x);
  expect(huge.board.y).toBeLessThanOrEqual(HOBBY_MACHINE.y);
});

test('stepdown follows the material, within the limit of the bit', () => {
  expect(stepdownFor(rough, materialNamed('pine'))).toBeCloseTo(3.175, 6);
  expect(stepdownFor(rough, materialNamed('maple'))).toBeCloseTo(2.54, 6);
  expect(stepdownFor(rough, materialNamed('brass'))).toBeCloseTo(0.635, 6);
  expect(stepdownFor(rough, materialNamed('foam'))).toBe(rough.maxStepdown);
});

test('the cell suits the finest bit, and a large board is planned coarser within the memory', () => {
  const job = proposed({ ...proposal, board: { x: 300, y: 200, thickness: 19 } });
  expect(cellOf(job).cell).toBeCloseTo(0.099, 6);
  const large = proposed({ ...proposal, board: { x: 2400, y: 1200, thickness: 19 } });
  const { cell, wanted } = cellOf(large);
  expect(cell).toBeGreaterThan(wanted);
  expect((2400 * 1200) / cell ** 2).toBeLessThanOrEqual(MAX_CELLS * 1.001);
});

test.each<[string, (j: SetupView) => void, RegExp]>([
  [
    'no thickness',
    (j) => {
      j.board.thickness = 0;
    },
    /thickness is 0; it has to be more than 0/,
  ],
  [
    'a negative rise',
    (j) => {
      j.layers[0].rise = -2;
    },
    /rise of layer a is -2; it has to be more than 0/,
  ],
  [
    'a bit that is not there',
    (j) => {
      j.passes[0].cutter = 'gone';
    },
    /"gone" is not among/,
  ],
  [
    'a stepover that leaves ribs',
    (j) => {
      Object.assign(j.passes[0], { stepover: 5 });
    },
    /a stepover of 5 mm with end mill 6.35 leaves ribs standing/,
  ],
  [
    'a bit wider than the board',
    (j) => {
      j.board.x = 5;
      j.board.y = 4;
    },
    /wider than the board/,
  ],
  [
    'one file without a changer',
    (j) => {
      j.output.oneFile = true;
    },
    /one file needs a tool changer/,
  ],
  [
    'an empty frame',
    (j) => {
      (j.passes[0] as RoughPass).area = { kind: 'frame', x0: 5, y0: 0, x1: 5, y1: 9 };
    },
    /x1 above x0/,
  ],
])('a job with %s is read, and what is wrong with it is told', (_, edit, message) => {
  const job = proposed({ ...proposal, board: { x: 300, y: 200, thickness: 19 } });
  edit(job);
  expect(jobSchema.safeParse(job.document).success).toBe(true);
  expect(wrongIn(job)).toMatch(message);
});

test.each<[string, (j: SetupView) => void, RegExp]>([
  [
    'no number',
    (j) => Object.assign(j.layers[0].size, { x: Number.NaN }),
    /^size x of layer .* \(boards\.0\.setups\.0\.layers\.0\.size\.x\) is /,
  ],
  ['a kind of pass that is not known', (j) => Object.assign(j.passes[0], { kind: 'engrave' }), /kind/],
  ['a hash that is no hash', (j) => Object.assign(j.layers[0].source, { hash: '../../etc' }), /SHA-256/],
  [
    'a list beyond its limit',
    (j) => (j.passes = Array.from({ length: 41 }, () => j.passes[0])),
    /passes \(boards\.0\.setups\.0\.passes\) is too long: it has to have at most 40 entries/,
  ],
])('a document with %s cannot be read', (_, edit, message) => {
  const { document } = proposed({ ...proposal, board: { x: 300, y: 200, thickness: 19 } });
  edit(setupView(document));
  const parsed = jobSchema.safeParse(document);
  expect(parsed.success).toBe(false);
  if (!parsed.success) expect(describeIssues(parsed.error as never, document)).toMatch(message);
});

test('what is packed is unpacked, whatever the lengths', () => {
  const result = {
    meta: { name: 'größe', n: 3 },
    arrays: {
      a: Float32Array.from([1.5, -2, 3]),
      b: Uint8Array.from([1, 2, 3, 4, 5]),
      c: Float64Array.from([Math.PI]),
      d: new Float32Array(0),
    },
  };
  const parts = packStage(result);
  const bytes = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of parts) {
    bytes.set(p, at);
    at += p.length;
  }
  expect(unpackStage(bytes)).toEqual(result);
  // Wherever in memory the bytes begin.
  for (const at of [8, 3]) {
    const moved = new Uint8Array(bytes.length + at);
    moved.set(bytes, at);
    expect(unpackStage(moved.subarray(at))).toEqual(result);
  }
});

test('a section reads the cells that it passes', () => {
  const f = {
    width: 4,
    height: 2,
    cell: 1,
    originX: 0.5,
    originY: 0.5,
    data: Float32Array.from([0, -1, -2, -3, -4, -5, -6, -7]),
  };
  expect([...sectionOf(f, { x0: 0.5, y0: 1.5, x1: 3.5, y1: 1.5 }, 4)]).toEqual([-4, -5, -6, -7]);
  expect([...sectionOf(f, { x0: 0.5, y0: 0.5, x1: 3.5, y1: 1.5 }, 2)]).toEqual([0, -7]);
});
