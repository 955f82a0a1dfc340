import sharp from 'sharp';
import type { Drawing } from '../core/sources/drawing';
import { readDxf } from '../core/sources/dxf';
import { type HeightImage, parseHeightImage } from '../core/sources/height-image';
import type { Source } from '../core/sources/inspect';
import { knownAs } from '../core/sources/known-files';
import { readFont } from '../core/sources/lettering';
import { isPng, soundPng } from '../core/sources/png-chunks';
import { readMesh } from '../core/sources/read-mesh';
import { MAX_PIXELS, SourceError, WORK_PIXELS } from '../core/sources/source-error';
import { readSvg } from '../core/sources/svg';
import { grayOfLight, toLight } from '../core/units/light';

const starts = (bytes: Uint8Array, ...head: number[]) => head.every((b, i) => bytes[i] === b);
const ascii = (bytes: Uint8Array, at: number, n: number) => String.fromCharCode(...bytes.subarray(at, at + n));

function isFont(b: Uint8Array): boolean {
  return starts(b, 0, 1, 0, 0) || ['OTTO', 'true', 'wOFF', 'wOF2', 'ttcf'].includes(ascii(b, 0, 4));
}

function isPicture(b: Uint8Array): boolean {
  return (
    isPng(b) ||
    starts(b, 0xff, 0xd8, 0xff) ||
    ['II*\0', 'MM\0*', 'II+\0', 'MM\0+', 'GIF8'].includes(ascii(b, 0, 4)) ||
    (ascii(b, 0, 4) === 'RIFF' && ascii(b, 8, 4) === 'WEBP')
  );
}

/** Light of the 256 codes of an 8-bit channel. */
const LIGHT = Float32Array.from({ length: 256 }, (_, i) => toLight(i / 255));

/** Gray 0..1 of raw pixels by luminance; transparency counts as black. */
function grayOf(data: Uint8Array | Uint16Array | Float32Array, n: number, channels: number, top: number): Float32Array {
  const out = new Float32Array(n);
  const light = top === 255 ? (v: number) => LIGHT[v] : (v: number) => toLight(v / top);
  for (let i = 0, k = 0; i < n; i++, k += channels) {
    let gray = data[k] / top;
    if (channels >= 3 && !(data[k] === data[k + 1] && data[k + 1] === data[k + 2]))
      gray = grayOfLight(light(data[k]), light(data[k + 1]), light(data[k + 2]));
    if (channels === 2 || channels === 4) gray *= data[k + channels - 1] / top;
    out[i] = gray;
  }
  return out;
}

/** How the samples of a decoded picture lie in memory. */
interface Samples {
  n: number;
  channels: number;
  float: boolean;
  deep: boolean;
}

/** Samples of a decoded picture as heights of 0 to 1; floating-point ones are brought to their own range. */
function valuesOf(data: Buffer, { n, channels, float, deep }: Samples, notes: string[]): Float32Array {
  if (!float) {
    const view = deep ? new Uint16Array(data.buffer, data.byteOffset, n * channels) : data;
    return grayOf(view, n, channels, deep ? 65535 : 255);
  }
  const f = new Float32Array(data.buffer, data.byteOffset, n * channels);
  const values = new Float32Array(n);
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < n; i++) {
    const v = f[i * channels];
    if (!Number.isFinite(v)) continue;
    low = Math.min(low, v);
    high = Math.max(high, v);
  }
  for (let i = 0; i < n; i++) {
    const v = f[i * channels];
    values[i] = Number.isFinite(v) && high > low ? (v - low) / (high - low) : 0;
  }
  notes.push(`its floating-point heights run from ${low} to ${high}; brought to black and white`);
  return values;
}

/**
 * Decodes a picture of any common kind into heights, turned by its EXIF orientation and averaged down to WORK_PIXELS on its
 * longer side when it is larger.
 * @throws SourceError
 */
