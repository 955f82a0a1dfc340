import { decode, encode } from 'fast-png';
import type { HeightField } from '../field/height-field';
import { luminance } from '../units/light';
import { soundPng } from './png-chunks';
import { SourceError } from './source-error';

/** A grayscale image as heights from 0 (black) to 1 (white), row 0 at the top as in the file. */
export interface HeightImage {
  width: number;
  height: number;
  values: Float32Array;
  /** Bits a sample in the file. */
  depth: 8 | 16;
}

/**
 * Reads a PNG as heights. Colour is weighed to gray by its luminance; transparency counts as black. Nothing is unpacked beyond what the
 * declared size needs.
 * @throws SourceError
 */
export function parseHeightImage(input: Uint8Array, file: string): HeightImage {
  const bytes = soundPng(input, file);
  let png: ReturnType<typeof decode>;
  try {
    png = decode(bytes, { checkCrc: true });
  } catch {
    throw new SourceError(`${file}: is damaged: its checksums do not match its content; export it again`);
  }
  const { channels, width, height } = png;
  const palette = png.palette;
  const depth = png.depth === 16 ? 16 : 8;
  const top = palette ? 255 : 2 ** png.depth - 1;
  const values = new Float32Array(width * height);
  const packed = png.depth < 8;
  const rowBytes = Math.ceil((width * png.depth) / 8);
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < values.length; i++) {
    const k = i * channels;
    let index = png.data[k];
    if (packed) {
      const x = i % width;
      const bit = x * png.depth;
      const byte = png.data[Math.floor(i / width) * rowBytes + (bit >> 3)];
      index = (byte >> (8 - png.depth - (bit & 7))) & (2 ** png.depth - 1);
    }
    let gray: number;
    let alpha = 1;
    if (palette) {
      const c = palette[index];
      gray = 255 * luminance(c[0] / 255, c[1] / 255, c[2] / 255);
      if (c.length > 3) alpha = c[3]! / 255;
    } else if (channels >= 3) gray = top * luminance(png.data[k] / top, png.data[k + 1] / top, png.data[k + 2] / top);
    else gray = index;
    if (!palette && (channels === 2 || channels === 4)) alpha = png.data[k + channels - 1] / top;
    const v = (gray / top) * alpha;
    values[i] = v;
    if (v < low) low = v;
    if (v > high) high = v;
  }
  if (!(high > low)) {
    throw new SourceError(`${file}: every pixel has the same gray, so there is no relief in it; choose a height image`);
  }
  return { width, height, values, depth };
}

/**
 * A field as a 16-bit grayscale PNG, the northernmost row first: `low` maps to 0 and `high` to 65535, linearly.
 */
export function fieldToPng(f: HeightField, low: number, high: number): Uint8Array {
  const data = new Uint16Array(f.width * f.height);
  const scale = 65535 / (high - low);
  for (let j = 0; j < f.height; j++) {
    const from = (f.height - 1 - j) * f.width;
    for (let i = 0; i < f.width; i++) {
      data[j * f.width + i] = Math.max(0, Math.min(65535, Math.round((f.data[from + i] - low) * scale)));
    }
  }
  return encode({ width: f.width, height: f.height, data, depth: 16, channels: 1 });
}

/** A mask as an 8-bit grayscale PNG, the northernmost row first. */
export function maskToPng(width: number, height: number, mask: Uint8Array): Uint8Array {
  const data = new Uint8Array(width * height);
  for (let j = 0; j < height; j++) data.set(mask.subarray((height - 1 - j) * width, (height - j) * width), j * width);
  return encode({ width, height, data, depth: 8, channels: 1 });
}
