import { describe, expect, test } from 'vitest';
import { ROTARY_AXIS, ROTARY_MACHINE } from '../doc/defaults';
import type { Rotary } from '../doc/machine';
import { timeRound } from '../motion/round';
import { DIALECT_OF } from './dialects/registry';
import { MOTION, ProgramError, readProgram } from './reader';
import { lengthRound, readFor } from './round';
import { type ProgramPart, writeProgram } from './writer';

const RADIUS = 25;
const TURN = 2 * Math.PI * RADIUS;

/** A program of moves: x, y along the circle, z over it, feed. */
function written(
  moves: number[][],
  axis: Partial<Rotary> = {},
  zero = { x: 0, y: 0, z: 0 },
  unit: 'mm' | 'in' = 'mm',
): string {
  const part: ProgramPart = {
    title: 'turned',
    toolNumber: 1,
    rpm: 18000,
    moves: Float64Array.from([[0, 0, 5, 0], ...moves].flat()),
    marks: [],
    arcs: 0,
  };
  return writeProgram([part], {
    header: [],
    zero,
    unit,
    safeZ: 5,
    toolChanger: false,
    dialect: DIALECT_OF.rs274,
    round: { axis: { ...ROTARY_AXIS, ...axis }, radius: RADIUS },
  });
}

/** Lines that move at feed. */
const cuts = (text: string) => text.split('\n').filter((l) => / F/.test(l));

/**
 * A small reader of such programs that shares nothing with the product's: it follows X, A, Z, F and the words for feeds of the dialect that they are
 * written in, and says of every move at feed where it goes, degrees and mm, and how long it takes, minutes.
 */
function follow(text: string, degreesCount: boolean) {
  let [x, a, z, f, inverse, fast] = [0, 0, 0, 0, false, true];
  const out: { x: number; a: number; z: number; minutes: number }[] = [];
  for (const line of text.split('\n')) {
    if (line.startsWith('(')) continue;
    const word = (letter: string) => {
      const m = new RegExp(`${letter}(-?[0-9.]+)`).exec(line);
      return m ? Number(m[1]) : undefined;
    };
    if (/G93/.test(line)) inverse = true;
    if (/G94/.test(line)) inverse = false;
    if (/G0(?!\d)/.test(line)) fast = true;
    if (/G1(?!\d)/.test(line)) fast = false;
    f = word('F') ?? f;
    const to = [word('X') ?? x, word('A') ?? a, word('Z') ?? z];
    const straight = Math.hypot(to[0] - x, to[2] - z);
    const degrees = Math.abs(to[1] - a);
    if (straight + degrees > 0 && !fast) {
      const length = degreesCount ? Math.hypot(straight, degrees) : straight > 0 ? straight : degrees;
      out.push({ x: to[0], a: to[1], z: to[2], minutes: inverse ? 1 / f : length / f });
    }
    [x, a, z] = to;
  }
  return out;
}

describe('feeds hold the speed of the tip over the wood', () => {
  // A quarter of a turn at 5 mm deep: 20 mm * pi / 2 = 31.416 mm at 1000 mm/min takes 0.031416 minutes.
  const quarter = [
    [0, 0, -5, 500],
    [0, TURN / 4, -5, 1000],
  ];

  test('in inverse time: one over the minutes', () => {
    const text = written(quarter);
    expect(text).toMatch(/G17 G90 G93/);
    expect(cuts(text)[1]).toBe(`A90 F${31.831}`);
    // G94 is in force again before the program ends.
    expect(text.trim().split('\n').slice(-3)).toEqual(['G94', 'M5', 'M30']);
  });

  test('in degrees a minute where only the drum turns: F 180 / (pi rho)', () => {
    const text = written(quarter, { feed: 'per-minute' });
    expect(text).not.toMatch(/G93/);
    expect(Number(/A90 F([\d.]+)/.exec(text)![1])).toBeCloseTo((1000 * 180) / (Math.PI * 20), 0);
  });

  test('combined: as the straight axes’ feed, or with degrees counted as mm, by the machine', () => {
    // 30 mm along while it turns 90 degrees: sqrt(30² + 31.416²) = 43.44 mm, 0.04344 minutes.
    const moves = [
      [0, 0, -5, 500],
      [30, TURN / 4, -5, 1000],
    ];
    const minutes = Math.hypot(30, 10 * Math.PI) / 1000;
    const word = (text: string) => Number(/A90 F([\d.]+)/.exec(text)![1]);
    expect(word(written(moves, { feed: 'per-minute' }))).toBeCloseTo(30 / minutes, 1);
    expect(word(written(moves, { feed: 'per-minute', degreesCount: true }))).toBeCloseTo(
      Math.hypot(30, 90) / minutes,
      0,
    );
    expect(word(written(moves))).toBeCloseTo(1 / minutes, 2);
  });

  test('no faster than the axis turns', () => {
    const text = written(quarter, { maxSpeed: 360 });
    // 90 degrees at 360 a minute: a quarter of a minute.
    expect(cuts(text)[1]).toBe('A90 F4');
  });
});

