import fc from 'fast-check';
import { expect, test } from 'vitest';
import { DIALECTS } from '../doc/machine';
import { type Mark, Path } from '../motion/path';
import { zeroOf } from '../setup/frame';
import { DIALECT_OF } from './dialects/registry';
import { MOTION, readProgram } from './reader';
import { commentText, fileStem, writeProgram } from './writer';

const board = { x: 300, y: 200, thickness: 19, origin: 'centre' as const, zZero: 'bed' as const };

function ends(text: string): number[][] {
  const { motions } = readProgram(text, 'p.nc', 1);
  const out: number[][] = [];
  for (let k = 0; k < motions.length; k += MOTION)
    out.push([motions[k + 3], motions[k + 4], motions[k + 5], motions[k + 6]]);
  return out;
}

const coordinate = fc.double({ min: -400, max: 400, noNaN: true });

test('what is written is read back: every end within a rounding, never deeper than planned', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(coordinate, coordinate, fc.double({ min: -30, max: 4, noNaN: true }), fc.boolean()), {
        minLength: 1,
        maxLength: 40,
      }),
      fc.constantFrom('mm' as const, 'in' as const),
      fc.constantFrom('top' as const, 'bed' as const),
      fc.constantFrom(...DIALECTS),
      (points, unit, zZero, dialect) => {
        const path = new Path();
        path.rapid(points[0][0], points[0][1], 5);
        for (const [x, y, z, cut] of points) cut ? path.feed(x, y, z, 1234) : path.rapid(x, y, z);
        const zero = zeroOf(board, { zero: { origin: board.origin, z: zZero } });
        const text = writeProgram([{ title: 't', toolNumber: 1, rpm: 16000, moves: path.data, arcs: 0, marks: [] }], {
          header: ['h'],
          zero,
          unit,
          safeZ: 5,
          toolChanger: false,
          dialect: DIALECT_OF[dialect],
        });
        const { motions } = readProgram(text, 'p.nc', 1);
        const step = unit === 'mm' ? 0.001 : 0.00254;
        // The reader's ends, in board coordinates, without moves that rounding made nothing of.
        const wanted: number[][] = [];
        for (let k = 0; k < path.data.length; k += 4) wanted.push(Array.from(path.data.slice(k, k + 4)));
        let w = 0;
        for (let k = 0; k < motions.length; k += MOTION) {
          const got = [motions[k + 3] + zero.x, motions[k + 4] + zero.y, motions[k + 5] + zero.z];
          while (w < wanted.length) {
            const [x, y, z, f] = wanted[w];
            const near =
              Math.abs(got[0] - x) <= step * 0.51 &&
              Math.abs(got[1] - y) <= step * 0.51 &&
              got[2] - z >= -1e-6 &&
              got[2] - z <= step * 1.01;
            if (near && motions[k + 6] === (f > 0 ? 0 : 1)) break;
            w++;
          }
          if (w === wanted.length) {
            // Only the way up at the very end may follow.
            expect(got[2]).toBeCloseTo(5, 2);
            expect(k).toBe(motions.length - MOTION);
          }
        }
      },
    ),
  );
});

test('a program is plain: units first, modal words once, no digit too many, safe at both ends', () => {
  const path = new Path();
  path.rapid(10, 10, 5);
  path.rapid(10, 10, 0.5);
  path.feed(10, 10, -1.23456, 500);
  path.feed(20, 10, -1.23456, 1800);
  path.feed(30, 12.3, -1.23456, 1800);
  path.rapid(30, 12.3, 5);
  const text = writeProgram([{ title: 'rough', toolNumber: 3, rpm: 16000, moves: path.data, arcs: 0, marks: [] }], {
    header: ['Plaque (of oak)'],
    zero: { x: 0, y: 0, z: 0 },
    unit: 'mm',
    safeZ: 5,
    toolChanger: true,
    dialect: DIALECT_OF.rs274,
  });
  expect(text.split('\n')).toEqual([
    '(Plaque  of oak)',
    'G21',
    'G17 G90 G94',
    'G54',
    '(rough)',
    'T3 M6',
    'G43 H3',
    'G0 Z5',
    'S16000 M3',
    'G4 P3',
    'G0 X10 Y10',
    'Z0.5',
    'G1 Z-1.234 F500',
    'X20 F1800',
    'X30 Y12.3',
    'G0 Z5',
    'M5',
    'M30',
    '',
  ]);
});