async function readPicture(given: Uint8Array, file: string): Promise<Source> {
  // What a PNG unpacks to is counted before any decoder sees it.
  const bytes = isPng(given) ? soundPng(given, file) : given;
  const notes: string[] = [];
  let image: HeightImage;
  try {
    const input = sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'error', pages: 1, sequentialRead: true });
    const meta = await input.metadata();
    const { width = 0, height = 0 } = meta;
    if (width * height > MAX_PIXELS)
      throw new SourceError(
        `${file}: declares ${width} x ${height} pixels, more than ${MAX_PIXELS / 1e6} million; scale the image down`,
      );
    const longer = Math.max(width, height);
    // Sixteen-bit PNGs are read by a decoder that keeps every level as it is.
    if (meta.format === 'png' && longer <= WORK_PIXELS && !meta.orientation)
      return { image: parseHeightImage(bytes, file), notes };
    if ((meta.pages ?? 1) > 1) notes.push(`has ${meta.pages} frames or pages; the first is used`);
    if (meta.space === 'cmyk') notes.push('is in print colours (CMYK); brought to gray');
    if (meta.orientation && meta.orientation > 1) notes.push(`turned as its EXIF orientation ${meta.orientation} says`);
    let work = input.autoOrient();
    if (longer > WORK_PIXELS) {
      work = work.resize({ width: WORK_PIXELS, height: WORK_PIXELS, fit: 'inside' });
      notes.push(
        `has ${((width * height) / 1e6).toFixed(1)} million pixels; averaged down to ${WORK_PIXELS} on its longer side`,
      );
    }
    const float = meta.depth === 'float' || meta.depth === 'double';
    const deep = float || meta.depth === 'ushort' || meta.depth === 'short';
    const colour = (meta.channels ?? 1) >= 3;
    if (!float) work = work.toColourspace(deep ? (colour ? 'rgb16' : 'grey16') : colour ? 'srgb' : 'b-w');
    const { data, info } = await work
      .raw({ depth: float ? 'float' : deep ? 'ushort' : 'uchar' })
      .toBuffer({ resolveWithObject: true });
    const values = valuesOf(data, { n: info.width * info.height, channels: info.channels, float, deep }, notes);
    image = { width: info.width, height: info.height, values, depth: deep ? 16 : 8 };
  } catch (e) {
    if (e instanceof SourceError) throw e;
    if (/exceeds pixel limit/i.test((e as Error).message))
      throw new SourceError(`${file}: has more than ${MAX_PIXELS / 1e6} million pixels; scale the image down`);
    throw new SourceError(`${file}: is an image that is damaged or cut short; fetch or export it again`);
  }
  let flat = true;
  for (let k = 1; k < image.values.length && flat; k++) flat = image.values[k] === image.values[0];
  if (flat)
    throw new SourceError(`${file}: every pixel has the same gray, so there is no relief in it; choose a height image`);
  return { image, notes };
}

/** Largest drawing that is read, bytes. */
const MAX_DRAWING = 30e6;

function textOf(bytes: Uint8Array, file: string): string {
  if (bytes.length > MAX_DRAWING)
    throw new SourceError(
      `${file}: has ${(bytes.length / 1e6).toFixed(0)} MB, more than ${MAX_DRAWING / 1e6} for a drawing; leave some out`,
    );
  return new TextDecoder().decode(bytes);
}

const fromDrawing = ({ drawing, notes }: { drawing: Drawing; notes: string[] }): Source => ({ drawing, notes });

/** Reads a file by its content, whatever its name: a mesh, an image, a font or a drawing. @throws SourceError naming the file */
export async function readSource(bytes: Uint8Array, file: string): Promise<Source> {
  if (bytes.length === 0) throw new SourceError(`${file}: is empty (0 bytes); choose the file again`);
  if (isPicture(bytes)) return readPicture(bytes, file);
  const other = knownAs(bytes);
  if (other) throw new SourceError(`${file}: ${other}`);
  if (isFont(bytes)) return { font: readFont(bytes, file), notes: [] };
  const head = ascii(bytes, 0, Math.min(bytes.length, 2000));
  if (/<svg[\s>]/.test(head)) return fromDrawing(readSvg(textOf(bytes, file), file));
  if (/^\s*(999[\s\S]*?)?0\s+SECTION/.test(head)) return fromDrawing(readDxf(textOf(bytes, file), file));
  return readMesh(bytes, file);
}
