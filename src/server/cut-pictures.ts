import sharp from 'sharp';
import { planView } from '../contract/wire';
import { type Picture, type Rgb, shade } from '../core/arrange/picture';
import { MASK } from '../core/arrange/target';
import { unpackStage } from '../core/plan/pack';
import type { PlanView } from '../core/plan/view';
import type { PictureStore } from './picture-store';
import type { PlanSurfaces } from './plan-surfaces';
import { stageKey } from './stage-cache';

/** Strokes over ground that may remain, seen on light paper and on dark; the paper itself is the page's own. */
const HATCH: Rgb = [146, 140, 130];
const HATCHED = 110;
const QUALITY = 86;

/** The cut board from above, one pixel a cell; clear where ground may remain, but for its hatching. */
export function cutPicture({ grid, cut, mask }: Pick<PlanView, 'grid' | 'cut' | 'mask'>): Picture {
  const picture = shade({ grid, heights: cut, mask, paper: [0, 0, 0], hatch: HATCH });
  const { width, height, data } = picture;
  for (let k = 0; k < mask.length; k++) {
    if (mask[k] !== MASK.waste) continue;
    // Pictures have their north row first, grids their south row.
    const o = 4 * ((height - 1 - Math.floor(k / width)) * width + (k % width));
    data[o + 3] = data[o] > 0 ? HATCHED : 0;
  }
  return picture;
}

/** Pictures of what plans have cut, for the rack and for a job that is being opened: worked out once, and kept. */
export class CutPictures {
  constructor(
    private readonly surfaces: PlanSurfaces,
    private readonly store: PictureStore,
    private readonly planner: string,
  ) {}

  /** As WebP. @throws NotFound where the plan has no such setup, or its result is damaged */
  async of(plan: string, setup: string): Promise<Buffer> {
    const key = stageKey('cut picture', this.planner, await this.surfaces.viewSum(plan, setup));
    const kept = this.store.get(key);
    if (kept) return kept;
    const { width, height, data } = cutPicture(planView.parse(unpackStage(await this.surfaces.view(plan, setup))));
    const bytes = await sharp(data, { raw: { width, height, channels: 4 } })
      .webp({ quality: QUALITY })
      .toBuffer();
    this.store.put(key, bytes);
    return bytes;
  }
}
