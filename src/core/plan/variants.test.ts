import { expect, test } from 'vitest';
import { demoJobOf } from '../../../demo/shop';
import { contentLoader } from '../../server/content';
import { DRAWER, SHOP_MACHINE } from '../doc/defaults';
import type { SetupView } from '../setup/view';
import { setupView } from '../setup/view';
import { others, planShapes } from './plan-test-kit';

// The loaf in every way that it can be seated and cut, on a coarse grid: the proof of the written programs decides.
const demo = await demoJobOf('OE-103');
const load = contentLoader((h) => demo.files.get(h)!.bytes);

function raised(j: SetupView): void {
  j.seat.mode = 'raised';
  j.layers[0].join = 'stack';
}

/** The same mould at seven tenths: half as much to cut. */
function smaller(j: SetupView): void {
  const less = ({ x, y }: { x: number; y: number }) => ({ x: 0.7 * x, y: 0.7 * y });
  Object.assign(j.board, less(j.board));
  for (const l of j.layers) Object.assign(l, { size: less(l.size), centre: less(l.centre), rise: 0.7 * l.rise });
}

function bit(j: SetupView, pass: number, id: string, stepover: number): void {
  const c = DRAWER.find((d) => d.id === id)!;
  if (!j.cutters.some((d) => d.id === id)) j.cutters.push(c);
  j.passes[pass].cutter = id;
  Object.assign(j.passes[pass], { stepover });
}

async function plan(edit: (j: SetupView) => void) {
  const job = setupView(structuredClone(demo.job));
  job.cell = 0.2;
  edit(job);
  const { summary } = await planShapes(job, load);
  return {
    summary,
    found: others(summary.findings)
      .filter((f) => f.severity !== 'note')
      .map((f) => f.rule),
    bites: summary.findings.map((f) => f.rule).filter((r) => r === 'bite'),
  };
}

test.each<[string, (j: SetupView) => void]>([
  ['raised from the ground', raised],
  [
    'raised under a skin',
    (j) => {
      raised(j);
      j.seat.skin = 1;
    },
  ],
  [
    'over the whole face',
    (j) => {
      raised(j);
      for (const p of j.passes) if ('area' in p) p.area = { kind: 'face' };
    },
  ],
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
    'sunk, roughed in rows',
    (j) => {
      const p = j.passes[0];
      if (p.kind === 'rough') p.strategy = 'raster';
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
    'finished across',
    (j) => {
      j.passes[1].kind === 'finish' && (j.passes[1].angle = 90);
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
    'roughed with a ball',
    (j) => {
      raised(j);
      bit(j, 0, 'ball6', 2.5);
    },
  ],
  [
    'with one ball for both',
    (j) => {
      raised(j);
      bit(j, 0, 'ball3', 1.27);
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
])(
  '%s: nothing to warn of',
  async (_, edit) => {
    const { found, summary } = await plan((j) => {
      smaller(j);
      edit(j);
    });
    expect(found).toEqual([]);
    expect(summary.seconds).toBeGreaterThan(60);
    expect(summary.programs.length).toBeGreaterThan(0);
  },
  60_000,
);

test('in a frame the ball goes down in levels into the corners that the end mill does not reach', async () => {
  const { found, bites, summary } = await plan((j) => {
    raised(j);
    for (const p of j.passes) if ('area' in p) p.area = { kind: 'frame', x0: 20, y0: 15, x1: 140, y1: 95 };
  });
  expect(found).toEqual([]);
  expect(bites).toEqual([]);
  expect(summary.deepest).toBeCloseTo(9, 1);
});

test('one file in inches with tool changes, zero in the centre on the bed', async () => {
  const { found, summary } = await plan((j) => {
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
  const { found } = await plan((j) => {
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
  const { found, bites } = await plan((j) => {
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
  const { summary } = await plan(edit);
  expect(summary.findings.filter((f) => f.severity === 'error').map((f) => f.rule)).toContain(rule);
});