test('every cutting line in inverse time has its own feed; moves too short for one go with the next', () => {
  const text = written([
    [0, 0, -1, 500],
    [10, 0, -1, 1000],
    [20, 0, -1, 1000],
    [20.001, 0, -1, 1000],
    [30, 0, -1, 1000],
  ]);
  const lines = cuts(text);
  expect(lines).toHaveLength(4);
  expect(lines[3]).toMatch(/^X30 F100.?/);
});

test('an axis that does not turn on and on goes back to where it began, over everything', () => {
  const spiral = [
    [0, 0, -1, 500],
    [9, 3 * TURN, -1, 1000],
    [9, 3 * TURN, 5, 0],
  ];
  const back = written(spiral, { endless: false }).trim().split('\n');
  expect(back.slice(-4)).toEqual(['G0 A0', 'G94', 'M5', 'M30']);
  expect(written(spiral)).not.toMatch(/G0 A0\n/);
});

test('an axis that turns on and on takes the shorter way to the next place over everything; another one turns back', () => {
  const way = [
    [0, 0, -1, 500],
    [9, 3.25 * TURN, -1, 1000],
    [9, 3.25 * TURN, 5, 0],
    [12, 0.5 * TURN, 5, 0],
    [12, 0.5 * TURN, -1, 500],
    [12, 0.75 * TURN, -1, 500],
  ];
  const on = written(way);
  expect(on).toMatch(/X12 A1260\b/);
  expect(on).toMatch(/A1350\b/);
  expect(written(way, { endless: false })).toMatch(/X12 A180\b/);
  // The time that is planned counts the way that is turned.
  const moves = Float64Array.from([[0, 0, 5, 0], ...way].flat());
  const time = (endless: boolean) =>
    timeRound(moves, { ...ROTARY_MACHINE, rotary: { ...ROTARY_AXIS, endless } }, RADIUS).seconds;
  expect(time(false) - time(true)).toBeGreaterThan(1);
});

test('a drum along the machine’s y has its length written as Y, and its own letter', () => {
  const text = written([[7, TURN / 2, -1, 500]], { along: 'y', letter: 'B' });
  expect(text).toMatch(/G0 Y0 B0 X0/);
  expect(text).toMatch(/Y7 B180 Z-1/);
});

/** A way of all kinds: along, around, both, down a slope. */
const WAY = [
  [2, 3, -1, 500],
  [12, 3, -2.5, 1500],
  [12, 40, -2.5, 1500],
  [14, 60, -1.2, 900],
  [14.4, 61, -4, 600],
  [9, 10, -4, 1800],
];

test.each([
  ['inverse time', { feed: 'inverse-time' }],
  ['feed of the straight axes', { feed: 'per-minute' }],
  ['degrees counted as mm', { feed: 'per-minute', degreesCount: true }],
] as [string, Partial<Rotary>][])('%s: the same way and the same time, by another reader and by ours', (_, axis) => {
  const zero = { x: 1, y: 5, z: -RADIUS };
  const text = written(WAY, axis, zero);
  const own = { axis: { ...ROTARY_AXIS, ...axis }, radius: RADIUS };
  const theirs = follow(text, axis.degreesCount ?? false);
  const { motions } = readFor({ text, file: 'way', tool: 1 }, own, zero.z);
  const fed: Float64Array[] = [];
  for (let k = 0; k < motions.length; k += MOTION) if (motions[k + 6] === 0) fed.push(motions.subarray(k, k + MOTION));
  expect(theirs).toHaveLength(WAY.length);
  expect(fed).toHaveLength(WAY.length);
  WAY.forEach(([x, y, z, feed], i) => {
    const t = theirs[i];
    expect(t.x + zero.x).toBeCloseTo(x, 3);
    expect((t.a * Math.PI * RADIUS) / 180 + zero.y).toBeCloseTo(y, 3);
    // Heights are rounded upwards, by a thousandth at most.
    expect(t.z + zero.z - z).toBeGreaterThan(-1e-6);
    expect(t.z + zero.z - z).toBeLessThan(1.1e-3);
    const [px, py, pz] = i === 0 ? [0, 0, 5] : WAY[i - 1];
    const long = lengthRound(RADIUS, x - px, (y - py) / RADIUS, pz, z);
    expect(Math.abs(t.minutes / (long / feed) - 1)).toBeLessThan(0.01);
    // Ours says the speed over the wood, and the place along the circle.
    expect(Math.abs(fed[i][7] / feed - 1)).toBeLessThan(0.01);
    expect(fed[i][3] + zero.x).toBeCloseTo(x, 3);
    expect(fed[i][4] + zero.y).toBeCloseTo(y, 3);
  });
});

