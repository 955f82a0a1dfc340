import { spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import ts from 'typescript';
import { afterEach, expect, test } from 'vitest';

const planted = 'src/core/units/planted.ts';
afterEach(() => rmSync(planted, { force: true }));

const cruise = () =>
  spawnSync('npx', ['depcruise', '--config', '.dependency-cruiser.cjs', 'src', 'demo'], { encoding: 'utf8' });

test('the layers import downwards only, and an import upwards is noticed', () => {
  expect(cruise().status).toBe(0);
  mkdirSync('src/core/units', { recursive: true });
  for (const [target, rule] of [
    ['../../server/shop', 'core-is-alone'],
    ['../proof/prove', 'core-units-is-early'],
    ['node:fs', 'core-'],
  ]) {
    writeFileSync(planted, `import * as above from '${target}';\nexport const use = above;\n`);
    const r = cruise();
    expect(r.status).not.toBe(0);
    expect(r.stdout + r.stderr).toContain(rule);
  }
}, 120_000);

/** Kernels and inner loops, where a call or an object for every cell or move would cost more than the length does. */
const INNER_LOOPS = [
  'compose',
  'contourRings',
  'copyBand',
  'cubic',
  'edge',
  'furthest',
  'motionTime',
  'picturePiece',
  'pointBeside',
  'reliefAt',
  'thin',
  'thinLine',
];
const MOST = { lines: 60, parameters: 5, file: 300 };

/** Functions of a file with their lines and parameters. */
function functionsOf(file: string, text: string): { name: string; lines: number; parameters: number }[] {
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const out: { name: string; lines: number; parameters: number }[] = [];
  const line = (at: number) => source.getLineAndCharacterOfPosition(at).line;
  const visit = (node: ts.Node): void => {
    if (ts.isFunctionLike(node) && 'body' in node && node.body) {
      const name = node.name ?? (ts.isVariableDeclaration(node.parent) ? node.parent.name : undefined);
      const lines = line(node.end) - line(node.getStart()) + 1;
      out.push({ name: name?.getText() ?? '', lines, parameters: node.parameters.length });
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return out;
}

/** What of core and server is longer than it may be. */
function tooLong(read: (file: string) => string): string[] {
  return ['src/core', 'src/server']
    .flatMap((d) => (readdirSync(d, { recursive: true }) as string[]).map((f) => `${d}/${f}`))
    .filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts') && !f.includes('kernels/assembly'))
    .flatMap((f) => {
      const text = read(f);
      const long = functionsOf(f, text).filter(
        (d) => (d.lines > MOST.lines || d.parameters > MOST.parameters) && !INNER_LOOPS.includes(d.name),
      );
      const lines = text.split('\n').length - 1;
      return [
        ...(lines > MOST.file ? [`${f} has ${lines} lines`] : []),
        ...long.map((d) => `${f}: ${d.name} has ${d.lines} lines and takes ${d.parameters}`),
      ];
    });
}

test('in core and server no function is over 60 lines or takes over 5, and no file is over 300; longer ones are noticed', () => {
  const read = (f: string) => readFileSync(f, 'utf8');
  expect(tooLong(read)).toEqual([]);
  const filled = (f: string) => (f === 'src/core/plan/problems.ts' ? read(f) + '// more\n'.repeat(300) : read(f));
  expect(tooLong(filled)).toHaveLength(1);
  const many = 'function wide(a: 1, b: 2, c: 3, d: 4, e: 5, f: 6) {\n  return a;\n}\n';
  expect(tooLong((f) => (f === 'src/core/plan/problems.ts' ? read(f) + many : read(f)))).toEqual([
    'src/core/plan/problems.ts: wide has 3 lines and takes 6',
  ]);
});
