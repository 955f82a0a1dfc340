// Prints what the kernels and the whole way take on this machine. Ratios are measured in one run; nothing is asserted.
import { spawnSync } from 'node:child_process';
import { plaque } from '../demo/shapes';
import { demoJobs } from '../demo/shop';
import type { Job } from '../src/core/doc/job';
import type { HeightField } from '../src/core/field/height-field';
import { makeField } from '../src/core/field/height-field';
import { cutterOffset, flatOffset } from '../src/core/kernels/cutter-offset';
import { removeStock } from '../src/core/kernels/stock-removal';
import { thinLine } from '../src/core/motion/thin';
import type { LoadContent } from '../src/core/plan/composing';
import { planJob } from '../src/core/plan/pipeline';
import { setupView } from '../src/core/setup/view';
import { contentLoader } from '../src/server/content';
import { KernelPool } from '../src/server/kernel-pool';
import { readSource } from '../src/server/read-source';
import { stageRunner } from '../src/server/stage-cache';
import { benchArrange, meshChild } from './arrange';
import { benchChanged } from './changed';
import { benchDrum } from './drum';
import { benchEngagement } from './engagement';
import { benchFaces } from './faces';
import { benchJobs } from './jobs';
import { benchLarge, startLarge } from './large';
import { benchLetters } from './letters';
import { benchOutlines } from './outlines';
import { benchPage } from './page';
import { row } from './row';
import { cpu } from './timing';

/** The demo plaque's own heights on a grid of 1500 x 1000 cells of 0.2 mm. */
function plaqueField(): HeightField {
  const f = makeField({ width: 1500, height: 1000, cell: 0.2, originX: -149.9, originY: -99.9 }, -10.6);
  for (let j = 0; j < f.height; j++) {
    for (let i = 0; i < f.width; i++) {
      const [x, y] = [f.originX + i * f.cell, f.originY + j * f.cell];
      if (plaque.inside(x, y)) f.data[j * f.width + i] = plaque.at(x, y) - 10.6;
    }
  }
  return f;
}

const SCIPY = `
import sys, time, numpy as np
from scipy.ndimage import grey_dilation
h = np.frombuffer(sys.stdin.buffer.read(), dtype=np.float32).reshape(1000, 1500)
out = []
for R in (16, 32):
    a = np.arange(-R, R + 1)
    r2 = a[None, :] ** 2 + a[:, None] ** 2
    t = (R - np.sqrt(np.maximum(0, R * R - r2))).astype(np.float32) * 0.2
    start = time.process_time()
    d = grey_dilation(h, footprint=r2 <= R * R, structure=-t, mode='constant', cval=-1e6)
    used = time.process_time() - start
    sys.stdout.write(f'{R} {used} {d[400, 700]} {d[200, 300]}\\n')
`;

function benchOffset(f: HeightField): void {
  console.log('\nCutter offset, 1500 x 1000 cells, one thread');
  const reference = new Map<number, { seconds: number; at: number[] }>();
  const run = spawnSync('python3', ['-c', SCIPY], { input: Buffer.from(f.data.buffer), encoding: 'utf8' });
  if (run.status === 0) {
    for (const line of run.stdout.trim().split('\n')) {
      const [R, seconds, ...at] = line.split(' ').map(Number);
      reference.set(R, { seconds, at });
    }
  } else console.log("  scipy is missing (Debian's python3-scipy): its rows are left out");
  for (const R of [16, 32, 64]) {
    const radius = R * f.cell;
    const t = (r: number) => radius - Math.sqrt(Math.max(0, radius * radius - r * r));
    let out: Float32Array = new Float32Array(0);
    const seconds = cpu(3, () => {
      out = cutterOffset(f, radius, t);
    });
    const other = reference.get(R);
    const differs = other
      ? Math.max(Math.abs(out[400 * 1500 + 700] - other.at[0]), Math.abs(out[200 * 1500 + 300] - other.at[1]))
      : 0;
    row(
      `  ball, R = ${R} cells`,
      `${seconds.toFixed(3)} s${other ? `, scipy ${other.seconds.toFixed(2)} s: ${(other.seconds / seconds).toFixed(0)} times; two cells differ by ${differs.toExponential(1)} mm` : ''}`,
    );
  }
  row('  flat, R = 32 cells', `${cpu(3, () => void flatOffset(f, 32 * f.cell)).toFixed(3)} s`);
}

