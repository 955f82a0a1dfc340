import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from 'vitest';
import { NEW_WORDS, newShape, newWords } from '../arrange/new-layer';
import { polygonOf } from '../arrange/render';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import type { Layer } from '../doc/layer';
import { textOf } from '../findings/texts/text-of';
import { NearestOutline } from '../outline/nearest';
import { crossings, type Polygon } from '../outline/polygon';
import { outlinePolygon } from '../outline/shapes';
import { placeFor } from '../passes/order';
import type { SetupView } from '../setup/view';
import { FONTS } from '../sources/fonts';
import { layWords, readFont } from '../sources/lettering';
import type { LoadContent } from './composing';
import { changed, errorsOf, plainSetup, planShapes, proposed, type SetupPlan, wrongIn } from './plan-test-kit';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
const sharp = { ...DRAWER.find((c) => c.shape === 'v')!, tipDiameter: 0 };
const font = readFont(new Uint8Array(readFileSync(path.resolve('node_modules', FONTS[1].file))), 'slab');

const load: LoadContent = async (l) => ({
  content: l.source.kind === 'words' ? { polygon: layWords(l.source.words, font).polygon } : {},
  facts: { depth: 0, step: 0, missing: [], measured: null, recess: false },
});

/** A level panel with something cut into it by a V bit. */
function grooved(groove: Partial<Layer> & Pick<Layer, 'source'>, cutter = sharp): SetupView {
  const board = { x: 100, y: 64, thickness: 18, material: materialNamed('maple') };
  const job = plainSetup({
    name: 'Letters',
    order: '',
    machine: HOBBY_MACHINE,
    rough: bit('em6'),
    finish: bit('ball6'),
    board,
  });
  job.layers = [
    {
      ...newShape({ id: 'panel', name: 'Panel' }, { kind: 'rectangle' }, { kind: 'flat' }, board),
      size: { x: 70, y: 34 },
      rise: 5,
    },
    {
      ...newShape({ id: 'cut', name: 'Cut' }, { kind: 'rectangle' }, { kind: 'flat' }, board),
      join: 'carve',
      ...groove,
    },
  ];
  job.cutters.push(cutter);
  job.passes.push(proposed('letter', job, cutter));
  job.cell = 0.1;
  return job;
}
const vee = (angle = sharp.includedAngle) => ({ kind: 'vee', angle }) as const;

/** How the proof lies to the exact groove: at every cell the depth at its distance from the outline, under the panel's top at 0. */
function against(plan: SetupPlan, polygon: Polygon, deepest: number, angle: number) {
  const { cut } = plan;
  const near = new NearestOutline(polygon, 40);
  const hit = { distance: 0, along: 0, ring: 0 };
  let [low, high, n] = [Infinity, -Infinity, 0];
  let row: number[] = [];
  for (let k = 0; k < cut.data.length; k++) {
    const x = cut.originX + (k % cut.width) * cut.cell;
    const y = cut.originY + Math.floor(k / cut.width) * cut.cell;
    if (k % cut.width === 0) row = crossings(polygon, y);
    if (row.filter((c) => c <= x).length % 2 === 0) continue;
    const exact = -Math.min(deepest, near.find(x, y, hit).distance / Math.tan((angle * Math.PI) / 360));
    low = Math.min(low, cut.data[k] - exact);
    high = Math.max(high, cut.data[k] - exact);
    n++;
  }
  return { low, high, n };
}
const rectangle = (x: number, y: number, cx = 50, cy = 32): Polygon => [
  Float64Array.of(cx + x / 2, cy + y / 2, cx - x / 2, cy + y / 2, cx - x / 2, cy - y / 2, cx + x / 2, cy - y / 2),
];

test('a straight groove is as wide as 2 depth tan(half the angle) says, its ends drawn up to their corners', async () => {
  const source = { kind: 'shape', outline: { kind: 'rectangle' }, edge: { kind: 'plain' }, relief: vee() } as const;
  const job = grooved({ source, size: { x: 40, y: 3 }, rise: 4 });
  expect(wrongIn(job)).toBe('');
  const plan = await planShapes(job, load);
  expect(plan.summary.findings.filter((f) => f.severity !== 'note')).toEqual([]);
  // Half of 3 mm at 60 degrees: 1.5 / tan 30 = 2.598 mm deep; the nearest of the proof's cells lie 0.025 mm beside the middle.
  const deepest = (1.5 - 0.025) / Math.tan(Math.PI / 6);
  const row = plan.cut.data.subarray(319 * plan.cut.width + 400, 319 * plan.cut.width + 600);
  expect(Math.min(...row)).toBeCloseTo(-deepest, 2);
  const d = against(plan, rectangle(40, 3), 4, 60);
  expect(d.n).toBeGreaterThan(10_000);
  expect(d.low).toBeGreaterThan(-0.02);
  expect(d.high).toBeLessThan(0.06);
});

