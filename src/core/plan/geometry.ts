import type { SurfaceFacts } from '../arrange/compose';
import { isGroove } from '../arrange/grooves';
import { seatedDepth } from '../arrange/ledger';
import { boundsOf } from '../arrange/place';
import type { Target } from '../arrange/target';
import { holeBottom } from '../passes/holes';
import { cutsGroove } from '../passes/letters';
import { skimDepths } from '../passes/skim';
import type { Finding } from '../proof/finding';
import { FLOOR_LEAST } from '../proof/prove';
import { formatLength, trimNumber } from '../units/length';
import type { LayerFacts } from './compose-job';
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

/** How much of the board's thickness the joined layers and the skin take, mm. */
export function depthNeeded(job: Pick<Job, 'seat'>, s: Pick<SurfaceFacts, 'peak' | 'low'>): number {
  return job.seat.skin + seatedDepth(job.seat, s);
}

/** What can be said of a job before anything is cut: does it fit, does it leave enough, what of the relief is lost. */
export function geometryFindings(
  job: Job,
  target: Target,
  trenches: number[],
  composite: SurfaceFacts,
  layers: LayerFacts[],
): Finding[] {
  const out: Finding[] = [];
  const { board, seat } = job;
  const add = (
    rule: Finding['rule'],
    severity: Finding['severity'],
    message: string,
    remedy: string,
    x = board.x / 2,
    y = board.y / 2,
  ) => out.push({ rule, severity, message, remedy, x, y });
  const depth = depthNeeded(job, composite);
  if (depth > board.thickness) {
    const what =
      seat.mode === 'sunk' ? `a depth of ${mm(seatedDepth(seat, composite))}` : `a height of ${mm(composite.peak)}`;
    add(
      'thickness',
      'error',
      `${what} and skin ${mm(seat.skin)} need ${mm(depth)}, the board is ${mm(board.thickness)} thick`,
      `bring the layers down to ${mm(Math.max(0, board.thickness - seat.skin - FLOOR_LEAST))} together (fit to depth does it) or take a thicker board`,
      composite.peakAt.x,
      composite.peakAt.y,
    );
  }
  for (const l of job.layers) {
    if (l.hidden) continue;
    const b = boundsOf(l);
    const [cx, cy] = [(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2];
    const over = [
      { beyond: -b.x0, x: 0, y: cy },
      { beyond: b.x1 - board.x, x: board.x, y: cy },
      { beyond: -b.y0, x: cx, y: 0 },
      { beyond: b.y1 - board.y, x: cx, y: board.y },
    ].sort((p, q) => q.beyond - p.beyond)[0];
    if (over.beyond <= 0.01) continue;
    add(
      'outside-board',
      'error',
      `${l.name} of ${mm(l.size.x)} x ${mm(l.size.y)} reaches ${mm(over.beyond)} beyond the board`,
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
      job.layers.length === 0
        ? 'there is no layer yet, so there is nothing to cut'
        : 'no layer lies on the board: there is nothing to cut',
      job.layers.length === 0 ? 'add a relief, a shape or words' : 'move one onto the board, or show it',
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
  if (composite.clipped.cells > 0) {
    const { cells, most, x, y } = composite.clipped;
    const area = cells * target.field.cell ** 2;
    add(
      'base',
      'warning',
      seat.mode === 'sunk'
        ? `${trimNumber(area, 1)} mm² stand up to ${mm(most)} over the board's own top and are cut off there`
        : `${trimNumber(area, 1)} mm² lie up to ${mm(most)} below the base plane and are lost`,
      seat.mode === 'sunk' ? 'lower the layer, or raise the skin' : 'raise the layer there, or carve less deep',
      x,
      y,
    );
  }
  for (const f of layers) {
    const l = job.layers.find((o) => o.id === f.id)!;
    const at = (message: string, remedy: string, rule: Finding['rule']) =>
      add(rule, 'note', message, remedy, l.centre.x, l.centre.y);
    if (l.source.kind === 'mesh' && l.source.base > 0.001) {
      at(
        `${trimNumber(l.source.base * 100, 1)} % of the thickness of ${l.name} lies below its base plane and is lost${f.lostPlan > 0 ? `, with ${trimNumber(f.lostPlan * 100, 1)} % of its plan` : ''}`,
        'lower the base plane to keep it',
        'base',
      );
    }
    if (f.thinCells > 0) {
      at(
        `${f.thinCells} places of ${l.name} are thinner than a cell of the grid and stand lower than they should`,
        'they are finer than the bit; a smaller cell shows them',
        'thin-feature',
      );
    }
    if (f.step > 0 && l.source.kind === 'image' && !l.source.tone.terraces) {
      at(
        `${l.name} has few levels, which make steps of ${trimNumber(l.rise * f.step, 3)} mm`,
        'smooth its steps, or take a 16-bit image',
        'image-depth',
      );
    }
    if (f.missing.length > 0) {
      at(
        `${l.name}: the font has no ${f.missing.map((c) => `"${c}"`).join(', ')}`,
        'choose another font or other letters',
        'missing-letters',
      );
    }
  }
  for (const l of job.layers) {
    if (l.hidden || (l.source.kind !== 'words' && l.source.kind !== 'shape') || l.source.relief.kind !== 'vee')
      continue;
    const { angle } = l.source.relief;
    const say = (message: string, remedy: string) => add('groove', 'warning', message, remedy, l.centre.x, l.centre.y);
    if (!isGroove(l)) say(`${l.name} is shaped as a V groove but not carved in`, 'let it carve into what lies beneath');
    else if (!job.passes.some((p) => p.kind === 'letter' && cutsGroove(cutterOf(job, p), { angle })))
      say(
        `${l.name} is shaped for a V bit of ${trimNumber(angle, 1)} degrees, and no pass cuts letters with one`,
        'add a pass for letters with that bit, or shape them for a bit that you have',
      );
  }
  for (const p of job.passes) {
    if (p.kind === 'hole' && -holeBottom(p, board.thickness) >= board.thickness && !board.spoilboard)
      add(
        'floor',
        'error',
        'holes go through the board to the bed: there is no spoilboard',
        'lay a spoilboard under the board and say so on the board card, or make the holes less deep',
        p.places[0].x,
        p.places[0].y,
      );
    if (p.kind !== 'skim') continue;
    const { thin, skims } = skimDepths(p, board.thickness);
    if (thin)
      add(
        'thickness',
        'error',
        `the board is only ${mm(thin.thickness)} thick here, ${mm(board.thickness - thin.thickness)} less than the skim is to leave`,
        `set the board's thickness to ${mm(thin.thickness)} or less`,
        thin.x,
        thin.y,
      );
    else if (skims === 0)
      add(
        'nothing-to-cut',
        'warning',
        'the skim takes nothing: the board is as thin as it is to be',
        'remove the pass',
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
