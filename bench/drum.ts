import { rollingPin } from '../demo/pin';
import { type Cutter, type Profile, profileOf } from '../src/core/cutter/cutter';
import { DRAWER } from '../src/core/doc/defaults';
import type { Job } from '../src/core/doc/job';
import { drumGrid, type HeightField, makeField } from '../src/core/field/height-field';
import { offsetRows } from '../src/core/kernels/host';
import { SEGMENT } from '../src/core/kernels/segment';
import { removeStock } from '../src/core/kernels/stock-removal';
import { shapesOnly } from '../src/core/plan/plan-test-kit';
import { setupView } from '../src/core/setup/view';
import { row } from './row';
import { cpu, planned } from './timing';

const RADIUS = 25;
const LONG = 150;
const CELL = 0.1;
const bit = (id: string): Cutter => DRAWER.find((c) => c.id === id)!;

/** Hills and furrows 3 mm deep round a drum, and the same cells lying flat. */
function relief(): { round: HeightField; flat: HeightField } {
  const round = makeField(drumGrid(LONG, RADIUS, CELL));
  for (let k = 0; k < round.data.length; k++) {
    const [x, y] = [k % round.width, Math.floor(k / round.width)];
    round.data[k] = -1.5 + 0.9 * Math.sin(x / 19) * Math.cos(y / 23) + 0.6 * Math.sin((x + 2 * y) / 7);
  }
  const { drum: _, ...flat } = round;
  return { round, flat };
}

/** Ways of a bit on a surface: along every third row, or round it in a spiral, in moves of three cells. */
function wayOver(f: HeightField, tips: Float32Array, how: 'along' | 'spiral'): Float64Array {
  const out: number[] = [];
  const at = (i: number, j: number) => tips[(j % f.height) * f.width + i];
  const put = (i: number, j: number, a: number, b: number) =>
    out.push(
      ...[f.originX + i * f.cell, f.originY + j * f.cell, at(Math.round(i), j)],
      ...[f.originX + a * f.cell, f.originY + b * f.cell, at(Math.round(a), b), 0],
    );
  const STEP = 3;
  if (how === 'along')
    for (let j = 0; j < f.height; j += STEP) for (let i = 0; i + STEP < f.width; i += STEP) put(i, j, i + STEP, j);
  else
    for (let t = 0, i = 0; i + STEP < f.width; t++, i += STEP)
      for (let j = 0; j < f.height; j += STEP)
        put(i + (STEP * j) / f.height, t * f.height + j, i + (STEP * (j + STEP)) / f.height, t * f.height + j + STEP);
  return Float64Array.from(out);
}

function benchKernels(): void {
  const { round, flat } = relief();
  console.log(
    `\nA drum of ${2 * RADIUS} mm, ${round.width} x ${round.height} cells, one thread: over the same cells lying flat`,
  );
  const ratio = (name: string, asked: string, around: () => void, lying: () => void) => {
    const [a, b] = [cpu(2, around), cpu(2, lying)];
    row(`  ${name} (${asked})`, `${a.toFixed(2)} s over ${b.toFixed(2)} s: ${(a / b).toFixed(2)}`);
  };
  for (const id of ['ball3', 'ball6', 'taper1', 'em6', 'v60']) {
    const cutter = bit(id);
    const p = profileOf(cutter);
    ratio(
      `offset by ${cutter.name}`,
      '3',
      () => void offsetRows(round, p, 0),
      () => void offsetRows(flat, p, 0),
    );
  }
  for (const id of ['ball3', 'ball6']) {
    const p: Profile = profileOf(bit(id));
    const tips = offsetRows(round, p, 0);
    for (const [how, asked] of [
      ['along', '2.5'],
      ['spiral', '5'],
    ] as const) {
      const ways = wayOver(round, tips, how);
      // Flat the same turns lie on the same ground.
      const lying = ways.slice();
      const turn = round.height * round.cell;
      for (let s = 0; s < lying.length; s += SEGMENT) {
        const t = Math.floor((lying[s + 1] + 1e-9) / turn) * turn;
        lying[s + 1] -= t;
        lying[s + 4] -= t;
      }
      const name = `removal by ${bit(id).name}, ${how === 'along' ? 'along it' : 'in a spiral'}, ${ways.length / SEGMENT} moves`;
      ratio(
        name,
        asked,
        () => removeStock({ ...round, data: new Float32Array(round.data.length) }, p, ways),
        () => removeStock({ ...flat, data: new Float32Array(flat.data.length) }, p, lying),
      );
    }
  }
}

/** The same layers on a board as large as the drum's sheet. */
function lyingFlat(job: Job): Job {
  const flat = structuredClone(job);
  Object.assign(flat.boards[0], { drum: null, thickness: 25 });
  return flat;
}

/** The demo's rolling pin and the same on a flat board: kernels, and layers to proof. */
export async function benchDrum(): Promise<void> {
  benchKernels();
  console.log(
    '\nThe rolling pin of 300 x 50 mm and a flat board of the same area, cells of 0.1 mm, layers to proof, all cores',
  );
  const pin = rollingPin();
  pin.cell = CELL;
  const least: Record<string, number> = {};
  for (const [name, job] of [
    ['drum', pin],
    ['board', lyingFlat(pin)],
  ] as const) {
    const { plan, seconds } = await planned(job, shapesOnly);
    least[name] = seconds;
    const told = plan.summary.findings.filter((f) => f.severity !== 'note').map((f) => f.rule);
    const [pass] = plan.summary.setups[0].passes;
    row(
      `  ${name}, ${pass.moves} moves, ${Math.round(setupView(job).board.x)} mm`,
      `${seconds.toFixed(1)} s, peak memory ${Math.round(process.resourceUsage().maxRSS / 1024)} MB (1500), ${told.join(', ') || 'nothing told'}`,
    );
  }
  row('  drum over board (2)', (least.drum / least.board).toFixed(2));
}