test('at 90 degrees a groove is as deep as half its width; one wider than its deepest gets a level bottom', async () => {
  const ninety = { ...sharp, id: 'v90', includedAngle: 90, name: 'V 90' };
  const source = { kind: 'shape', outline: { kind: 'rectangle' }, edge: { kind: 'plain' }, relief: vee(90) } as const;
  const job = grooved({ source, size: { x: 40, y: 4 }, rise: 3 }, ninety);
  const plan = await planShapes(job, load);
  const middle = 319 * plan.cut.width + 500;
  // The nearest cells lie 0.025 mm beside the middle, and as much less deep.
  expect(plan.cut.data[middle]).toBeCloseTo(-1.975, 2);
  const capped = grooved({ source, size: { x: 40, y: 4 }, rise: 1 }, ninety);
  const level = await planShapes(capped, load);
  const d = against(level, rectangle(40, 4), 1, 90);
  expect(d.low).toBeGreaterThan(-0.02);
  // The two walls and the middle are followed; a pointed bit leaves ridges between them, as wide as they are apart.
  expect(Math.abs(level.cut.data[middle] + 1)).toBeLessThan(0.06);
});

test('letters: cut to the exact depth of their outlines, nothing gouged, deep ones in several goes', async () => {
  const words = { ...NEW_WORDS, text: 'Mill', font: 'slab-bold', fontName: 'Slab', height: 14 };
  const laid = layWords(words, font);
  const board = { x: 100, y: 64 };
  const layer = newWords('cut', words, laid.size, board);
  if (layer.source.kind !== 'words') throw new Error('words are words');
  const job = grooved({ ...layer, source: { ...layer.source, relief: vee() }, join: 'carve', rise: 6 });
  const pass = job.passes.at(-1)!;
  if (pass.kind === 'letter') pass.stepdown = 1;
  const plan = await planShapes(job, load);
  expect(errorsOf(plan)).toEqual([]);
  const moved = polygonOf(job.layers[1], { polygon: laid.polygon })!.map((r) =>
    r.map((v, i) => v + (i % 2 === 0 ? 50 : 32)),
  );
  const d = against(plan, moved, 6, 60);
  expect(d.n).toBeGreaterThan(5000);
  expect(d.low).toBeGreaterThan(-0.02);
  expect(d.high).toBeLessThan(0.12);
  const letters = plan.summary.programs.at(-1)!;
  expect(letters.file).toContain('v-60');
  // Several goes: it cuts longer than its outline's middle once.
  expect(plan.summary.passes.at(-1)!.cutLength).toBeGreaterThan(150);
});

test('a blunt tip stays at the surface until its flat fits between the walls', async () => {
  const blunt = DRAWER.find((c) => c.shape === 'v')!;
  expect(blunt.tipDiameter).toBeGreaterThan(0);
  const d = 'M 0 0 L 30 4 L 60 0 L 34 10 L 30 30 L 26 10 Z';
  const source = { kind: 'shape', outline: { kind: 'path', d }, edge: { kind: 'plain' }, relief: vee() } as const;
  const job = grooved({ source, size: { x: 40, y: 20 }, rise: 4 }, blunt);
  const plan = await planShapes(job, load);
  expect(errorsOf(plan)).toEqual([]);
  const polygon = outlinePolygon(source.outline, 40, 20).map((r) => r.map((v, i) => v + (i % 2 === 0 ? 50 : 32)));
  const got = against(plan, polygon, 4, blunt.includedAngle);
  expect(got.low).toBeGreaterThan(-0.02);
  // What the flat leaves in the bottom: its radius / tan(half the angle).
  expect(got.high).toBeLessThan(blunt.tipDiameter / 2 / Math.tan(Math.PI / 6) + 0.09);
});

test('copies that overlap are cut as one, and no line sinks straight down deeper than the bit may', async () => {
  const source = { kind: 'shape', outline: { kind: 'rectangle' }, edge: { kind: 'plain' }, relief: vee() } as const;
  const copies = { kind: 'rows', columns: 2, rows: 1, dx: 20, dy: 0 } as const;
  const job = grooved({ source, size: { x: 30, y: 5 }, rise: 6, copies });
  const pass = job.passes.at(-1)!;
  if (pass.kind === 'letter') pass.stepdown = 2;
  const plan = await planShapes(job, load);
  expect(errorsOf(plan)).toEqual([]);
  const got = against(plan, rectangle(50, 5), 6, 60);
  expect(got.low).toBeGreaterThan(-0.02);
  expect(got.high).toBeLessThan(0.1);
  // From the text itself: a line with Z alone and a feed sinks straight down.
  let [z, deepest, rapid] = [5, 0, true];
  for (const text of plan.summary.programs.at(-1)!.text.split('\n')) {
    if (/^G[01]/.test(text)) rapid = text.startsWith('G0');
    const to = /Z(-?[\d.]+)/.exec(text);
    if (!to || text.startsWith('(')) continue;
    if (!rapid && !/[XY]/.test(text)) deepest = Math.max(deepest, Math.min(0, z) - Number(to[1]));
    z = Number(to[1]);
  }
  expect(deepest).toBeLessThanOrEqual(sharp.maxPlungeDepth + 0.001);
});