function benchRemoval(): void {
  console.log('\nStock removal, cells of 0.1 mm, one thread');
  const cases = [
    ['ball 3.175, segments of 0.1 mm', 1, 1.5875, 0.1, 0.3],
    ['ball 3.175, segments of 1.4 mm', 1, 1.5875, 1.4, 0.3],
    ['flat 6.35, level, segments of 1 mm', 0, 3.175, 1, 0],
    ['flat 6.35, ramps of 4 degrees, segments of 1 mm', 0, 3.175, 1, 0.07],
  ] as const;
  for (const [name, shape, R, length, slope] of cases) {
    const n = 60_000;
    const segments = new Float64Array(n * 7);
    let [x, y, z, way, up] = [4, 4, -2, 1, 1];
    for (let i = 0; i < n; i++) {
      const [nx, nz] = [x + way * length, z + slope * length * up];
      segments.set([x, y, z, nx, y, nz, 0], i * 7);
      [x, z] = [nx, nz];
      if (z < -4 || z > -0.5 || i % 3 === 0) up = z < -4 ? 1 : z > -0.5 ? -1 : -up;
      if (x > 295 || x < 4) {
        way = -way;
        y = y > 27 ? 4 : y + 0.25;
      }
    }
    const seconds = cpu(3, () => {
      const f = makeField({ width: 3000, height: 320, cell: 0.1, originX: 0, originY: 0 });
      removeStock(f, { shape, R, p0: 0, p1: 0, p2: 0 }, segments);
    });
    row(`  ${name}`, `${Math.round(n / seconds / 1000)} thousand a second`);
  }
}

function benchThinning(): void {
  console.log('\nThinning of raster lines, demo plaque under a 3.175 ball, tolerance 0.01 mm');
  const fine = makeField({ width: 3000, height: 200, cell: 0.1, originX: -149.95, originY: -10 }, -10.6);
  for (let j = 0; j < fine.height; j++) {
    for (let i = 0; i < fine.width; i++) {
      const [x, y] = [fine.originX + i * 0.1, fine.originY + j * 0.1];
      if (plaque.inside(x, y)) fine.data[j * fine.width + i] = plaque.at(x, y) - 10.6;
    }
  }
  const offset = cutterOffset(fine, 1.5875, (r) => 1.5875 - Math.sqrt(Math.max(0, 1.5875 ** 2 - r * r)));
  const lines = Array.from({ length: fine.height }, (_, j) =>
    Float64Array.from(offset.subarray(j * 3000, (j + 1) * 3000)),
  );
  const [at, hs] = [new Float64Array(3001), new Float64Array(3001)];
  let kept = 0;
  const seconds = cpu(5, () => {
    kept = 0;
    for (const z of lines) kept += thinLine(z, 3000, 0.1, 0.01, at, hs);
  });
  const points = 3000 * lines.length;
  row('  time', `${((seconds / points) * 1e9).toFixed(0)} ns a point`);
  row('  points', `${(points / kept).toFixed(1)} times fewer`);
}

async function planTimed(job: Job, load: LoadContent) {
  const host = new KernelPool();
  const stages: Record<string, number> = {};
  const start = performance.now();
  try {
    const plan = await planJob(job, load, {
      host,
      threads: host,
      progress() {},
      stage: stageRunner(null, 'bench', stages),
    });
    return { plan, stages, seconds: (performance.now() - start) / 1000 };
  } finally {
    await host.close();
  }
}

