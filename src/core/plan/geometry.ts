import type { Target } from '../arrange/target';
import type { Finding } from '../proof/finding';
import { FLOOR_LEAST } from '../proof/prove';
import { formatLength, trimNumber } from '../units/length';
import { cellOf, cutterOf, type Job } from './job';

const mm = (v: number) => formatLength(v);

/** Room between the relief's outline and each edge of the board, mm. */
function roomAround(target: Target): { side: string; room: number; x: number; y: number }[] {
  const { field, outside } = target;
  let [west, east, south, north] = [field.width, -1, field.height, -1];
  for (let j = 0; j < field.height; j++) {
    for (let i = 0; i < field.width; i++) {
      if (outside[j * field.width + i] > 0) continue;
      if (i < west) west = i;
      if (i > east) east = i;
      if (j < south) south = j;
      if (j > north) north = j;
    }
  }
  if (east < 0) return [];
  const c = field.cell;
  const [w, h] = [field.width * c, field.height * c];
  return [
    { side: 'left', room: west * c, x: 0, y: h / 2 },
    { side: 'right', room: (field.width - 1 - east) * c, x: w, y: h / 2 },
    { side: 'near', room: south * c, x: w / 2, y: 0 },
    { side: 'far', room: (field.height - 1 - north) * c, x: w / 2, y: h },
  ];
}

/** What can be said of a job before anything is cut: does it fit, does it leave enough, what of the relief is lost. */
export function geometryFindings(
  job: Job,
  target: Target,
  trenches: number[],
  relief: { lost: { thickness: number; plan: number }; thinCells: number; depth: number },
): Finding[] {
  const out: Finding[] = [];
  const { board, seat } = job;
  const { size, rise, centre } = job.relief;
  const add = (
    rule: Finding['rule'],
    severity: Finding['severity'],
    message: string,
    remedy: string,
    x = board.x / 2,
    y = board.y / 2,
  ) => out.push({ rule, severity, message, remedy, x, y });
  const depth = rise + seat.skin;
  if (depth > board.thickness) {
    add(
      'thickness',
      'error',
      `rise ${mm(rise)} and skin ${mm(seat.skin)} need ${mm(depth)}, the board is ${mm(board.thickness)} thick`,
      `lower the rise to ${mm(board.thickness - seat.skin - FLOOR_LEAST)} or take a thicker board`,
    );
  }
  const over = [
    { beyond: size.x / 2 - centre.x, x: 0, y: centre.y },
    { beyond: centre.x + size.x / 2 - board.x, x: board.x, y: centre.y },
    { beyond: size.y / 2 - centre.y, x: centre.x, y: 0 },
    { beyond: centre.y + size.y / 2 - board.y, x: centre.x, y: board.y },
  ].sort((a, b) => b.beyond - a.beyond)[0];
  if (over.beyond > 0.01) {
    add(
      'outside-board',
      'error',
      `the relief of ${mm(size.x)} x ${mm(size.y)} reaches ${mm(over.beyond)} beyond the board`,
      'make it smaller, move it, or take a larger board',
      over.x,
      over.y,
    );
  }
  const room = roomAround(target);
  if (room.length === 0)
    add(
      'nothing-to-cut',
      'error',
      'the relief does not lie on the board: there is nothing to cut',
      'move it onto the board',
    );
  else if (seat.mode === 'raised') {
    job.passes.forEach((p, i) => {
      if (p.kind !== 'rough' || p.area.kind !== 'relief') return;
      const c = cutterOf(job, p);
      const least = c.diameter + 2 * p.stockToLeave;
      if (trenches[i] < least) {
        add(
          'margin',
          'warning',
          `a trench of ${mm(trenches[i])} is too narrow for ${c.name} with ${mm(p.stockToLeave)} left on both sides`,
          `make it at least ${mm(least + 1)}`,
        );
      }
      const tight = room.filter((r) => r.room < trenches[i] - 0.05).sort((a, b) => a.room - b.room);
      if (tight.length > 0) {
        add(
          'margin',
          'warning',
          `no room for the trench of ${mm(trenches[i])}: only ${tight.map((r) => `${mm(Math.max(0, r.room))} on the ${r.side} side`).join(', ')}; the bit runs off the board there`,
          'keep clamps away from these sides, make the relief smaller, or take a larger board',
          tight[0].x,
          tight[0].y,
        );
      }
    });
  }
  if (relief.lost.thickness > 0.001) {
    add(
      'base',
      'note',
      `${trimNumber(relief.lost.thickness * 100, 1)} % of the model's thickness lies below the base plane and is lost${relief.lost.plan > 0 ? `, with ${trimNumber(relief.lost.plan * 100, 1)} % of its plan` : ''}`,
      'lower the base plane to keep it',
    );
  }
  if (relief.thinCells > 0) {
    add(
      'thin-feature',
      'note',
      `${relief.thinCells} places of the model are thinner than a cell of the grid and stand lower than they should`,
      'they are finer than the bit; a smaller cell shows them',
    );
  }
  if (relief.depth === 8) {
    add(
      'image-depth',
      'note',
      `the image has 256 levels, which make steps of ${trimNumber(rise / 255, 3)} mm`,
      'a 16-bit image carves smooth slopes',
    );
  }
  const { cell, wanted } = cellOf(job);
  if (cell > wanted * 1.001) {
    add(
      'grid',
      'note',
      `the board is large: planned with cells of ${trimNumber(cell, 3)} mm instead of ${trimNumber(wanted, 3)} mm`,
      'a smaller board or a larger finishing bit is planned finer',
    );
  }
  for (const p of job.passes) {
    const c = cutterOf(job, p);
    const m = job.machine.maxFeed;
    if (c.feed > Math.min(m.x, m.y) || c.plunge > m.z) {
      add(
        'feed',
        'warning',
        `${c.name} is set to ${c.feed} mm/min and ${c.plunge} mm/min down, ${job.machine.name} reaches ${Math.min(m.x, m.y)} and ${m.z}`,
        'check that the feeds are in mm/min; the machine will go slower than planned',
      );
    }
  }
  return out;
}