test('the time of a turn is its way at its own radius, and no less than the axis needs', () => {
  const data = Float64Array.from([0, 0, -5, 0, 0, TURN, -5, 1000]);
  const machine = {
    maxFeed: { x: 5000, y: 5000, z: 2000 },
    acceleration: { x: 3e4, y: 3e4, z: 3e4 },
    junctionDeviation: 0.01,
  };
  const rotary = { ...ROTARY_AXIS, acceleration: 1e5 };
  // Round 20 mm: 125.66 mm at 1000 mm/min, 7.54 s.
  expect(timeRound(data, { ...machine, rotary }, RADIUS).seconds).toBeCloseTo(7.54, 1);
  // At a turn a minute it takes a minute, by the drum's circle; a fifth less where the tip runs deeper.
  const slow = timeRound(data, { ...machine, rotary: { ...rotary, maxSpeed: 360 } }, RADIUS).seconds;
  expect(slow).toBeGreaterThan(47);
  expect(slow).toBeLessThan(61);
});

describe('what cannot be followed is refused in a sentence', () => {
  const on = { axis: ROTARY_AXIS, radius: RADIUS };
  const read =
    (text: string, drum = true) =>
    () =>
      readFor({ text, file: 'p.nc', tool: 1 }, drum ? on : null, 0);
  const START = 'G21 G17 G90 G93 G54\nG0 X0 Y0 Z5 A0\n';
  test.each([
    ['another letter', `${START.replace('A0', 'B0')}G1 B90 F5\n`, /turns B; the machine’s rotary axis is A/],
    ['two letters', `${START}G1 A90 F5\nB10 F5\n`, /turns A and B/],
    ['off the axis', `${START}G1 Y2 F5\n`, /line 3: moves Y off the axis/],
    ['no feed of its own', `${START}G1 A90 F5\nA100\n`, /inverse time without a feed of its own/],
    ['an arc', `${START}G2 X2 Y0 I1 J0 F5\n`, /an arc in inverse time/],
    ['an arc that turns', 'G21 G17 G90 G94 G54\nG0 X0 Y0 Z5 A0\nG2 X2 Y0 I1 J0 A5 F5\n', /an arc that turns an axis/],
    ['from an unknown angle', 'G21 G17 G91 G94 G54\nG0 A5\n', /from an unknown angle/],
  ])('%s', (_, text, why) => {
    expect(read(text)).toThrow(ProgramError);
    expect(read(text)).toThrow(why);
  });

  test('a board that lies flat', () => {
    expect(read(`${START}G1 A90 F5\n`, false)).toThrow(/turns A; the board that it is for lies flat/);
    expect(read('G21 G17 G90 G93 G54\nG0 X0 Y0 Z5\nG1 X9 F5\n', false)).toThrow(
      /inverse time, which is followed round a drum only/,
    );
    // One that turns nothing is read as ever.
    expect(read('G21 G17 G90 G94 G54\nG0 X0 Y0 Z5\nG1 X9 F500\n', false)().turned).toBeNull();
  });

  test('feeds of one mode are not taken for those of the other', () => {
    expect(() => readProgram('G21 G17 G90 G93 G54\nG0 X0 Y0 Z5\nG1 X9 F5\nG94\nX18\n', 'p.nc')).toThrow(
      /without a feed/,
    );
  });
});

test.each([
  ['inverse time', { feed: 'inverse-time' }],
  ['feed of the straight axes', { feed: 'per-minute' }],
  ['degrees counted as inches', { feed: 'per-minute', degreesCount: true }],
] as [string, Partial<Rotary>][])('in inches the words mean the same way and speed: %s', (_, axis) => {
  const text = written(WAY, axis, { x: 0, y: 0, z: 0 }, 'in');
  expect(text).toMatch(/^G20$/m);
  const { motions } = readFor({ text, file: 'way', tool: 1 }, { axis: { ...ROTARY_AXIS, ...axis }, radius: RADIUS }, 0);
  const fed: Float64Array[] = [];
  for (let k = 0; k < motions.length; k += MOTION) if (motions[k + 6] === 0) fed.push(motions.subarray(k, k + MOTION));
  WAY.forEach(([x, y, z, feed], i) => {
    expect(fed[i][3]).toBeCloseTo(x, 2);
    expect(fed[i][4]).toBeCloseTo(y, 2);
    expect(Math.abs(fed[i][5] - z)).toBeLessThan(3e-3);
    expect(Math.abs(fed[i][7] / feed - 1)).toBeLessThan(0.01);
  });
});
