import { AIR, type Grid, makeField } from '../field/height-field';
import type { Job, Relief } from '../plan/job';
import type { StageResult } from '../plan/stage';
import type { Source } from '../sources/inspect';
import { boxOf, orientMesh } from '../sources/orient';
import { placeRelief } from './relief';
import { buildTarget, type Target } from './target';

/** Cells along the longer side of a preview. */
const PREVIEW_CELLS = 360;

export interface ReliefPreview {
  grid: Grid;
  lostPlan: number;
}

/** A relief as oriented, on a small grid of its own: heights 0..1 over the base, AIR outside. */
export function reliefPreview(
  source: Source,
  o: Pick<Relief, 'turns' | 'mirror' | 'base'>,
): StageResult<ReliefPreview> {
  let x = source.image?.width ?? 1;
  let y = source.image?.height ?? 1;
  if (source.mesh) {
    const { min, max } = boxOf(orientMesh(source.mesh, o));
    x = max[0] - min[0];
    y = max[1] - min[1];
  }
  const k = PREVIEW_CELLS / Math.max(x, y);
  const size = { x: Math.max(1, x * k), y: Math.max(1, y * k) };
  const relief = { ...o, size, rise: 1, centre: { x: size.x / 2, y: size.y / 2 }, invert: false } as Relief;
  const placed = placeRelief(source, relief, size, 1);
  const { data, ...grid } = placed.field;
  return { meta: { grid, lostPlan: placed.lost.plan }, arrays: { data, below: placed.below } };
}

/** The job's target on a coarse grid, from a preview of its relief: good enough to look at while the plan is worked out. */
export function previewTarget(job: Job, preview: Grid, data: Float32Array, trenches: number[]): Target {
  const cell = Math.max(job.board.x, job.board.y) / 400;
  const width = Math.max(1, Math.round(job.board.x / cell));
  const height = Math.max(1, Math.round(job.board.y / cell));
  const relief = makeField({ width, height, cell, originX: cell / 2, originY: cell / 2 }, AIR);
  const { size, centre, rise, invert } = job.relief;
  for (let j = 0; j < height; j++) {
    const v = (relief.originY + j * cell - centre.y) / size.y + 0.5;
    if (v < 0 || v >= 1) continue;
    for (let i = 0; i < width; i++) {
      const u = (relief.originX + i * cell - centre.x) / size.x + 0.5;
      if (u < 0 || u >= 1) continue;
      const h = data[Math.floor(v * preview.height) * preview.width + Math.floor(u * preview.width)];
      if (h !== AIR) relief.data[j * width + i] = rise * (invert ? 1 - h : h);
    }
  }
  return buildTarget({
    relief,
    kind: job.relief.kind,
    mode: job.seat.mode,
    rise,
    skin: job.seat.skin,
    areas: job.passes.map((p, i) => ({ area: p.area, trench: trenches[i] })),
  });
}