test('letters follow the surface that they are cut into, and stay off a wall beside them', async () => {
  const source = { kind: 'shape', outline: { kind: 'rectangle' }, edge: { kind: 'plain' }, relief: vee() } as const;
  const job = grooved({ source, size: { x: 40, y: 2 }, rise: 3 });
  // The panel slopes by two degrees along x, and a block stands beside the groove.
  job.layers[0].slope = { x: 2, y: 0 };
  job.layers.splice(1, 0, {
    ...job.layers[0],
    id: 'block',
    name: 'Block',
    slope: { x: 0, y: 0 },
    size: { x: 30, y: 4 },
    rise: 3,
    centre: { x: 50, y: 36 },
  });
  const plan = await planShapes(job, load);
  expect(plan.summary.findings.filter((f) => f.rule === 'gouge')).toEqual([]);
  const row = 319 * plan.cut.width;
  const depth = (x: number) => {
    const k = row + Math.round((x - plan.cut.originX) / plan.cut.cell);
    return plan.cut.data[k - 20 * plan.cut.width] - plan.cut.data[k];
  };
  // 1 / tan 30 deep from the surface beside it, at either end of the slope; beside the block only as deep as the bit has room.
  const full = 1 / Math.tan(Math.PI / 6);
  for (const x of [33.05, 66.95]) expect(Math.abs(depth(x) - full)).toBeLessThan(0.12);
  expect(depth(50.05)).toBeLessThan(full - 0.5);
  expect(plan.summary.findings.map((f) => f.rule)).not.toContain('keep-cut');
});

test('on ground that slopes across or along it a groove keeps its width at the surface', async () => {
  const source = { kind: 'shape', outline: { kind: 'rectangle' }, edge: { kind: 'plain' }, relief: vee() } as const;
  for (const slope of [
    { x: 0, y: 12 },
    { x: 10, y: 6 },
  ]) {
    const job = grooved({ source, size: { x: 40, y: 2 }, rise: 4 });
    job.board.thickness = 30;
    Object.assign(job.layers[0], { slope, rise: 10 });
    const plan = await planShapes(job, load);
    expect(errorsOf(plan)).toEqual([]);
    const { cut, target } = plan;
    const [sx, sy] = [slope.x, slope.y].map((d) => Math.tan((d * Math.PI) / 180));
    const at = (x: number, y: number) =>
      cut.data[Math.round((y - cut.originY) / cut.cell) * cut.width + Math.round((x - cut.originX) / cut.cell)];
    // The ground by its plane, through a place beside the groove.
    const beside = target.data[300 * cut.width + 500];
    const by = cut.originY + 300 * cut.cell;
    const bx = cut.originX + 500 * cut.cell;
    const ground = (x: number, y: number) => beside + sx * (x - bx) + sy * (y - by);
    const fall = 1 / Math.tan((sharp.includedAngle * Math.PI) / 360);
    let [low, high] = [0, 0];
    for (let y = cut.originY + 310 * cut.cell; y < 33; y += cut.cell) {
      for (let x = cut.originX + 330 * cut.cell; x < 67; x += 5 * cut.cell) {
        // The walls by their definition, on straight edges far from the ends.
        let wall = -Infinity;
        for (const edge of [31, 33])
          for (let px = x - 2; px <= x + 2; px += 0.05)
            wall = Math.max(wall, ground(px, edge) - fall * Math.hypot(px - x, edge - y));
        low = Math.min(low, at(x, y) - wall);
        high = Math.max(high, at(x, y) - wall);
      }
    }
    // No deeper than the walls but for a cell's share, and no wood left in the groove: as wide as it is drawn.
    expect(low).toBeGreaterThan(-0.005);
    expect(high).toBeLessThan(0.01);
  }
});

