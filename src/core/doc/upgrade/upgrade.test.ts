import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from 'vitest';
import { heightPng } from '../../../../demo/patterns';
import { loaf, plaque, shapeMesh } from '../../../../demo/shapes';
import { contentLoader } from '../../../server/content';
import { planWhole, setupPlan, wrongIn } from '../../plan/plan-test-kit';
import { setupView } from '../../setup/view';
import { writeStl } from '../../sources/stl';
import { jobSchema, VERSION } from '../job';
import { upgradeJob } from './upgrade';

const folder = path.join(import.meta.dirname, 'fixtures');
const stored = (file: string): Record<string, unknown> => JSON.parse(readFileSync(path.join(folder, file), 'utf8'));
const files = readdirSync(folder);

/** What stands in for the files that fixtures were made with: their content does not matter to reading them. */
const model = { 'v1-mesh.json': plaque, 'v1-mould.json': loaf } as Record<string, typeof loaf>;
const contentOf = (file: string) =>
  model[file] ? writeStl(shapeMesh(model[file], 2), 'relief') : heightPng(60, 40, 1, (x, y) => Math.abs(x * y) / 600);

describe('documents of every version from this project’s history', () => {
  test('there are some of each', () => {
    for (const v of ['v1-', 'v2-']) expect(files.filter((f) => f.startsWith(v)).length).toBeGreaterThan(2);
    for (const v of ['v3-', 'v4-', 'v5-', 'v6-', 'v7-', 'v8-', 'v9-'])
      expect(files.filter((f) => f.startsWith(v)).length).toBeGreaterThan(0);
  });

  test.each(files)('%s opens, has nothing wrong, and plans', async (file) => {
    const job = jobSchema.parse(stored(file));
    expect(job.version).toBe(VERSION);
    expect(wrongIn({ document: job })).toBe('');
    const view = setupView(job);
    view.cell = 0.5;
    const plan = await planWhole(
      job,
      contentLoader(() => contentOf(file)),
    );
    expect(plan.summary.programs.length).toBeGreaterThan(0);
    expect(setupPlan(plan).summary.passes.length).toBe(job.boards[0].setups[0].passes.length);
  });

  test('what is up to date stays as it is, and what is no document is handed on', () => {
    const job = jobSchema.parse(stored('v2-areas.json'));
    expect(upgradeJob(job)).toBe(job);
    expect(jobSchema.parse(structuredClone(job))).toEqual(job);
    for (const odd of [null, 5, 'job', [], { version: 11 }, { version: 2 }, { version: 1, relief: null }])
      expect(jobSchema.safeParse(odd).success).toBe(false);
  });
});

test('words of version 2 that were too near to others are renamed, and say the same', () => {
  const { layers } = setupView(jobSchema.parse(stored('v2-joins-inch.json')));
  expect(layers[0]).toMatchObject({ slope: { x: 2, y: 1 }, thin: 3, join: 'stack' });
  expect(layers[1]).toMatchObject({ join: 'blend', amount: 0.6 });
  expect(JSON.stringify(layers)).not.toMatch(/"(tilt|fade)"/);
});

test('a skimmed back becomes a setup of its own before the face, its places as they lie there', () => {
  const old = stored('v2-skimmed-back.json') as { passes: { points?: { x: number }[] }[] };
  const [back, face] = jobSchema.parse(stored('v2-skimmed-back.json')).boards[0].setups;
  expect([back.up, face.up]).toEqual(['back', 'face']);
  expect(back.passes.map((p) => p.kind)).toEqual(['skim']);
  expect(face.passes.map((p) => p.kind)).toEqual(['rough', 'finish']);
  const [skim] = back.passes;
  // The board is 90 mm wide.
  if (skim.kind === 'skim') expect(skim.points.map((p) => p.x)).toEqual(old.passes[0].points!.map((p) => 90 - p.x));
  expect(back.zero).toEqual(face.zero);
});

test('the board’s zero, place and spoilboard go to its setup; machines and bits get what version 3 holds of them', () => {
  const job = jobSchema.parse(stored('v2-skimmed-face.json'));
  const { setup } = setupView(job);
  expect(setup.zero).toEqual({ origin: 'lower-right', z: 'bed' });
  expect(setup.spoilboard).toBe(12);
  expect(setup.heights).toEqual({ approach: 1, between: 1, everything: 5 });
  expect(job.machine).toMatchObject({ bedToNose: job.machine.zTravel + 25, dialect: 'rs274', rotary: null });
  expect(job.cutters.map((c) => c.cutsAtCentre)).toEqual(job.cutters.map((c) => c.maxPlungeDepth > 0));
});

test('finishing of version 4 keeps its rows, and what else a pass says stays', () => {
  const old = stored('v4-pocket-inch.json') as { boards: { setups: { passes: object[] }[] }[] };
  const now = jobSchema.parse(stored('v4-pocket-inch.json')).boards[0].setups[0].passes;
  const before = old.boards[0].setups[0].passes;
  const reserve = { reserve: false };
  expect(now).toEqual(
    before.map((p) =>
      'area' in p ? { ...p, ...reserve, ...('milling' in p && 'tolerance' in p && { lines: 'rows' }) } : p,
    ),
  );
});

test('boards of version 6 are turned over left to right, keep 1/16 in, are open nowhere on purpose, and their holes are plain', () => {
  const job = jobSchema.parse(stored('v6-two-faces.json'));
  const [board] = job.boards;
  expect(board).toMatchObject({ flip: 'about-y', web: 25.4 / 16, openings: [] });
  expect(board.setups.map((s) => s.register)).toEqual(['none', 'none']);
  expect(board.setups[0].passes.find((p) => p.kind === 'hole')).toMatchObject({ dowel: null });
});

test('cut-outs of version 7 go through the board, and every layer is one by itself', () => {
  const job = jobSchema.parse(stored('v7-cut-out.json'));
  const setups = job.boards.flatMap((b) => b.setups);
  expect(setups.flatMap((s) => s.passes).find((p) => p.kind === 'cutout')).toMatchObject({ depth: null });
  expect(setups.flatMap((s) => s.layers).map((l) => l.shared)).toEqual([null, null]);
});

test('boards of version 8 lie flat, and a rotary axis of theirs is driven as such an axis is as a rule', () => {
  const job = jobSchema.parse(stored('v8-rotary-machine.json'));
  expect(job.boards.map((b) => b.drum)).toEqual([null]);
  expect(job.machine.rotary).toMatchObject({ along: 'y', letter: 'B', feed: 'inverse-time', endless: true });
  expect(jobSchema.parse(stored('v7-cut-out.json')).machine.rotary).toBeNull();
});

test('drums of version 9 have nothing glued on, and no collar', () => {
  const job = jobSchema.parse(stored('v9-drum.json'));
  expect(job.boards[0].drum).toEqual({
    chuck: 6,
    tailStock: 4,
    extended: { chuck: 0, tailStock: 0 },
    collar: null,
  });
  expect(jobSchema.parse(stored('v8-rotary-machine.json')).boards[0].drum).toBeNull();
});
