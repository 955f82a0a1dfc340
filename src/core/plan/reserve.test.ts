import { describe, expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { materialNamed, SHOP_MACHINE } from '../doc/defaults';
import { boardGrid, makeField } from '../field/height-field';
import { textOf } from '../findings/texts/text-of';
import { localHost } from '../kernels/host';
import type { RoughPass } from '../passes/rough/schema';
import { cutBoardPlainly } from '../proof/plain-harm-test-kit';
import { planJob } from './pipeline';
import { changed, drawerBit, errorsOf, plainSetup, planShapes, planWhole, shapesOnly } from './plan-test-kit';
import { oneThread } from './threads';

const board = { x: 60, y: 50, thickness: 14, material: materialNamed('oak') };

/** A dome 5 mm high, roughed with an end mill and finished with a ball; the roughing kept in reserve or not. */
function dome(reserve: boolean) {
  const view = plainSetup({
    name: 'Dome',
    order: '',
    machine: SHOP_MACHINE,
    rough: drawerBit('em6'),
    finish: drawerBit('ball3'),
    board,
  });
  view.layers = [
    {
      ...newShape({ id: 'dome', name: 'Dome' }, { kind: 'oval' }, { kind: 'dome' }, board),
      size: { x: 30, y: 24 },
      centre: { x: 30, y: 25 },
      rise: 5,
    },
  ];
  view.document.cell = 0.2;
  for (const p of view.passes) if (p.kind === 'rough' || p.kind === 'finish') p.area = { kind: 'relief', trench: 8 };
  (view.passes[0] as RoughPass).reserve = reserve;
  return view;
}

/** A program without its comments, in which times and names of files stand. */
const moves = ({ text }: { text: string }) =>
  text
    .split('\n')
    .filter((l) => !l.startsWith('('))
    .join('\n');

describe('a pass in reserve', () => {
  const view = dome(true);
  const plan = planShapes(view);

  test('is written as it would be cut, and what comes after it as if it were not there', async () => {
    const { summary } = await plan;
    expect(summary.programs.map((p) => [p.rough, p.reserve])).toEqual([
      [true, true],
      [false, false],
    ]);
    const [roughed] = (await planShapes(dome(false))).summary.programs;
    expect(moves(summary.programs[0])).toBe(moves(roughed));
    const [, finish] = view.passes;
    const alone = await planShapes(changed(view, { passes: [finish] }));
    expect(moves(summary.programs[1])).toBe(moves(alone.summary.programs[0]));
    expect(alone.summary.programs[0].seconds).toBe(summary.programs[1].seconds);
    expect(summary.programs[0].text).toContain('reserve');
  });

  test('counts by itself, and has its own figures', async () => {
    const { summary } = await plan;
    const [rough, finish] = summary.programs;
    expect(summary.seconds).toBe(finish.seconds);
    expect(rough.volume).toBeGreaterThan(1000);
    expect(rough.byPass[0].bite?.deep).toBeGreaterThan(1);
    // The finishing ball takes all of it where the roughing has not been cut.
    expect(finish.volume).toBeGreaterThan(rough.volume);
    expect(finish.byPass[0].pass).toBe(view.passes[1].id);
  });

  test('does no harm in either order, by the proof and by the plain definition', async () => {
    const { summary } = await plan;
    expect(errorsOf({ summary })).toEqual([]);
    const all = summary.programs.map(({ file, text, cutter }) => ({ file, text, tool: cutter }));
    const field = () => makeField(boardGrid(board.x, board.y, 0.5));
    expect(cutBoardPlainly(view, field(), all.slice(1)).harms).toEqual([]);
    expect(cutBoardPlainly(view, field(), all).harms).toEqual([]);
  });

  test('is left out of one file with tool changes', async () => {
    const job = structuredClone(view.document);
    job.machine.toolChanger = true;
    job.output.oneFile = true;
    const one = await planWhole(job);
    expect(one.summary.programs.map((p) => [p.passes.length, p.reserve])).toEqual([
      [1, true],
      [1, false],
    ]);
  });

  test('what only its order shows is told as such', async () => {
    const { summary } = await plan;
    // The roughing as somebody might spoil it: 3 mm deeper along one of its lines, which only it would cut.
    const [rough, finish] = summary.programs;
    const lines = rough.text.split('\n');
    const at = lines.findIndex((l, i) => i > lines.length / 2 && /^(G1 )?X/.test(l) && !l.includes('Z'));
    expect(at).toBeGreaterThan(0);
    lines.splice(at, 0, 'G1 Z-9 F600');
    const env = {
      host: localHost,
      threads: oneThread,
      progress() {},
      stage: async <M>(name: string, _: unknown, run: () => Promise<M>) => ({ key: name, result: await run() }),
    };
    const spoiled = await planJob(view.document, shapesOnly, env as never, [
      { file: rough.file, text: lines.join('\n') },
      { file: finish.file, text: finish.text },
    ]);
    const errors = spoiled.summary.findings.filter((f) => f.severity === 'error');
    expect(errors.length).toBeGreaterThan(0);
    for (const f of errors) {
      expect(f.subject.reserve).toBe(true);
      expect(textOf(f).message).toContain('when what is in reserve is cut too');
    }
  });
});
