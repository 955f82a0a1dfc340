import { poolField, sampleField } from '../field/height-field';
import { flatOffset } from '../kernels/cutter-offset';
import { SEGMENT } from '../kernels/stock-removal';
import type { Board, Machine } from '../plan/job';
import { formatLength } from '../units/length';
import type { Finding } from './finding';
import type { Run } from './simulate';

const mm = (v: number) => formatLength(v);

/** What one run of a bit did wrong: rapids in material, too deep a cut, places out of the machine's reach, a shank or holder at a wall. */
export function checkRun(run: Run, board: Board, machine: Machine): Finding[] {
  return [...rapids(run), ...stepdown(run), ...limits(run, board, machine), ...reach(run)];
}

function at(run: Run, i: number) {
  const s = i * SEGMENT;
  return { x: run.segments[s + 3], y: run.segments[s + 4], z: run.segments[s + 5], line: run.lines[i] };
}

function rapids(run: Run): Finding[] {
  let worst = -1;
  let count = 0;
  for (let i = 0; i < run.bites.length; i++) {
    if (run.segments[i * SEGMENT + 6] !== 1 || run.bites[i] <= 0.001) continue;
    count++;
    if (worst < 0 || run.bites[i] > run.bites[worst]) worst = i;
  }
  if (worst < 0) return [];
  const p = at(run, worst);
  return [
    {
      rule: 'rapid-through-material',
      severity: 'error',
      message: `${run.file}, line ${p.line}: ${count} rapid ${count === 1 ? 'move goes' : 'moves go'} through the board, up to ${mm(run.bites[worst])} deep`,
      remedy: 'do not run this program; plan the pass again',
      x: p.x,
      y: p.y,
    },
  ];
}

function stepdown(run: Run): Finding[] {
  const limit = run.cutter.maxStepdown;
  let worst = -1;
  for (let i = 0; i < run.bites.length; i++) {
    if (run.segments[i * SEGMENT + 6] === 1) continue;
    if (worst < 0 || run.bites[i] > run.bites[worst]) worst = i;
  }
  if (worst < 0 || run.bites[worst] <= limit * 1.02 + 0.02) return [];
  const p = at(run, worst);
  return [
    {
      rule: 'stepdown',
      severity: 'warning',
      message: `${run.file}, line ${p.line}: ${run.cutter.name} cuts ${mm(run.bites[worst])} deep in one go, over its ${mm(limit)}`,
      remedy: 'use a smaller stepdown, or rough first',
      x: p.x,
      y: p.y,
    },
  ];
}

function limits(run: Run, board: Board, machine: Machine): Finding[] {
  const out: Finding[] = [];
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  let far = -1;
  let beyond = 0;
  for (let i = 0; i < run.bites.length; i++) {
    const p = at(run, i);
    const v = [p.x, p.y, p.z];
    for (let a = 0; a < 3; a++) {
      low[a] = Math.min(low[a], v[a]);
      high[a] = Math.max(high[a], v[a]);
    }
    const d = Math.max(-p.x, p.x - board.x, -p.y, p.y - board.y);
    if (d > beyond) {
      beyond = d;
      far = i;
    }
  }
  if (beyond > run.cutter.diameter / 2 + 2) {
    const p = at(run, far);
    out.push({
      rule: 'outside-board',
      severity: 'warning',
      message: `${run.file}: the bit runs ${mm(beyond)} beyond the board's edge`,
      remedy: 'keep clamps away from there, or make the relief smaller',
      x: p.x,
      y: p.y,
    });
  }
  const sides: [number, number, string][] = [
    [board.place.x + low[0], board.place.x + high[0], 'x'],
    [board.place.y + low[1], board.place.y + high[1], 'y'],
  ];
  sides.forEach(([a, b, axis], i) => {
    const room = i === 0 ? machine.x : machine.y;
    if (a >= -1e-6 && b <= room + 1e-6) return;
    out.push({
      rule: 'outside-machine',
      severity: 'error',
      message: `${run.file}: needs ${axis} from ${mm(a)} to ${mm(b)} on the table, ${machine.name} has 0 to ${mm(room)}`,
      remedy: 'move the board on the table, or choose a larger machine',
      x: i === 0 ? (a < 0 ? low[0] : high[0]) : (low[0] + high[0]) / 2,
      y: i === 1 ? (a < 0 ? low[1] : high[1]) : (low[1] + high[1]) / 2,
    });
  });
  if (high[2] - low[2] > machine.zTravel) {
    out.push({
      rule: 'z-travel',
      severity: 'error',
      message: `${run.file}: needs ${mm(high[2] - low[2])} of Z travel, ${machine.name} has ${mm(machine.zTravel)}`,
      remedy: 'an axis that stalls loses its place and the next plunge goes through the work; carve less deep',
      x: board.x / 2,
      y: board.y / 2,
    });
  }
  return out;
}

/**
 * Shank and holder against the walls that are left standing: what remains after the run was certainly there while it
 * ran. Worked out on cells of about 0.4 mm that are wholly material.
 */
function reach(run: Run): Finding[] {
  const { cutter } = run;
  const factor = Math.max(1, Math.round(0.4 / run.after.cell));
  const walls = poolField(run.after, factor, 'min');
  const parts = [
    {
      name: 'shank',
      radius: cutter.shankDiameter / 2,
      height: cutter.fluteLength,
      rubs: cutter.shankDiameter <= cutter.diameter,
    },
    { name: 'holder', radius: cutter.holderDiameter / 2, height: cutter.stickOut, rubs: false },
  ];
  const out: Finding[] = [];
  for (const part of parts) {
    if (part.radius < cutter.diameter / 2 - 0.05) continue;
    const tall = { ...walls, data: flatOffset(walls, part.radius + walls.cell) };
    let worst = -1;
    let deepest = 0.05;
    for (let i = 0; i < run.bites.length; i++) {
      if (run.segments[i * SEGMENT + 6] === 1) continue;
      const p = at(run, i);
      const over = sampleField(tall, p.x, p.y) - (p.z + part.height);
      if (over > deepest) {
        deepest = over;
        worst = i;
      }
    }
    if (worst < 0) continue;
    const p = at(run, worst);
    out.push({
      rule: 'reach',
      severity: part.rubs ? 'warning' : 'error',
      message: `${run.file}, line ${p.line}: the ${part.name} of ${cutter.name} ${part.rubs ? 'rubs' : 'hits'} a wall that stands ${mm(deepest)} above its ${part.name === 'shank' ? 'flutes' : 'nose'}`,
      remedy:
        part.name === 'shank'
          ? 'use a bit with longer flutes, a wider trench, or less depth'
          : 'let the bit stick out further, or carve less deep',
      x: p.x,
      y: p.y,
    });
  }
  return out;
}
