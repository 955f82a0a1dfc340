import { rasterOf } from '../core/arrange/kinds/mesh/piece';
import { type Picture, shade } from '../core/arrange/picture';
import { MASK } from '../core/arrange/target';
import type { Source, SourceInfo } from '../core/sources/inspect';

const PIXELS = 240;

/** A relief seen from above with nothing around it, small: meshes as proposed on import, images as heights. */
export function assetPicture(source: Source, info: SourceInfo): Picture {
  if (source.font) return { width: 1, height: 1, data: new Uint8ClampedArray(4) };
  let raster: { width: number; height: number; data: Float32Array };
  if (source.mesh) {
    const s = {
      kind: 'mesh',
      file: 'f',
      hash: '',
      unit: info.unit,
      turns: info.turns,
      flip: info.mirror,
      base: info.base,
    } as const;
    raster = rasterOf(source.mesh, s, PIXELS);
  } else {
    const { width, height, values } = source.image!;
    const k = Math.max(width, height) / PIXELS;
    raster = {
      width: Math.max(1, Math.round(width / k)),
      height: Math.max(1, Math.round(height / k)),
      data: new Float32Array(),
    };
    raster.data = new Float32Array(raster.width * raster.height);
    for (let j = 0; j < raster.height; j++) {
      const y = Math.min(height - 1, Math.floor(((raster.height - 1 - j + 0.5) / raster.height) * height));
      for (let i = 0; i < raster.width; i++) {
        const v = values[y * width + Math.min(width - 1, Math.floor(((i + 0.5) / raster.width) * width))];
        raster.data[j * raster.width + i] = v > 1e-6 ? v : -1;
      }
    }
  }
  const { width, height, data } = raster;
  const mask = new Uint8Array(data.length);
  const heights = new Float32Array(data.length);
  // As high as a twelfth of its width: enough for the light to show its form.
  const rise = PIXELS / 12;
  for (let k = 0; k < data.length; k++) {
    mask[k] = data[k] < 0 ? MASK.waste : MASK.cut;
    heights[k] = data[k] < 0 ? -rise : (data[k] - 1) * rise;
  }
  const grid = { width, height, cell: 1, originX: 0.5, originY: 0.5 };
  const picture = shade({ grid, heights, mask, paper: [0, 0, 0], hatch: [0, 0, 0] });
  // Pictures have their north row first, grids their south row.
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++)
      if (data[(height - 1 - j) * width + i] < 0) picture.data[4 * (j * width + i) + 3] = 0;
  }
  return picture;
}
