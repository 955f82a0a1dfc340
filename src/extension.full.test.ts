import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';

/** The source in a folder of its own, with a kind of pass and a rule that nobody needs. */
const folder = mkdtempSync(path.join(tmpdir(), 'zg-extension-'));
const at = (...p: string[]) => path.join(folder, ...p);
const write = (file: string, text: string) => {
  mkdirSync(path.dirname(at(file)), { recursive: true });
  writeFileSync(at(file), text);
};
/** Puts a line before or after another of a file. */
const line = (file: string, anchor: string, added: string) => {
  const text = readFileSync(at(file), 'utf8');
  expect(text.split(anchor)).toHaveLength(2);
  writeFileSync(
    at(file),
    text.replace(anchor, () => `${added}${anchor}`),
  );
};

beforeAll(() => {
  for (const f of ['src', 'tsconfig.json', 'package.json'])
    cpSync(path.resolve(f), at(f), { recursive: true, filter: (s) => !/\.test\.tsx?$/.test(s) });
  symlinkSync(path.resolve('node_modules'), at('node_modules'));
  // What the whole project's types came to, where they have been looked at: then only what is new here is looked at.
  if (existsSync('tsconfig.tsbuildinfo')) cpSync('tsconfig.tsbuildinfo', at('tsconfig.tsbuildinfo'));

  // A kind of pass: one folder ...
  write(
    'src/core/passes/score/schema.ts',
    `import { z } from 'zod';
import { positive } from '../../doc/parts';
import { passParts } from '../../doc/pass-parts';

/** One shallow line along the board's middle. */
export const scoreSchema = z.object({ ...passParts, kind: z.literal('score'), depth: positive.max(5) });
export type ScorePass = z.infer<typeof scoreSchema>;
`,
  );
  write(
    'src/core/passes/score/kind.ts',
    `import { Path } from '../../motion/path';
import { lowerStock } from '../context';
import type { PassKind } from '../kind';
import { freeId } from '../proposals';

export const score: PassKind<'score', null> = {
  kind: 'score',
  name: 'scoring',
  doing: 'scoring',
  sentence: 'scores a line along the middle of the board',
  rank: 3.5,
  late: 'would be cut over',
  needsLayers: false,
  rough: false,
  arcs: false,
  unsuited: (c) => (c.shape === 'v' ? null : 'is no V bit; scoring needs one'),
  propose: (view, c) => ({ id: freeId('score', view), kind: 'score', cutter: c.id, depth: 1 }),
  cell: () => 0.25,
  opens: ({ pass, cutter, board }) => [
    {
      cutter,
      chains: [Float64Array.of(10, board.y / 2, -pass.depth, board.x - 10, board.y / 2, -pass.depth)],
      loose: null,
      through: false,
    },
  ],
  plan: async (ctx, pass, cutter) => {
    const path = new Path();
    const { everything, approach } = ctx.heights;
    const [y, from, to] = [ctx.board.y / 2, 10, ctx.board.x - 10];
    path.rapid(from, y, everything);
    path.rapid(from, y, approach);
    path.feed(from, y, -pass.depth, cutter.plunge);
    path.feed(to, y, -pass.depth, cutter.feed);
    path.rapid(to, y, everything);
    await lowerStock(ctx, path, 0, cutter);
    return { path, facts: null };
  },
};
`,
  );
  // ... its two registry lines ...
  line('src/core/doc/pass.ts', 'import { skimSchema }', "import { scoreSchema } from '../passes/score/schema';\n");
  line('src/core/doc/pass.ts', '  skimSchema,\n', '  scoreSchema,\n');
  line('src/core/passes/registry.ts', 'import { skim }', "import { score } from './score/kind';\n");
  const registry = readFileSync(at('src/core/passes/registry.ts'), 'utf8');
  writeFileSync(
    at('src/core/passes/registry.ts'),
    registry.replace('const KINDS = [skim,', 'const KINDS = [score, skim,'),
  );
  // ... and one card with its line.
  write(
    'src/ui/cards/score-fields.tsx',
    `'use client';
import { formatLength } from '@/core/units/length';
import type { ScorePass } from '@/core/passes/score/schema';
import { LengthField } from '../controls/fields';
import type { Edited, KindCard, Told } from './kind-card';

function ScoreSentence({ pass }: Told<ScorePass>) {
  return <>Scores a line <b>{formatLength(pass.depth)}</b> deep.</>;
}
function ScoreFields({ pass, set }: Edited<ScorePass>) {
  return <LengthField label="Line depth" value={pass.depth} min={0} open max={5} onChange={(v) => set((p) => (p.depth = v))} />;
}
export const scoreCard: KindCard<'score'> = { label: 'Scoring', Sentence: ScoreSentence, Fields: ScoreFields };
`,
  );
  line('src/ui/cards/kind-registry.tsx', 'import { skimCard }', "import { scoreCard } from './score-fields';\n");
  line('src/ui/cards/kind-registry.tsx', '  skim: skimCard,', '  score: scoreCard,\n');

  // A rule: one file, its line, its text.
  write(
    'src/core/proof/checks/long-way.ts',
    `import type { Rule } from './rule';

/** A program that cuts further than a metre. */
export const longWay: Rule = {
  id: 'long-way',
  run: ({ view, run }) =>
    run.bites.length > 1
      ? [{ rule: 'long-way', severity: 'note', subject: { setup: view.setup.id, file: run.file }, place: null, figures: { moves: run.bites.length } }]
      : [],
};
`,
  );
  line('src/core/proof/checks/registry.ts', 'import { missingLetters }', "import { longWay } from './long-way';\n");
  line('src/core/proof/checks/registry.ts', '  leftOver,\n  skimLeft,', '  longWay,\n');
  line(
    'src/core/findings/texts/proof.ts',
    "  'left-over': (f)",
    // biome-ignore lint/suspicious/noTemplateCurlyInString: the line of a source file that the test writes
    "  'long-way': (f) => [`${f.moves} moves are a long way`, 'take a rest'],\n",
  );
  write(
    'try.tsx',
    `import * as React from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { applyEdits } from './src/core/doc/edits';
import { HOBBY_MACHINE } from './src/core/doc/defaults';
import { textOf } from './src/core/findings/texts/text-of';
import { addPass } from './src/core/passes/add-pass';
import { orderProblem } from './src/core/passes/order';
import { drawerBit, plainSetup, planWhole, setupPlan, wrongIn } from './src/core/plan/plan-test-kit';
import { cardOf } from './src/ui/cards/kind-registry';

Object.assign(globalThis, { React });
const board = { x: 80, y: 60, thickness: 12 };
const view = plainSetup({ name: 'Toy', order: '', machine: HOBBY_MACHINE, rough: drawerBit('em6'), finish: drawerBit('ball6'), board });
view.cell = 0.25;
view.passes = [];
applyEdits(view.document, addPass(view, 'score', drawerBit('v60')));
const plan = await planWhole(view.document);
const { cut, summary } = setupPlan(plan);
const [pass] = view.passes;
const cutter = view.cutters.find((c) => c.id === pass.cutter)!;
const { label, Sentence, Fields } = cardOf(pass);
const set = () => {};
console.log(
  JSON.stringify({
    wrong: wrongIn(view),
    kind: summary.passes[0].kind,
    moves: summary.passes[0].moves,
    deepest: Math.min(...cut.data),
    errors: summary.findings.filter((f) => f.severity === 'error'),
    said: summary.findings.filter((f) => f.rule === 'long-way').map((f) => textOf(f).message),
    comment: summary.programs[0].text.includes('(scoring, V 60)'),
    order: orderProblem([{ kind: 'letter' }, { kind: 'score' }]),
    label,
    sentence: renderToStaticMarkup(<Sentence job={view} pass={pass} cutter={cutter} done={undefined} summary={null} otherwise={null} />),
    fields: renderToStaticMarkup(<Fields job={view} pass={pass} cutter={cutter} set={set} change={set} onSetup={set} />),
  }),
);
`,
  );
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const run = (command: string, ...args: string[]) =>
  spawnSync(path.resolve('node_modules/.bin', command), args, { cwd: folder, encoding: 'utf8' });

test('a kind of pass is one folder, two lines and a card; a rule is one file and its line: types, plan, proof and card', () => {
  const tsc = run('tsc', '--noEmit', '-p', 'tsconfig.json', '--preserveSymlinks');
  expect(tsc.stdout).toBe('');
  const tried = run('tsx', 'try.tsx');
  expect(tried.status, tried.stderr).toBe(0);
  const out = JSON.parse(tried.stdout.trim().split('\n').at(-1)!);
  expect(out).toMatchObject({ wrong: '', kind: 'score', errors: [], comment: true, label: 'Scoring' });
  expect(out.moves).toBe(5);
  // The tip's flat of 0.2 mm covers cells' middles 0.125 mm away; the walls stand a little higher there.
  expect(out.deepest).toBeLessThan(-0.9);
  expect(out.deepest).toBeGreaterThanOrEqual(-1.0001);
  expect(out.said[0]).toMatch(/^toy_1-v-60\.nc: \d+ moves are a long way$/);
  expect(out.order).toBe('scoring after cutting letters would be cut over');
  expect(out.sentence).toBe('Scores a line <b>1 mm</b> deep.');
  expect(out.fields).toContain('Line depth');
});