test('names from people never become paths, and comments never end early', () => {
  expect(fileStem('../../etc', 'a/b\\c', '1-ball 3.175')).toBe('etc_a-b-c_1-ball-3.175');
  expect(fileStem('', '...')).toBe('job');
  expect(commentText('a) M30 (b\nä')).toBe('a  M30  ba');
});

// Rules of the RS-274/NGC report (NIST IR 6556), from memory.
test('units, distance modes and modal motion', () => {
  expect(
    ends('G20 G90 G0 X1 Y0 Z1\nF10 M3 S1000\nG1 X2\nY1\nG91\nX1\nG21\nX1').map((e) =>
      e.map((v) => Number(v.toFixed(9))),
    ),
  ).toEqual([
    [25.4, 0, 25.4, 1],
    [50.8, 0, 25.4, 0],
    [50.8, 25.4, 25.4, 0],
    [76.2, 25.4, 25.4, 0],
    [77.2, 25.4, 25.4, 0],
  ]);
});

test('words may come in any order, with spaces and lower case, and comments are left out', () => {
  expect(ends('n10 x 1 g0 y2z+3 (go X99)\nm3 s500 ; comment X5\nf100 g1x2.5')).toEqual([
    [1, 2, 3, 1],
    [2.5, 2, 3, 0],
  ]);
});

test('arcs: a quarter by centre and by radius, a full circle, a helix, and the XZ plane', () => {
  const last = (t: string) => ends(t).at(-1)!.slice(0, 3);
  const along = (t: string) => {
    const { motions } = readProgram(t, 'p.nc');
    let l = 0;
    for (let k = 0; k < motions.length; k += MOTION) {
      if (motions[k + 6] === 0)
        l += Math.hypot(motions[k + 3] - motions[k], motions[k + 4] - motions[k + 1], motions[k + 5] - motions[k + 2]);
    }
    return l;
  };
  const start = 'G21 G90 M3 S100 F100 G0 X10 Y0 Z0\n';
  for (const arc of ['G3 X0 Y10 I-10 J0', 'G3 X0 Y10 R10']) {
    expect(last(start + arc)[1]).toBeCloseTo(10, 9);
    expect(along(start + arc)).toBeCloseTo((Math.PI / 2) * 10, 2);
  }
  expect(along(`${start}G2 X0 Y10 I-10 J0`)).toBeCloseTo(((3 * Math.PI) / 2) * 10, 1);
  expect(along(`${start}G3 X0 Y10 R-10`)).toBeCloseTo(((3 * Math.PI) / 2) * 10, 1);
  expect(along(`${start}G2 I-10`)).toBeCloseTo(2 * Math.PI * 10, 1);
  expect(last(`${start}G3 X10 Y0 Z-4 I-10`)).toEqual([10, 0, -4]);
  // In G18 the first axis is Z: a clockwise quarter seen from positive Y goes from +X towards -Z... and back up by K.
  expect(along(`${start}G18 G3 X0 Z-10 I-10 K0`)).toBeCloseTo((Math.PI / 2) * 10, 2);
});