test('what no V bit of the job cuts is a finding, and letters need a V bit', async () => {
  const source = { kind: 'shape', outline: { kind: 'rectangle' }, edge: { kind: 'plain' }, relief: vee(100) } as const;
  const job = changed(grooved({ source, size: { x: 40, y: 2 }, rise: 1 }), { cell: 0.4 });
  const rules = async (j: SetupView) =>
    (await planShapes(j, load)).summary.findings
      .filter((f) => f.rule.startsWith('groove'))
      .map((f) => textOf(f).message);
  expect(await rules(job)).toEqual(['Cut is shaped for a V bit of 100 degrees, and no pass cuts letters with one']);
  job.layers[1].join = 'stack';
  expect((await rules(job))[0]).toContain('not carved in');
  const wrong = job.passes.map((p) => (p.kind === 'letter' ? { ...p, cutter: 'em6' } : p));
  expect(wrongIn(changed(job, { passes: wrong }))).toContain('is no V bit');
});

test('a groove over an edge of the panel is told, with the height of the edge', async () => {
  const over = (x: number) =>
    grooved({
      source: { kind: 'shape', outline: { kind: 'rectangle' }, edge: { kind: 'plain' }, relief: vee() },
      size: { x: 12, y: 3 },
      rise: 2,
      centre: { x, y: 32 },
    });
  const said = async (x: number) =>
    (await planShapes(changed(over(x), { cell: 0.2 }), load)).summary.findings.filter((f) => f.rule === 'groove-edge');
  expect(await said(50)).toEqual([]);
  const [f] = await said(85);
  expect(textOf(f).message).toContain('Cut runs over an edge that is 5 mm high');
  expect(Math.abs(f.place!.x - 85)).toBeLessThan(1);
});

test('a drawn line is engraved at one depth, and strokes around a ring are cut to and fro', async () => {
  const tan = Math.tan((sharp.includedAngle * Math.PI) / 360);
  const source = {
    kind: 'shape' as const,
    outline: { kind: 'strokes' as const, d: 'M 0 0 C 15 -12 25 12 40 0', width: 2 * 0.8 * tan },
    edge: { kind: 'plain' as const },
    relief: vee(),
  };
  const line = await planShapes(grooved({ source, size: { x: 42, y: 9 }, rise: 3, centre: { x: 50, y: 32 } }), load);
  const depths = (text: string) => [...text.matchAll(/Z(-?[\d.]+)/g)].map((m) => Number(m[1])).filter((z) => z < 0);
  const own = line.summary.programs.at(-1)!.text;
  // Half a width of w is met at the depth of w / (2 tan(half the angle)).
  expect(Math.min(...depths(own))).toBeCloseTo(-0.8, 2);
  const radial = await planShapes(
    grooved({
      source: { ...source, outline: { ...source.outline, d: 'M 0 0 H 6' } },
      size: { x: 7, y: 1 },
      rise: 3,
      centre: { x: 50, y: 32 },
      copies: { kind: 'ring', count: 12, radius: 11, turning: true },
    }),
    load,
  );
  const moves = radial.summary.passes.find((p) => p.kind === 'letter')!;
  // From each stroke's end to the next one's nearer end: never back over the whole length of a stroke.
  expect(moves.rapidLength).toBeLessThan(12 * (6 + 2 * 7) + 120);
  expect(errorsOf(radial)).toEqual([]);
});

test('wide grooves: an end mill clears the level bottom, the V bit cuts the walls alone', async () => {
  const deepest = 3;
  const job = grooved({
    source: { kind: 'shape', outline: { kind: 'rectangle' }, edge: { kind: 'plain' }, relief: vee() },
    size: { x: 44, y: 20 },
    rise: deepest,
    centre: { x: 50, y: 32 },
  });
  const flat = proposed('flat', job, bit('em6'));
  job.passes.splice(placeFor(job.passes, 'flat'), 0, flat);
  const plan = await planShapes(job, load);
  expect(errorsOf(plan)).toEqual([]);
  // The bottom is narrower than the outline by what the walls take on both sides, and level within 0.01 mm.
  const side = deepest * Math.tan((sharp.includedAngle * Math.PI) / 360);
  const { cut } = plan;
  const depthAt = (x: number, y: number) =>
    cut.data[Math.round((y - cut.originY) / cut.cell) * cut.width + Math.round((x - cut.originX) / cut.cell)];
  for (let x = 30; x <= 70; x += 2.5) {
    for (let y = 24 + side; y <= 40 - side; y += 1.5) {
      if (Math.abs(x - 50) > 22 - side - 0.4) continue;
      expect(Math.abs(depthAt(x, y) + deepest)).toBeLessThan(0.01);
    }
    // Half way up the wall.
    expect(depthAt(x, 22 + side / 2)).toBeCloseTo(-deepest / 2, 0);
  }
  // The V bit goes around once, along the walls: no wider than it must.
  const letter = plan.summary.passes.find((p) => p.kind === 'letter')!;
  expect(letter.cutLength).toBeLessThan(2.2 * 2 * (44 + 20));
});