async function benchPlan(): Promise<void> {
  console.log('\nDemo plaque, 300 x 200 mm, import to proof, all cores');
  const { job, files } = (await demoJobs())[0];
  const [stl] = files.values();
  const reading = performance.now();
  await readSource(stl.bytes, stl.name);
  row('  reading the STL', `${((performance.now() - reading) / 1000).toFixed(2)} s`);
  const load = contentLoader((h) => files.get(h)!.bytes);
  const whole = await planTimed(job, load);
  row(
    '  stages',
    Object.entries(whole.stages)
      .map(([k, v]) => `${k} ${v.toFixed(2)}`)
      .join(', '),
  );
  row(
    '  together',
    `${whole.seconds.toFixed(1)} s, cell ${whole.plan.summary.setups[0].grid.cell} mm, peak memory ${Math.round(process.resourceUsage().maxRSS / 1024)} MB`,
  );
  const smaller = structuredClone(job);
  const half = setupView(smaller);
  const k = Math.SQRT1_2;
  half.board.x *= k;
  half.board.y *= k;
  const [layer] = half.layers;
  layer.size = { x: layer.size.x * k, y: layer.size.y * k };
  layer.centre = { x: half.board.x / 2, y: half.board.y / 2 };
  half.cell = whole.plan.summary.setups[0].grid.cell;
  const small = await planTimed(smaller, load);
  row('  twice the area', `${(whole.seconds / small.seconds).toFixed(2)} times the time`);

  console.log('\nPath quality, demo plaque (what prototypes reached on a plaque of their own in brackets)');
  const [rough, finish] = whole.plan.summary.setups[0].passes;
  const feed = 1800 / 60;
  row('  finishing: time over length / feed', `${(finish.seconds / (finish.cutLength / feed)).toFixed(3)} (1.10)`);
  row('  finishing: blocks a millimetre', (finish.moves / finish.cutLength).toFixed(2));
  const ideal = whole.plan.summary.programs[0].volume / (rough.stepdown * rough.stepover * feed);
  row('  roughing by rings: time over the ideal', `${(rough.seconds / ideal).toFixed(2)} (1.40 to 1.56)`);
  row('  roughing: share of rapids', `${((100 * rough.rapidSeconds) / rough.seconds).toFixed(1)} % of the time (5 %)`);
  row(
    '  roughing: share of ramps and plunges',
    `${((100 * sinking(whole.plan.summary.programs[0].text)) / rough.cutLength).toFixed(1)} % of the length (3 %)`,
  );
}

/** Length of the feed moves of a program that go down, mm. */
function sinking(text: string): number {
  let p = [Number.NaN, Number.NaN, Number.NaN];
  let feeding = false;
  let sum = 0;
  for (const line of text.split('\n')) {
    if (line.startsWith('(')) continue;
    if (/G0\b/.test(line)) feeding = false;
    if (/G1\b/.test(line)) feeding = true;
    const q = p.slice();
    for (const m of line.matchAll(/([XYZ])(-?[\d.]+)/g)) q['XYZ'.indexOf(m[1])] = Number(m[2]);
    if (feeding && q[2] < p[2]) sum += Math.hypot(q[0] - p[0], q[1] - p[1], q[2] - p[2]);
    p = q;
  }
  return sum;
}

const child = process.argv.indexOf('--mesh');
if (child > 0) await meshChild(Number(process.argv[child + 1]));
else if (process.argv.includes('--jobs')) await benchJobs();
else if (process.argv.includes('--faces')) await benchFaces();
else if (process.argv.includes('--drum')) await benchDrum();
else if (process.argv.includes('--page')) await benchPage();
else if (process.argv.includes('--large')) await benchLarge(process.argv[process.argv.indexOf('--large') + 1]);
else {
  const field = plaqueField();
  benchOffset(field);
  benchRemoval();
  benchEngagement();
  benchThinning();
  await benchArrange();
  await benchPage();
  await benchLetters();
  await benchOutlines();
  await benchPlan();
  await benchJobs();
  await benchDrum();
  await benchChanged();
  startLarge();
}