test.each([
  ['G1 X1 Y1 Z1 M3', 'a cutting motion without a feed'],
  ['G0 X1 Y1 Z1\nX2 X3', 'the word X twice'],
  ['G0 G1 X1', 'two motions'],
  ['G5 X1', 'G5 is not followed'],
  ['X1 Y1', 'a place without a motion'],
  ['G0 X1 (open', 'a comment that is not closed'],
  ['G0 X1 Y1 Z1 M3\nF100 G2 X5 Y5', 'an arc without centre or radius'],
  ['G0 X0 Y0 Z0 M3\nF100 G2 X50 Y0 R2', 'cannot span'],
  ['G0 X0 Y0 Z0 M3\nF100 G2 X5 Y0 I1', "arc's ends lie"],
  ['G0 X1..2', 'is not a word'],
  ['F100 M3 G1 X1', 'before every axis has a place'],
])('%j is refused with its line', (text, message) => {
  expect(() => readProgram(text, 'p.nc')).toThrow(message);
  expect(() => readProgram(text, 'p.nc')).toThrow(/^p\.nc, line \d+: /);
});

/** The spindle at the last motion of a program, rpm. */
const spindleAt = (text: string) => readProgram(text, 'p.nc').motions.at(-1);

test('every motion says how the spindle turns meanwhile', () => {
  expect(spindleAt('G0 X0 Y0 Z0\nF10\nG1 X1')).toBe(0);
  expect(spindleAt('G0 X0 Y0 Z0 M3 S100\nF10\nG1 X1')).toBe(100);
  expect(spindleAt('G0 X0 Y0 Z0 M4 S100\nF10\nG1 X1')).toBe(-100);
  expect(spindleAt('G0 X0 Y0 Z0 M3 S100\nM5\nF10\nG1 X1')).toBe(0);
  expect(spindleAt('G0 X0 Y0 Z0 M3 S100\nS250\nF10\nG1 X1')).toBe(250);
});

test('what a program leaves unsaid before it moves is known, and how it ends', () => {
  const read = (text: string) => readProgram(text, 'p.nc');
  expect(read('G21 G17 G90 G94 G54\nG0 X0 Y0 Z5\nM30').unsaid).toEqual([]);
  expect(read('G21 G90\nG0 X0 Y0 Z5\nG17\nM30')).toMatchObject({ unsaid: ['plane', 'feed', 'offset'], firstLine: 2 });
  expect(read('G0 X0 Y0 Z5\nM3 S10\nM30\nG0 X9').end).toEqual({ said: true, turning: true, line: 3 });
  expect(read('G0 X0 Y0 Z5').end).toEqual({ said: false, turning: false, line: 1 });
});

test('a changer gets its spindle stopped before every bit but the first, and started again after it', () => {
  const path = new Path();
  path.rapid(1, 1, 5);
  path.feed(1, 1, -1, 300);
  path.rapid(1, 1, 5);
  const part = (toolNumber: number, rpm: number) => ({
    title: 'cut',
    toolNumber,
    rpm,
    moves: path.data,
    arcs: 0,
    marks: [],
  });
  const text = writeProgram([part(1, 16000), part(4, 16000), part(4, 16000), part(2, 12000)], {
    header: [],
    zero: { x: 0, y: 0, z: 0 },
    unit: 'mm',
    safeZ: 5,
    toolChanger: true,
    dialect: DIALECT_OF.rs274,
  });
  const spindle = text.split('\n').filter((l) => /M3$|M5|M6/.test(l));
  expect(spindle).toEqual(['T1 M6', 'S16000 M3', 'M5', 'T4 M6', 'S16000 M3', 'M5', 'T2 M6', 'S12000 M3', 'M5']);
});

