import { readFileSync } from 'node:fs';
import type { Groove } from '../src/core/arrange/grooves';
import { NEW_WORDS } from '../src/core/arrange/new-layer';
import { MASK } from '../src/core/arrange/target';
import { DRAWER, SHOP_MACHINE } from '../src/core/doc/defaults';
import { boardGrid, makeField } from '../src/core/field/height-field';
import { localHost } from '../src/core/kernels/host';
import { medialAxis } from '../src/core/outline/medial';
import { NearestOutline } from '../src/core/outline/nearest';
import { crossings, type Polygon } from '../src/core/outline/polygon';
import { makeContext } from '../src/core/passes/context';
import { planLetters } from '../src/core/passes/letter/plan';
import { HEIGHTS } from '../src/core/plan/plan-test-kit';
import { FONTS } from '../src/core/sources/fonts';
import { layWords, readFont } from '../src/core/sources/lettering';
import { row } from './row';

const TEXT = 'The quick brown fox jumps over the lazy dog at Ottersedge Mill';

/** Forty letters of a script face, about 300 mm long, in the middle of a board of 340 x 60 mm. */
function script(): Polygon {
  const file = FONTS.find((f) => f.id === 'script')!.file;
  const font = readFont(new Uint8Array(readFileSync(`node_modules/${file}`)), 'script');
  let letters = 0;
  const text = [...TEXT].filter((c) => c === ' ' || letters++ < 40).join('');
  const words = { ...NEW_WORDS, text, font: 'script', fontName: 'Script', height: 16 };
  const { polygon, size } = layWords(words, font);
  const k = 300 / size.x;
  return polygon.map((r) => r.map((v, i) => v * k + (i % 2 === 0 ? 170 : 30)));
}

export async function benchLetters(): Promise<void> {
  console.log('\nV carving forty letters of a script face, 300 mm long, one thread');
  const polygon = script();
  const cutter = DRAWER.find((c) => c.shape === 'v')!;
  const start = performance.now();
  const axis = medialAxis(polygon, 0.05);
  const found = performance.now();
  row('  the middles of all strokes', `${((found - start) / 1000).toFixed(2)} s, ${axis.length} lines`);
  // The target that they are cut into: grooves in a level board.
  const field = makeField(boardGrid(340, 60, 0.1), 0);
  const near = new NearestOutline(polygon, 30);
  const hit = { distance: 0, along: 0, ring: 0 };
  for (let j = 0; j < field.height; j++) {
    const y = field.originY + j * field.cell;
    const cross = crossings(polygon, y);
    for (let q = 0; q + 1 < cross.length; q += 2) {
      for (
        let i = Math.ceil((cross[q] - field.originX) / field.cell);
        i <= (cross[q + 1] - field.originX) / field.cell;
        i++
      )
        field.data[j * field.width + i] =
          -near.find(field.originX + i * field.cell, y, hit).distance / Math.tan(Math.PI / 6);
    }
  }
  const n = field.data.length;
  const target = { field, mask: new Uint8Array(n).fill(MASK.cut), outside: new Float32Array(n), ground: -20 };
  const groove: Groove = { layer: 'words', polygon, angle: cutter.includedAngle, deepest: 8 };
  const ctx = makeContext({
    target,
    board: { x: 340, y: 60, thickness: 20 },
    mode: 'raised',
    heights: HEIGHTS,
    rampAngle: 4,
    machine: SHOP_MACHINE,
    host: localHost,
    grooves: async () => [groove],
  });
  const from = performance.now();
  const { path } = await planLetters(
    ctx,
    {
      id: 'letter',
      kind: 'letter',
      cutter: cutter.id,
      reserve: false,
      area: { kind: 'face' },
      stepdown: cutter.maxStepdown,
    },
    cutter,
  );
  row('  the whole pass', `${((performance.now() - from) / 1000).toFixed(2)} s, ${path.moves} moves`);
}
