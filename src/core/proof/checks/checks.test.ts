import { expect, test } from 'vitest';
import { newShape } from '../../arrange/new-layer';
import { HOBBY_MACHINE, materialNamed } from '../../doc/defaults';
import { makeField } from '../../field/height-field';
import type { Figures } from '../../findings/finding';
import { textOf } from '../../findings/texts/text-of';
import { drawerBit, plainSetup, planShapes, proposed } from '../../plan/plan-test-kit';
import { grid } from './grid';
import { missingLetters } from './missing-letters';
import { skimLeft } from './skim-left';
import { thinFeature } from './thin-feature';

// Rules that nothing in a document mends: those with fixes are made to fire in plan/fixes.test.ts.

const BOARD = { x: 80, y: 60, thickness: 15, material: materialNamed('maple') };

function panel() {
  const view = plainSetup({
    name: 'Panel',
    order: '',
    machine: HOBBY_MACHINE,
    rough: drawerBit('em6'),
    finish: drawerBit('ball6'),
    board: BOARD,
  });
  view.cell = 0.4;
  const layer = newShape({ id: 'panel', name: 'Panel' }, { kind: 'oval' }, { kind: 'dome' }, BOARD);
  view.layers = [{ ...layer, size: { x: 36, y: 28 }, rise: 3 }];
  return view;
}
const seen = (more: object) => ({ id: 'panel', step: 0, missing: [], lostPlan: 0, thinCells: 0, ...more });
const before = (more: object = {}) => ({ view: panel(), cell: 0.1, wanted: 0.1, layers: [seen({})], ...more }) as never;

test('a sound job of a shape that its bits reach has no finding at all but what may be left over', async () => {
  const { summary } = await planShapes(panel());
  expect(summary.findings.map((f) => f.rule).filter((r) => r !== 'left-over')).toEqual([]);
});

test('grid: a coarser cell than the bits ask for is told, with both', () => {
  expect(grid.before!(before())).toEqual([]);
  const [f] = grid.before!(before({ cell: 0.2 }));
  expect(f).toMatchObject({ rule: 'grid', severity: 'note', figures: { cell: 0.2, wanted: 0.1 } });
  expect(textOf(f).message).toContain('0.2 mm instead of 0.1 mm');
});

test('missing letters and thin features are told of the layer that has them', () => {
  expect(missingLetters.before!(before())).toEqual([]);
  expect(thinFeature.before!(before())).toEqual([]);
  const [letters] = missingLetters.before!(before({ layers: [seen({ missing: ['ж'] })] }));
  expect(letters).toMatchObject({ severity: 'note', subject: { layer: 'panel' } });
  expect(textOf(letters).message).toBe('Panel: the font has no "ж"');
  const [thin] = thinFeature.before!(before({ layers: [seen({ thinCells: 7 })] }));
  expect(textOf(thin).message).toContain('7 places of Panel');
});

test('skim-left: wood over the board’s thickness after a skim is told where it stands highest', () => {
  const view = panel();
  const cut = makeField({ width: 10, height: 10, cell: 1, originX: 0.5, originY: 0.5 }, 0);
  cut.data[34] = 0.02;
  cut.data[57] = 0.05;
  expect(skimLeft.cut!({ view, cut } as never)).toEqual([]);
  view.passes = [proposed('skim', view, drawerBit('em6'))];
  const [f] = skimLeft.cut!({ view, cut } as never);
  expect(f).toMatchObject({ rule: 'skim-left', severity: 'error', place: { x: 7.5, y: 5.5 } });
  expect(f.figures?.height).toBeCloseTo(0.05, 6);
  cut.data.fill(0);
  expect(skimLeft.cut!({ view, cut } as never)).toEqual([]);
});

test('corner: what to do depends on what fits, and on whether it gets down there', () => {
  const figures: Figures = {
    bit: 'End mill 6.35',
    area: 2,
    most: 3,
    other: 'End mill 3',
    flutes: 8,
    below: 10,
    stickOut: 12,
    depth: 20,
  };
  const remedy = (more: Figures) => textOf({ rule: 'corner', subject: {}, figures: { ...figures, ...more } }).remedy;
  expect(remedy({ most: 0, how: 'none' })).toContain('knife');
  expect(remedy({ how: 'none' })).toContain('this job has none');
  expect(remedy({ how: 'flutes' })).toContain('flutes of 8 mm');
  expect(remedy({ how: 'holder' })).toContain('its holder meets the board');
  expect(remedy({ how: 'reaches' })).toContain('End mill 3 reaches down');
});

test('z-travel: spoilboard, board, travel height and stick-out, added up by hand, against the nose at the top', async () => {
  const view = panel();
  const longest = Math.max(...view.cutters.map((c) => c.stickOut));
  const need = (view.setup.spoilboard ?? 0) + 15 + view.setup.heights.everything + longest;
  const told = async (bedToNose: number) => {
    view.machine = { ...view.machine, bedToNose, zTravel: bedToNose };
    return (await planShapes(view)).summary.findings.filter((f) => f.rule === 'z-travel');
  };
  expect(await told(need)).toEqual([]);
  const found = await told(need - 0.1);
  expect(found.length).toBeGreaterThan(0);
  for (const f of found) expect(f.figures.over).toBeCloseTo(0.1, 6);
});

test('a spindle that turns too slowly or too fast for the machine, and a plunge that it does not reach, are told', async () => {
  const told = async (change: (v: ReturnType<typeof panel>) => void) => {
    const view = panel();
    change(view);
    return (await planShapes(view)).summary.findings.map((f) => f.rule);
  };
  const { minRpm, maxRpm } = panel().machine;
  expect(await told((v) => (v.cutters[0].rpm = minRpm - 100))).toContain('spindle-speed');
  expect(await told((v) => (v.cutters[0].rpm = maxRpm + 100))).toContain('spindle-speed');
  expect(await told((v) => (v.cutters[0].rpm = minRpm))).not.toContain('spindle-speed');
  const { maxFeed } = panel().machine;
  expect(await told((v) => (v.cutters[1].plunge = maxFeed.z + 1))).toContain('feed');
  expect(await told((v) => (v.cutters[1].plunge = maxFeed.z))).not.toContain('feed');
});
