import type { Grid } from '../field/height-field';
import { fromLight, toLight } from '../units/light';
import { MASK } from './target';

export type Rgb = [number, number, number];

/** sRGB bytes to OKLab (Ottosson 2020), where even steps look even. */
export function toLab([r, g, b]: Rgb): Rgb {
  const [R, G, B] = [toLight(r / 255), toLight(g / 255), toLight(b / 255)];
  const l = Math.cbrt(0.4122214708 * R + 0.5363325363 * G + 0.0514459929 * B);
  const m = Math.cbrt(0.2119034982 * R + 0.6806995451 * G + 0.1073969566 * B);
  const s = Math.cbrt(0.0883024619 * R + 0.2817188376 * G + 0.6299787005 * B);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

function fromLab([L, a, b]: Rgb): Rgb {
  const l = (L + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const m = (L - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const s = (L - 0.0894841775 * a - 1.291485548 * b) ** 3;
  const c = [
    4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
    -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
    -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s,
  ];
  return c.map((v) => Math.round(255 * Math.min(1, Math.max(0, fromLight(Math.max(0, v)))))) as Rgb;
}

/** 256 colours through the given ones, evenly in OKLab. */
export function ramp(...stops: Rgb[]): Rgb[] {
  const labs = stops.map(toLab);
  return Array.from({ length: 256 }, (_, i) => {
    const t = (i / 255) * (labs.length - 1);
    const k = Math.min(labs.length - 2, Math.floor(t));
    const f = t - k;
    return fromLab(labs[k].map((v, c) => v * (1 - f) + labs[k + 1][c] * f) as Rgb);
  });
}

/** Depth: walnut lies deep, birch at the top. */
export const DEPTH = ramp([88, 62, 38], [168, 128, 78], [240, 222, 182]);
/**
 * Deviation: plum is left over, paper is right, ochre is cut too deep. The two differ in lightness too, so that they are told apart
 * by eyes that lack one kind of cone; and so are their patterns, strokes on what is left over and dots on what is too deep.
 */
export const DEVIATION = ramp([176, 112, 0], [238, 196, 104], [255, 254, 250], [176, 144, 206], [86, 42, 122]);
/** Web: from the least that is to stand (pale) to the whole board (slate). */
export const WEB = ramp([236, 230, 208], [134, 164, 162], [34, 70, 84]);
/** Too thin, and open. */
export const THIN: Rgb = [196, 132, 20];
export const OPEN: Rgb = [120, 52, 10];

/** Share of the map's range from which deviation is marked by its pattern. */
const MARKED = 0.08;
/** How dark a pattern's ink is on its colour. */
const INK = 0.62;

/** Whether the pattern of what is left over, or of what is too deep, has ink at a pixel; both repeat every `pitch` pixels. */
export function hasInk(left: boolean, i: number, j: number, pitch: number): boolean {
  if (left) return (i + j) % pitch < Math.max(1, pitch / 6);
  const [x, y] = [(i % pitch) - pitch / 2 + 0.5, (j % pitch) - pitch / 2 + 0.5];
  return x * x + y * y <= Math.max(1, (pitch / 5) ** 2);
}
/** Half the ranges that a deviation map can have, mm. */
const RANGES = [0.2, 0.5, 1, 2, 5, 10, 20];
/** Share of the cells that differ at all which the map's range need not hold. */
const BEYOND = 0.005;

/** Half the range of a deviation map, mm: the least that holds nearly all of what differs. */
export function deviationRange(deviation: Float32Array): number {
  const over = new Uint32Array(RANGES.length);
  let differ = 0;
  for (const d of deviation) {
    if (d === 0) continue;
    differ++;
    for (let r = 0; r < RANGES.length && Math.abs(d) > RANGES[r]; r++) over[r]++;
  }
  return RANGES.find((_, r) => over[r] <= BEYOND * differ) ?? RANGES[RANGES.length - 1];
}

/** Pixels as red, green, blue, opacity, the north row first. */
export interface Picture {
  width: number;
  height: number;
  data: Uint8ClampedArray<ArrayBuffer>;
}

export interface ShadeInput {
  grid: Grid;
  heights: Float32Array;
  mask: Uint8Array;
  /** When given, it colours the picture instead of depth. */
  deviation?: Float32Array;
  /** When given, wood over each cell colours it instead: the least that is to stand, and the board's thickness, mm. */
  web?: { wood: Float32Array; least: number; thickness: number };
  /** The board's thickness, mm: what goes further down, as a hole into the spoilboard, is as deep as that; no bound where it is left out. */
  thickness?: number;
  /** How deep the darkest colour lies, mm, and half the range of deviations: of the whole board where this is a part of one; taken from the heights where left out. */
  span?: number;
  range?: number;
  /** The picture will be shown half a turn round: it is lit from its lower right, so that it is lit from the upper left then. */
  turned?: boolean;
  paper: Rgb;
  hatch: Rgb;
}

/** The colour of a cell of a web map. */
function webColour({ wood, least, thickness }: NonNullable<ShadeInput['web']>, k: number): Rgb {
  if (wood[k] <= 0) return OPEN;
  if (wood[k] < least) return THIN;
  return WEB[Math.round(255 * Math.min(1, (wood[k] - least) / Math.max(1e-6, thickness - least)))];
}

/** How deep a surface goes into a board, mm; 1 where it goes nowhere. */
export function spanOf(heights: Float32Array, thickness: number): number {
  let low = 0;
  for (let k = 0; k < heights.length; k++) if (heights[k] < low) low = heights[k];
  return low < 0 ? Math.min(-low, thickness) : 1;
}

/**
 * A picture of a surface seen from above, one pixel a cell, the north up: lit from the upper left, coloured by depth or
 * by deviation; ground that may remain as it is drawn as hatched paper.
 */
export function shade({
  grid,
  heights,
  mask,
  deviation,
  web,
  thickness = Infinity,
  span = spanOf(heights, thickness),
  range = deviation ? deviationRange(deviation) : 1,
  turned = false,
  paper,
  hatch,
}: ShadeInput): Picture {
  const { width, height, cell } = grid;
  const out = { width, height, data: new Uint8ClampedArray(width * height * 4) };
  const px = out.data;
  const side = turned ? -1 : 1;
  // As wide on a coarse grid as on a fine one.
  const pitch = Math.max(4, Math.round(Math.max(width, height) / 84));
  const stroke = Math.max(1, Math.round(pitch / 6));
  for (let j = 0; j < height; j++) {
    const n = j + 1 < height ? width : 0;
    const s = j > 0 ? -width : 0;
    for (let i = 0; i < width; i++) {
      const k = j * width + i;
      const o = ((height - 1 - j) * width + i) * 4;
      const e = i + 1 < width ? 1 : 0;
      const w = i > 0 ? -1 : 0;
      const gx = (heights[k + e] - heights[k + w]) / (2 * cell);
      const gy = (heights[k + n] - heights[k + s]) / (2 * cell);
      const inv = 1 / Math.sqrt(1 + gx * gx + gy * gy);
      const light = Math.max(0, (side * (0.5 * gx - 0.55 * gy) + 0.67) * inv);
      let c: Rgb;
      let lit = 0.5 + 0.75 * light;
      if (web) {
        c = webColour(web, k);
        lit = 0.8 + 0.3 * light;
        if (web.wood[k] < web.least && hasInk(false, i, height - 1 - j, pitch)) lit *= INK;
      } else if (mask[k] === MASK.waste) {
        const line = (i + (height - 1 - j)) % pitch < stroke;
        c = line ? hatch : paper;
        lit = 0.82 + 0.27 * light;
      } else if (deviation) {
        const t = (deviation[k] / range + 1) / 2;
        c = DEVIATION[Math.round(255 * Math.min(1, Math.max(0, t)))];
        lit = 0.75 + 0.37 * light;
        if (Math.abs(deviation[k]) > MARKED * range && hasInk(deviation[k] > 0, i, height - 1 - j, pitch)) lit *= INK;
      } else c = DEPTH[Math.round(255 * Math.min(1, Math.max(0, (heights[k] + span) / span)))];
      px[o] = Math.min(255, c[0] * lit);
      px[o + 1] = Math.min(255, c[1] * lit);
      px[o + 2] = Math.min(255, c[2] * lit);
      px[o + 3] = 255;
    }
  }
  return out;
}

/** Madder over the cells of a mask, clear elsewhere, the north up. */
export function tint(grid: Grid, mask: Uint8Array): Picture {
  const out = { width: grid.width, height: grid.height, data: new Uint8ClampedArray(grid.width * grid.height * 4) };
  for (let k = 0; k < mask.length; k++) {
    if (!mask[k]) continue;
    const o = ((grid.height - 1 - Math.floor(k / grid.width)) * grid.width + (k % grid.width)) * 4;
    out.data.set([168, 67, 31, 150], o);
  }
  return out;
}
