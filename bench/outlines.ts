import { SCROLL } from '../demo/shapes';
import { demoJobs } from '../demo/shop';
import { outlineOf } from '../src/core/arrange/silhouette';
import { WHOLE_PIECE } from '../src/core/doc/outline-ref';
import { AIR, boardGrid } from '../src/core/field/height-field';
import { Path } from '../src/core/motion/path';
import { flattenPath, readSvgPath } from '../src/core/outline/flatten';
import { outlinePolygon } from '../src/core/outline/shapes';
import { offsetPolygon } from '../src/core/outline/union';
import { composeJob } from '../src/core/plan/compose-job';
import { DIALECT_OF } from '../src/core/program/dialects/registry';
import { writeProgram } from '../src/core/program/writer';
import { setupView } from '../src/core/setup/view';
import { contentLoader } from '../src/server/content';
import { stageRunner } from '../src/server/stage-cache';
import { row } from './row';

function linesOf(xy: ArrayLike<number>, arcs: number): number {
  const path = new Path();
  path.rapid(xy[0], xy[1], 5);
  path.feed(xy[0], xy[1], -1, 500);
  for (let i = 2; i < xy.length; i += 2) path.feed(xy[i], xy[i + 1], -1, 1500);
  path.feed(xy[0], xy[1], -1, 1500);
  path.rapid(path.x, path.y, 5);
  const text = writeProgram(
    [{ title: 'scroll', toolNumber: 1, rpm: 16000, moves: path.data, marks: path.marks, arcs }],
    {
      header: [],
      zero: { x: 0, y: 0, z: 0 },
      unit: 'mm',
      safeZ: 5,
      toolChanger: false,
      dialect: DIALECT_OF.rs274,
    },
  );
  return text.split('\n').filter((l) => l.includes('X')).length;
}

export async function benchOutlines(): Promise<void> {
  console.log('\nOutlines, one thread');
  const { job, files } = (await demoJobs())[3];
  const grid = boardGrid(300, 200, 0.1);
  const made = await composeJob(
    setupView(job),
    grid,
    contentLoader((h) => files.get(h)!.bytes),
    stageRunner(null, 'bench', {}),
  );
  const shown = await made.shown();
  const start = performance.now();
  const outline = outlineOf(
    { ...WHOLE_PIECE, of: ['sheaf', 'ribbon', 'ear-left', 'ear-right'], grow: 5 },
    shown,
    grid,
    'raised',
  );
  row(
    '  silhouette of two models and an image, offset by 5 mm, 0.1 mm',
    `${((performance.now() - start) / 1000).toFixed(2)} s, ${outline.reduce((s, r) => s + r.length / 2, 0)} corners`,
  );
  // The whole board as one traced silhouette: what layers that are all files would come to.
  const all = { ...shown[0].rendered, window: { i: 0, j: 0, width: grid.width, height: grid.height } };
  const heights = Float32Array.from(made.cover, (c, k) => (c ? made.z[k] : AIR));
  const traced = { ...shown.find((s) => s.layer.source.kind === 'mesh')!, rendered: { ...all, heights, weight: null } };
  const from = performance.now();
  const ring = outlineOf({ ...WHOLE_PIECE, grow: 5 }, [traced], grid, 'raised');
  row(
    `  silhouette and offset of a composite of ${(heights.length / 1e6).toFixed(0)} M cells`,
    `${((performance.now() - from) / 1000).toFixed(2)} s, ${ring.reduce((s, r) => s + r.length / 2, 0)} corners`,
  );
  const rings: [string, ArrayLike<number>][] = [
    ['scroll', flattenPath(readSvgPath(SCROLL), 0.002)[0]],
    [
      'scroll, run around at 3.175 mm',
      offsetPolygon(outlinePolygon({ kind: 'path', d: SCROLL }, 240, 80), 3.175, 0.002)[0],
    ],
    ['cartouche of 200 x 120 mm', outlinePolygon({ kind: 'cartouche' }, 200, 120)[0]],
  ];
  for (const [name, xy] of rings) {
    const [plain, fitted] = [linesOf(xy, 0), linesOf(xy, 0.01)];
    row(
      `  lines of a program, arcs within 0.01 mm: ${name}`,
      `${plain} to ${fitted}, ${(plain / fitted).toFixed(1)} times fewer`,
    );
  }
}
