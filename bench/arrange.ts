import { spawnSync } from 'node:child_process';
import { demoJobs } from '../demo/shop';
import { Arrangement } from '../src/core/arrange/engine';
import type { Content } from '../src/core/arrange/kinds/kind';
import { rasterOf } from '../src/core/arrange/kinds/mesh/piece';
import { duplicateLayer, newShape } from '../src/core/arrange/new-layer';
import { buildTarget } from '../src/core/arrange/target';
import type { Layer } from '../src/core/doc/layer';
import { boardGrid } from '../src/core/field/height-field';
import { resolveAreas } from '../src/core/plan/regions';
import { setupView } from '../src/core/setup/view';
import { inspectSource } from '../src/core/sources/inspect';
import { writeStl } from '../src/core/sources/stl';
import { contentLoader } from '../src/server/content';
import { readSource } from '../src/server/read-source';
import { row } from './row';

/** A bumpy square of 2 n^2 triangles on a flat back's height, n cells a side. */
export function bumps(n: number): Float32Array {
  const out = new Float32Array(n * n * 18);
  const z = (i: number, j: number) => 3 + 2 * Math.sin(i * 0.05) * Math.cos(j * 0.07);
  let k = 0;
  for (let j = 0; j < n; j++) {
    for (let i = 0; i < n; i++) {
      for (const [a, b] of [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 0],
        [1, 1],
        [0, 1],
      ]) {
        out[k++] = (i + a) * 0.2;
        out[k++] = (j + b) * 0.2;
        out[k++] = z(i + a, j + b);
      }
    }
  }
  return out;
}

/** The demo's plaque with more layers, twenty in all, and its files. */
export async function twentyLayers() {
  const { job: document, files } = (await demoJobs())[3];
  const job = setupView(structuredClone(document));
  const ear = job.layers.find((l) => l.id === 'ear-left')!;
  const layers: Layer[] = [...job.layers];
  for (let i = 0; layers.length < 18; i++) {
    const l = duplicateLayer(ear, `ear-${i}`);
    layers.push({ ...l, centre: { x: 40 + 20 * i, y: 140 - 6 * (i % 4) }, turn: 30 * i, group: null });
  }
  layers.push(
    newShape(
      { id: 'rope', name: 'Rope' },
      { kind: 'rounded', radius: 20 },
      { kind: 'rope', width: 5, pitch: 6, band: true },
      job.board,
      { share: 0.86 },
    ),
  );
  layers.push({
    ...newShape({ id: 'dome', name: 'Dome' }, { kind: 'oval' }, { kind: 'dome' }, job.board, { share: 0.12 }),
    thin: 3,
  });
  job.layers = layers;
  return { job, files };
}

/** The same with its contents as the page has them. */
async function twenty() {
  const { job, files } = await twentyLayers();
  const load = contentLoader((h) => files.get(h)!.bytes);
  const contents = new Map<string, Content>();
  for (const l of job.layers) {
    const { content } = await load(l);
    contents.set(
      l.id,
      content.mesh && l.source.kind === 'mesh' ? { raster: rasterOf(content.mesh, l.source, 1400) } : content,
    );
  }
  return { job, contents };
}

export async function benchDragging(): Promise<void> {
  console.log('\nArranging twenty layers on 300 x 200 mm, one thread, as the page’s worker does it');
  const { job, contents } = await twenty();
  const areas = await resolveAreas(job, () => []);
  const regions = areas.filter((a) => a !== null).map((a) => ({ ...a, within: null }));
  const contentOf = (l: Layer) => contents.get(l.id) ?? null;
  const moved = (i: number) =>
    job.layers.map((l) =>
      l.id === 'sheaf' ? { ...l, centre: { x: 150 + 20 * Math.sin(i / 7), y: 104 + 10 * Math.cos(i / 5) } } : l,
    );
  const coarse = new Arrangement(boardGrid(300, 200, 300 / 360), contentOf);
  const times: number[] = [];
  for (let i = 0; i < 120; i++) {
    const start = performance.now();
    coarse.effects(moved(i), job.seat);
    const { peak, low } = coarse.facts();
    buildTarget({ ...coarse.surface, mode: job.seat.mode, peak, low, skin: 0, drop: 0, regions });
    if (i >= 20) times.push(performance.now() - start);
  }
  times.sort((a, b) => a - b);
  row(
    '  coarse while dragging (0.83 mm), median, 95th percentile',
    `${times[50].toFixed(1)} ms, ${times[95].toFixed(1)} ms`,
  );
  const full = new Arrangement(boardGrid(300, 200, 0.1), contentOf);
  const first = performance.now();
  full.update(job.layers, job.seat);
  row('  full grid (0.1 mm), first time', `${((performance.now() - first) / 1000).toFixed(2)} s`);
  const later: number[] = [];
  for (let i = 1; i < 6; i++) {
    const start = performance.now();
    full.update(moved(i * 9), job.seat);
    full.facts();
    later.push(performance.now() - start);
  }
  later.sort((a, b) => a - b);
  row(
    '  full grid after letting go, median, worst of five',
    `${(later[2] / 1000).toFixed(2)} s, ${(later[4] / 1000).toFixed(2)} s`,
  );
}

/** Reads a mesh as an upload would, in a process of its own so that its memory is its own. */
function benchMesh(name: string, n: number): void {
  const r = spawnSync(process.execPath, [...process.execArgv, process.argv[1], '--mesh', String(n)], {
    encoding: 'utf8',
  });
  row(`  ${name}`, r.status === 0 ? r.stdout.trim() : `failed: ${r.stderr.slice(-200)}`);
}

/** The child's part of benchMesh. */
export async function meshChild(n: number): Promise<void> {
  const bytes = writeStl(bumps(n), 'bumps');
  const start = performance.now();
  const source = await readSource(bytes, 'bumps.stl');
  const info = inspectSource(source);
  const looked = performance.now();
  const s = {
    kind: 'mesh',
    file: 'bumps.stl',
    hash: '',
    unit: 'mm',
    turns: info.turns,
    flip: false,
    base: info.base,
  } as const;
  const raster = rasterOf(source.mesh!, { ...s, turns: info.turns }, 1400);
  const end = performance.now();
  const memory = Math.round(process.resourceUsage().maxRSS / 1024);
  console.log(
    `${info.triangles} triangles: read and looked at ${((looked - start) / 1000).toFixed(2)} s, seen from above (${raster.width} x ${raster.height}) ${((end - looked) / 1000).toFixed(2)} s, peak ${memory} MB`,
  );
}

export async function benchArrange(): Promise<void> {
  await benchDragging();
  console.log('\nLarge models, each in a process of its own (the making of the file counts for memory)');
  benchMesh('1 million triangles', 708);
  benchMesh('5 million triangles', 1581);
}
