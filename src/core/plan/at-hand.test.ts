import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import type { Cutter } from '../cutter/cutter';
import {
  DESKTOP_MACHINE,
  DRAWER,
  HOBBY_MACHINE,
  MACHINES,
  MATERIALS,
  materialNamed,
  SHOP_MACHINE,
} from '../doc/defaults';
import type { Library } from '../doc/library';
import { withOwnFeed } from '../doc/own-feeds';
import { atHand, fittedTo } from './at-hand';
import { plainSetup, planShapes } from './plan-test-kit';

/** Chip load: feed over turns and teeth (any machining handbook), mm a tooth. */
const chipOf = (c: Cutter) => c.feed / (c.rpm * c.flutes);
const MAPLE = materialNamed('maple');
const shop = (...machines: Library['machines']): Library => ({
  machines,
  cutters: DRAWER,
  materials: MATERIALS,
  recipes: [],
});

test('a machine that takes every shank begins with the first end mill and ball, as they are', () => {
  for (const machine of [HOBBY_MACHINE, SHOP_MACHINE])
    expect(atHand(shop(machine), MAPLE)).toEqual({
      machine,
      rough: DRAWER.find((c) => c.shape === 'endmill'),
      finish: DRAWER.find((c) => c.shape === 'ball'),
    });
  expect(atHand(shop(), MAPLE)).toBeNull();
  expect(atHand({ ...shop(HOBBY_MACHINE), cutters: DRAWER.filter((c) => c.shape !== 'ball') }, MAPLE)).toBeNull();
});

test('the weak desktop machine gets bits that fit its collet and speeds that it turns, at the same chip load', async () => {
  const { machine, rough, finish } = atHand(shop(DESKTOP_MACHINE), MAPLE)!;
  for (const c of [rough, finish]) {
    expect(machine.collets).toContain(c.shankDiameter);
    expect(c.rpm).toBeLessThanOrEqual(machine.maxRpm);
    const own = DRAWER.find((d) => d.id === c.id)!;
    expect(chipOf(c)).toBeCloseTo(chipOf(own), 3);
  }
  // Planned on a board that its table holds, nothing is said of bits, speeds or feeds; one larger than the table is told.
  const board = { x: 120, y: 90, thickness: 12, material: MATERIALS[0] };
  const job = plainSetup({ name: 'Small', order: '', machine, rough, finish, board });
  job.layers = [
    { ...newShape({ id: 's', name: 's' }, { kind: 'oval' }, { kind: 'dome' }, board), size: { x: 60, y: 40 }, rise: 3 },
  ];
  job.cell = 0.2;
  const { findings } = (await planShapes(job)).summary;
  expect(findings.filter((f) => f.severity !== 'note').map((f) => f.rule)).toEqual([]);
  job.cutters[0] = { ...job.cutters[0], shankDiameter: 6.35 };
  expect((await planShapes(job)).summary.findings.map((f) => f.rule)).toContain('collet');
});

test('a bit is never run faster than an axis goes', () => {
  const slow = { ...DESKTOP_MACHINE, minRpm: 20000, maxRpm: 30000, maxFeed: { x: 900, y: 700, z: 90 } };
  const c = fittedTo(slow, DRAWER[0]);
  expect(c).toMatchObject({ rpm: 20000, feed: 700, plunge: 90 });
});

test('every machine that a new shop holds has bits at hand', () => {
  for (const m of MACHINES) expect(atHand(shop(m), MAPLE)).not.toBeNull();
});

test('a new job on a material takes the bits as the drawer has them run in it', () => {
  const oak = materialNamed('oak');
  const [bit] = DRAWER;
  const cutters = [withOwnFeed(bit, oak.id, { feed: 1100, plunge: 300, rpm: 15000 }), ...DRAWER.slice(1)];
  const library = { ...shop(HOBBY_MACHINE), cutters };
  expect(atHand(library, oak)!.rough).toEqual({ ...bit, feed: 1100, plunge: 300, rpm: 15000 });
  expect(atHand(library, MAPLE)!.rough).toEqual(bit);
});
