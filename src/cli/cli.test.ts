import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import bunny from 'bunny';
import { afterAll, expect, test } from 'vitest';
import { BACK_DISH, DISHED, dishes, errorsOf, FACE_DISH } from '../core/plan/plan-test-kit';
import { parseHeightImage } from '../core/sources/height-image';
import { writeStl } from '../core/sources/stl';

// The command line as it is run: the built program, its exit status and what it leaves.
const folder = mkdtempSync(path.join(tmpdir(), 'zg-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const file = (name: string) => path.join(folder, name);

const triangles = new Float32Array(bunny.cells.length * 9);
bunny.cells.forEach((c, t) => {
  c.forEach((v, i) => {
    triangles.set(bunny.positions[v], t * 9 + i * 3);
  });
});
writeFileSync(file('bunny.stl'), writeStl(triangles, 'bunny'));
writeFileSync(file('empty.stl'), '');
writeFileSync(file('text.stl'), 'this is not a mesh, whatever its name says, and it goes on and on '.repeat(4));

const zg = (...args: string[]) => run('plan', ...args);

function run(...args: string[]) {
  const r = spawnSync('node', ['dist/cli.mjs', ...args], {
    encoding: 'utf8',
    env: { ...process.env, ZG_FROM: folder },
  });
  return { status: r.status, out: r.stdout, err: r.stderr };
}

const BUNNY = '--relief bunny.stl --board 90x64x19 --size 40 --origin centre --out out'.split(' ');

test('the bunny, laid flat as a relief of 40 mm, is planned and proven without an error', () => {
  const r = zg(...BUNNY);
  expect(r.err).toBe('');
  const report = JSON.parse(readFileSync(file('out/report.json'), 'utf8'));
  expect(errorsOf({ summary: report })).toEqual([]);
  expect(r.status).toBe(report.findings.some((f: { severity: string }) => f.severity === 'error') ? 3 : 0);
  expect(report.relief.size.x).toBe(40);
  expect(report.board).toEqual({ x: 90, y: 64, thickness: 19, origin: 'centre', zZero: 'top', spoilboard: true });
  expect(report.programs.map((p: { passes: { kind: string }[] }) => p.passes[0].kind)).toEqual(['rough', 'finish']);
  for (const p of report.programs) expect(existsSync(file(`out/${p.file}`))).toBe(true);
  // The images cover the board; the first row is the north; the programs' zero is the board's centre.
  const cut = parseHeightImage(readFileSync(file('out/cut.png')), 'cut.png');
  expect(cut.width * report.cut.cell).toBeCloseTo(90, 0);
  // The proof's own cells lie a quarter of a cell further.
  expect(report.cut.x0).toBeCloseTo(-45 + 0.75 * report.cut.cell, 6);
  expect(report.cut.y0).toBeCloseTo(32 - report.cut.cell / 2, 1);
  expect(Math.max(...cut.values.subarray(0, 1000))).toBe(1);

  // A written file is never overwritten: the same again is kept as it is, another gets a name of its own.
  const first = report.programs[0].file;
  const text = readFileSync(file(`out/${first}`), 'utf8');
  writeFileSync(file(`out/${first}`), 'mine');
  expect(zg(...BUNNY).status).toBe(r.status);
  expect(readFileSync(file(`out/${first}`), 'utf8')).toBe('mine');
  expect(readFileSync(file(`out/${first.replace('.nc', '-2.nc')}`), 'utf8')).toBe(text);
});

test('a board with a dish on both faces is planned from its document, and proven in one solid', () => {
  const { document } = dishes().face;
  document.cell = 0.3;
  writeFileSync(file('dishes.json'), JSON.stringify(document));
  const r = zg('dishes.json', '--out', 'dishes');
  expect(r.err).toBe('');
  expect(r.status).toBe(0);
  const report = JSON.parse(readFileSync(file('dishes/report.json'), 'utf8'));
  expect(report.findings.filter((f: { severity: string }) => f.severity === 'error')).toEqual([]);
  // The middles lie over each other: what is left there is the thickness less both depths.
  const left = DISHED.thickness - FACE_DISH.depth - BACK_DISH.depth;
  expect(Math.abs(report.boards[0].thinnest - left)).toBeLessThan(0.01);
  expect(report.setups.map((s: { up: string }) => s.up)).toEqual(['face', 'back']);
  for (const p of report.programs) expect(existsSync(file(`dishes/${p.file}`))).toBe(true);
  // Both sides have images of their own.
  for (const s of report.setups) {
    const cut = parseHeightImage(readFileSync(file(`dishes/${s.cut.file}`)), s.cut.file);
    expect(cut.width * s.cut.cell).toBeCloseTo(DISHED.x, 0);
  }
});

test('a board of two faces is studied beside its place: nine ways, with figures and pictures, by the programs as written', () => {
  const r = zg('dishes.json', '--beside', '0.5', '--turned', '0.5', '--out', 'beside');
  expect(r.err).toBe('');
  expect(r.status).toBe(0);
  const { cases } = JSON.parse(readFileSync(file('beside/study.json'), 'utf8'));
  expect(cases).toHaveLength(9);
  for (const c of cases) {
    expect(existsSync(file(`beside/${c.picture}`))).toBe(true);
    // Dishes that are round at their middles: moved by half a mm the web grows by hundredths.
    expect(Math.abs(c.web - (DISHED.thickness - FACE_DISH.depth - BACK_DISH.depth))).toBeLessThan(0.06);
    expect(c.open).toBe(0);
  }
  expect(cases[0].gone).toBe(0);
  expect(cases[1].gone).toBeGreaterThan(1);
  for (const [option, value, said] of [
    ['--beside', '9', 'is more than 5'],
    ['--turned', 'much', 'has to be 0 to 5 degrees'],
  ])
    expect(zg('dishes.json', option, value, '--out', 'beside').err).toContain(said);
});

test('programs from files are proven as they are written: as planned, edited by hand, and past reading', () => {
  const report = (dir: string) => JSON.parse(readFileSync(file(`${dir}/report.json`), 'utf8'));
  const planned = report('dishes');
  const names: string[] = planned.programs.map((p: { file: string }) => p.file);
  const prove = (dir: string, files = names.map((n) => `${dir}/${n}`)) =>
    run('prove', 'dishes.json', ...files, '--out', `${dir}/proof`);
  const same = prove('dishes');
  expect(same.err).toBe('');
  expect(same.status).toBe(0);
  const proven = report('dishes/proof');
  expect(proven.findings).toEqual(planned.findings);
  expect(readFileSync(file('dishes/proof/cut.png'))).toEqual(readFileSync(file('dishes/cut.png')));
  for (const [k, p] of proven.programs.entries()) expect(p.seconds / planned.programs[k].seconds).toBeCloseTo(1, 2);

  // One depth of the first program is two millimetres deeper.
  mkdirSync(file('edited'));
  for (const n of names) writeFileSync(file(`edited/${n}`), readFileSync(file(`dishes/${n}`)));
  const lines = readFileSync(file(`dishes/${names[0]}`), 'utf8').split('\n');
  const deepest = Math.min(...lines.map((l) => Number(/Z(-[\d.]+)/.exec(l)?.[1] ?? 0)));
  const at = lines.findIndex((l) => l.includes(`Z${deepest}`));
  lines[at] = lines[at].replace(`Z${deepest}`, `Z${deepest - 2}`);
  writeFileSync(file(`edited/${names[0]}`), lines.join('\n'));
  expect(prove('edited').status).toBe(3);
  const found = report('edited/proof').findings as { rule: string; severity: string; message: string }[];
  expect(found.map((f) => f.rule)).toContain('gouge');
  expect(found.find((f) => f.rule === 'not-planned-here')).toMatchObject({ severity: 'note' });
  expect(found.find((f) => f.rule === 'not-planned-here')?.message).toContain(names[0]);

  lines[at] = 'G5 X1 Y1';
  writeFileSync(file(`edited/${names[0]}`), lines.join('\n'));
  const broken = prove('edited');
  expect(broken.status).toBe(2);
  expect(broken.err.trim()).toBe(`zg prove: ${names[0]}, line ${at + 1}: G5 is not followed by this reader`);
});

test.each([
  ['no programs', ['dishes.json', '--out', 'p'], 'give the programs after the job'],
  ['a program that is not there', ['dishes.json', 'none.nc', '--out', 'p'], 'none.nc: there is no such file'],
  ['no folder', ['dishes.json', 'bunny.stl'], '--out DIR is missing'],
  ['another option', ['dishes.json', 'bunny.stl', '--fast', '--out', 'p'], '"--fast" is not an option'],
])('prove, %s: exit status 2 with one line', (_, args, said) => {
  const r = run('prove', ...args);
  expect(r.status).toBe(2);
  expect(r.err.trim().split('\n')).toHaveLength(1);
  expect(r.err).toContain(said);
});

test('all that a document has wrong is said in one line, and nothing is written', () => {
  const { document } = dishes().face;
  document.boards[0].thickness = -3;
  document.boards[0].setups[0].passes[0].cutter = 'lent';
  writeFileSync(file('wrong.json'), JSON.stringify(document));
  const r = zg('wrong.json', '--out', 'wrong');
  expect(r.status).toBe(2);
  expect(r.err.trim().split('\n')).toHaveLength(1);
  expect(r.err).toContain('-3');
  expect(r.err).toContain('"lent"');
  expect(existsSync(file('wrong/report.json'))).toBe(false);
});

test('what cannot be cut is a finding: exit status 3', () => {
  const r = zg(
    '--relief',
    'bunny.stl',
    '--board',
    '40x40x5',
    '--rise',
    '8',
    '--size',
    '20',
    '--rough',
    'endmill:3.175',
    '--finish',
    'ball:3.175',
    '--out',
    'deep',
  );
  expect(r.status).toBe(3);
  expect(r.out).toContain('error: a height of 8 mm and skin 0 mm need 8 mm, the board is 5 mm thick');
});

test.each([
  ['an empty file', ['--relief', 'empty.stl', '--board', '100x100x19', '--out', 'no'], 'empty.stl: is empty (0 bytes)'],
  ['text', ['--relief', 'text.stl', '--board', '100x100x19', '--out', 'no'], 'text.stl: is a text'],
  ['no such file', ['--relief', 'none.stl', '--board', '100x100x19', '--out', 'no'], 'there is no such file'],
  [
    'a board of nothing',
    ['--relief', 'bunny.stl', '--board', '0x100x19', '--out', 'no'],
    '--board: "0" must be more than 0',
  ],
  [
    'a negative rise',
    ['--relief', 'bunny.stl', '--board', '100x100x19', '--rise', '-2', '--out', 'no'],
    '--rise: "-2" must be more than 0',
  ],
  [
    'two numbers for a board',
    ['--relief', 'bunny.stl', '--board', '100x100', '--out', 'no'],
    '--board: "100x100" must have 3 numbers',
  ],
  [
    'a bit wider than the board',
    ['--relief', 'bunny.stl', '--board', '50x40x19', '--rough', 'endmill:60', '--out', 'no'],
    'wider than the board',
  ],
  [
    'an unknown bit',
    ['--relief', 'bunny.stl', '--board', '100x100x19', '--finish', 'needle:3', '--out', 'no'],
    '"needle:3" is not a bit',
  ],
  ['an unknown word', ['--relief', 'bunny.stl', '--bord', '100x100x19', '--out', 'no'], '"--bord" is not an option'],
  [
    'an output folder that is a file',
    ['--relief', 'bunny.stl', '--board', '100x100x19', '--out', 'text.stl'],
    'text.stl is a file; name a folder',
  ],
  ['nowhere to write', ['--relief', 'bunny.stl', '--board', '100x100x19'], '--out DIR is missing'],
  ['a job that is no JSON', ['text.stl', '--out', 'no'], 'is not JSON'],
])('%s: exit status 2 with one line', (_, args, message) => {
  const r = zg(...args);
  expect(r.status).toBe(2);
  expect(r.err).toContain(message);
  expect(r.err.trim().split('\n')).toHaveLength(1);
  expect(readdirSync(folder)).not.toContain('no');
});
