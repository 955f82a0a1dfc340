import { spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { afterEach, expect, test } from 'vitest';

const planted = 'src/core/units/planted.ts';
afterEach(() => rmSync(planted, { force: true }));

const cruise = () =>
  spawnSync('npx', ['depcruise', '--config', '.dependency-cruiser.cjs', 'src', 'demo'], { encoding: 'utf8' });

test('an import upwards is noticed by the check that lint runs on all layers', () => {
  mkdirSync('src/core/units', { recursive: true });
  const upwards = [
    ['../../server/shop', 'core-is-alone'],
    ['../../contract/ask', 'core-is-alone'],
    ['../proof/prove', 'core-units-is-early'],
    ['node:fs', 'core-uses-no-node'],
  ];
  const lines = upwards.map(
    ([target], n) => `import * as above${n} from '${target}';\nexport const use${n} = above${n};\n`,
  );
  writeFileSync(planted, lines.join(''));
  const r = cruise();
  expect(r.status).not.toBe(0);
  const said = (r.stdout + r.stderr).split('\n');
  for (const [target, rule] of upwards) {
    const name = path.basename(target).replace('node:', '');
    expect(
      said.some((l) => l.includes(rule) && l.includes(name)),
      `${rule}: ${target}`,
    ).toBe(true);
  }
});

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
  'thin',
  'thinLine',
];
/** Longest function in lines, of what is computed and of what is shown. */
const MOST_LINES = { 'src/core': 60, 'src/server': 60, 'src/contract': 60, 'src/ui': 120 };
const MOST = { parameters: 5, file: 300, component: 200 };

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

/** What of core, server and interface is longer than it may be. */
function tooLong(read: (file: string) => string): string[] {
  return Object.entries(MOST_LINES).flatMap(([folder, longest]) =>
    (readdirSync(folder, { recursive: true }) as string[])
      .map((f) => `${folder}/${f}`)
      .filter((f) => /\.tsx?$/.test(f) && !/\.test\.tsx?$|kernels\/assembly/.test(f))
      .flatMap((f) => {
        const text = read(f);
        const long = functionsOf(f, text).filter(
          (d) => (d.lines > longest || d.parameters > MOST.parameters) && !INNER_LOOPS.includes(d.name),
        );
        const lines = text.split('\n').length - 1;
        const most = f.endsWith('.tsx') ? MOST.component : MOST.file;
        return [
          ...(lines > most ? [`${f} has ${lines} lines`] : []),
          ...long.map((d) => `${f}: ${d.name} has ${d.lines} lines and takes ${d.parameters}`),
        ];
      }),
  );
}

test('no function is over 60 lines, 120 in the interface, or takes over 5, and no file is over 300, no component over 200', () => {
  const read = (f: string) => readFileSync(f, 'utf8');
  expect(tooLong(read)).toEqual([]);
  const filled = (f: string) => (f === 'src/core/plan/problems.ts' ? read(f) + '// more\n'.repeat(300) : read(f));
  expect(tooLong(filled)).toHaveLength(1);
  const many = 'function wide(a: 1, b: 2, c: 3, d: 4, e: 5, f: 6) {\n  return a;\n}\n';
  expect(tooLong((f) => (f === 'src/core/plan/problems.ts' ? read(f) + many : read(f)))).toEqual([
    'src/core/plan/problems.ts: wide has 3 lines and takes 6',
  ]);
});
