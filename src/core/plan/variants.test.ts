import { expect, test } from 'vitest';
import { SHOP_MACHINE } from '../doc/defaults';
import type { SetupView } from '../setup/view';
import { bit, expectClean, planLoaf, raised } from './variants-test-kit';

// More of them by hand, in variants.full.test.ts.
test.each<[string, (j: SetupView) => void]>([
  ['raised from the ground', raised],
  [
    'roughed in rows',
    (j) => {
      raised(j);
      const p = j.passes[0];
      if (p.kind === 'rough') {
        p.strategy = 'raster';
        p.angle = 30;
      }
    },
  ],
  [
    'finished at 45 degrees',
    (j) => {
      raised(j);
      j.passes[1].kind === 'finish' && (j.passes[1].angle = 45);
    },
  ],
  [
    'roughed with a bull-nose',
    (j) => {
      raised(j);
      bit(j, 0, 'bull6', 2.4);
    },
  ],
  [
    'roughed twice',
    (j) => {
      raised(j);
      j.passes.splice(1, 0, { ...structuredClone(j.passes[0]), id: 'again' });
      bit(j, 1, 'em3', 1.27);
      const p = j.passes[1];
      if (p.kind === 'rough') Object.assign(p, { stepdown: 1.2, stockToLeave: 0.5 });
    },
  ],
])('%s: nothing to warn of', (_, edit) => expectClean(edit));

test('in a frame the ball goes down in levels into the corners that the end mill does not reach', async () => {
  const { found, bites, summary } = await planLoaf((j) => {
    raised(j);
    for (const p of j.passes) if ('area' in p) p.area = { kind: 'frame', x0: 20, y0: 15, x1: 140, y1: 95 };
  });
  expect(found).toEqual([]);
  expect(bites).toEqual([]);
  expect(summary.deepest).toBeCloseTo(9, 1);
});

test('one file in inches with tool changes, zero in the centre on the bed', async () => {
  const { found, summary } = await planLoaf((j) => {
    raised(j);
    j.machine = SHOP_MACHINE;
    j.output = { unit: 'in', oneFile: true };
    j.setup.zero.z = 'bed';
    j.setup.zero.origin = 'centre';
  });
  expect(found).toEqual([]);
  expect(summary.programs).toHaveLength(1);
  const { text } = summary.programs[0];
  expect(text).toContain('G20');
  expect(text.match(/^T\d+ M6$/gm)).toEqual(['T1 M6', 'T3 M6']);
  expect(summary.zero).toEqual({ x: 80, y: 55, z: -22 });
  // Above a bed that is zero, no height is negative.
  expect(text).not.toMatch(/Z-/);
});

test('without room for the trench the carver is told, and no rapid touches the board', async () => {
  const { found } = await planLoaf((j) => {
    raised(j);
    j.board.x = 118;
    j.board.y = 80;
    j.layers[0].centre = { x: 59, y: 40 };
  });
  expect(found).toContain('trench-room');
  expect(found).not.toContain('rapid-through-material');
  expect(found).not.toContain('gouge');
});

test('a relief without roughing is gone down in levels by the ball: no bite and no plunge over a limit', async () => {
  const { found, bites } = await planLoaf((j) => {
    raised(j);
    j.passes.splice(0, 1);
  });
  expect(found).toEqual([]);
  expect(bites).toEqual([]);
});

test.each<[string, (j: SetupView) => void, string]>([
  [
    'too deep for its board',
    (j) => {
      raised(j);
      j.board.thickness = 8;
    },
    'thickness',
  ],
  [
    'beside its board',
    (j) => {
      j.layers[0].centre = { x: 500, y: 55 };
    },
    'nothing-to-cut',
  ],
  [
    'beyond its board',
    (j) => {
      raised(j);
      j.layers[0].centre.x = 40;
    },
    'layer-outside',
  ],
  [
    'off the table',
    (j) => {
      j.setup.place.x = 550;
    },
    'outside-machine',
  ],
])('a relief %s is an error', async (_, edit, rule) => {
  const { summary } = await planLoaf((j) => {
    // Told on any cell.
    j.cell = 0.4;
    edit(j);
  });
  expect(summary.findings.filter((f) => f.severity === 'error').map((f) => f.rule)).toContain(rule);
});