test('a dialect writes what its traits say, and the same way of the tip', () => {
  const path = new Path();
  path.rapid(15, 10, 5);
  path.feed(15, 10, -1, 300);
  for (let a = 0; a <= 180; a += 2) {
    const t = (a * Math.PI) / 180;
    path.feed(10 + 5 * Math.cos(t), 10 + 5 * Math.sin(t), -1, 1800);
  }
  path.rapid(path.x, path.y, 5);
  const written = (dialect: (typeof DIALECTS)[number]) =>
    writeProgram([{ title: 'cut (all)', toolNumber: 4, rpm: 16000, moves: path.data, arcs: 0.01, marks: [] }], {
      header: ['Plaque'],
      zero: { x: 0, y: 0, z: 0 },
      unit: 'mm',
      safeZ: 5,
      toolChanger: true,
      dialect: DIALECT_OF[dialect],
    });
  expect(written('rs274')).toMatch(/^G3 /m);
  expect(written('rs274')).toMatch(/^M30$/m);
  expect(written('rs274-lines')).not.toMatch(/\bG[23]\b/);
  expect(written('rs274-lines').split('\n')[0]).toBe('; Plaque');
  const numbered = written('rs274-numbered').trim().split('\n');
  const lines = numbered.filter((l) => !l.startsWith('('));
  expect(lines.map((l) => Number(/^N(\d+) /.exec(l)?.[1]))).toEqual(lines.map((_, n) => 10 * (n + 1)));
  expect(lines.at(-1)).toMatch(/ M2$/);
  for (const dialect of DIALECTS) {
    const text = written(dialect);
    expect(text).toContain('G43 H4');
    const read = readProgram(text, 'p.nc', 4);
    expect(read.tools.at(-1)).toMatchObject({ tool: 4, offset: 4 });
    expect(read.starts).toMatchObject([{ wait: 3 }]);
    expect(read.end).toMatchObject({ said: true, turning: false });
    // No place of the way lies further off the half circle than the arcs may, its chords and their rounding.
    for (let k = 0; k < read.motions.length; k += MOTION) {
      if (read.motions[k + 5] !== -1 || read.motions[k + 2] !== -1) continue;
      expect(Math.abs(Math.hypot(read.motions[k + 3] - 10, read.motions[k + 4] - 10) - 5)).toBeLessThan(0.015);
    }
  }
});

test('places in a pass stand as comments before the block in which they begin, with arcs too, and change nothing else', () => {
  const path = new Path();
  path.rapid(15, 10, 5);
  path.at(['outline', 1, 1], ['lap', 1, 2]);
  path.feed(15, 10, -1, 300, 'plunge');
  const lap = (z: number) => {
    for (let k = 0; k <= 120; k++)
      path.feed(10 + 5 * Math.cos((k * Math.PI) / 60), 10 + 5 * Math.sin((k * Math.PI) / 60), z, 1800);
  };
  lap(-1);
  path.at(['outline', 1, 1], ['lap', 2, 2]);
  path.feed(15, 10, -2, 300, 'plunge');
  lap(-2);
  const write = (arcs: number, marks: Mark[]) =>
    writeProgram([{ title: 'cut-out', toolNumber: 4, rpm: 16000, moves: path.data, arcs, marks }], {
      header: [],
      zero: { x: 0, y: 0, z: 0 },
      unit: 'mm',
      safeZ: 5,
      toolChanger: false,
      dialect: DIALECT_OF.rs274,
    }).split('\n');
  for (const arcs of [0, 0.01]) {
    const lines = write(arcs, path.marks);
    expect(lines.filter((l) => l.startsWith('(outline'))).toEqual([
      '(outline 1 of 1, lap 1 of 2)',
      '(outline 1 of 1, lap 2 of 2)',
    ]);
    expect(lines[lines.indexOf('(outline 1 of 1, lap 2 of 2)') + 1]).toMatch(/^(G1 )?Z-2 F300$/);
    expect(lines.filter((l) => !l.startsWith('(outline'))).toEqual(write(arcs, []));
    const { notes } = readProgram(lines.join('\n'), 'x.nc');
    expect(notes.map((n) => n.text)).toEqual(['cut-out', 'outline 1 of 1, lap 1 of 2', 'outline 1 of 1, lap 2 of 2']);
    expect(lines[notes[2].line - 1]).toBe('(outline 1 of 1, lap 2 of 2)');
  }
});
