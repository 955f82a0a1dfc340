import { Unzlib } from 'fflate';
import { MAX_PIXELS, SourceError } from './source-error';

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

/** Chunks that a relief is read from, and its orientation; texts, colour profiles and the rest are left out, whatever they hold. */
const WANTED = new Set(['IHDR', 'PLTE', 'tRNS', 'IDAT', 'IEND', 'eXIf']);

/** Largest orientation chunk that is looked at, bytes. */
const MOST_EXIF = 65_536;

/** Packed bytes that are handed over at once: a thousand times as many may come out of them, so that small pictures take small pieces. */
const piece = (wanted: number) => Math.max(512, Math.min(1 << 16, wanted >> 8));

export function isPng(bytes: Uint8Array): boolean {
  return bytes.length >= 8 && SIGNATURE.every((b, i) => bytes[i] === b);
}

interface Head {
  width: number;
  height: number;
  bits: number;
  interlaced: boolean;
}

/** Samples a pixel of each colour type (PNG specification, third edition, 11.2.1). */
const SAMPLES: Record<number, number> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };

/** Adam7: where each pass begins, and its steps (PNG specification, 8.1). */
const PASSES = [
  [0, 0, 8, 8],
  [4, 0, 8, 8],
  [0, 4, 4, 8],
  [2, 0, 4, 4],
  [0, 2, 2, 4],
  [1, 0, 2, 2],
  [0, 1, 1, 2],
];

/** Bytes of all rows of a picture, each with its filter byte. */
function unpackedBytes({ width, height, bits, interlaced }: Head): number {
  const rows = (w: number, h: number) => (w > 0 && h > 0 ? h * (1 + Math.ceil((w * bits) / 8)) : 0);
  if (!interlaced) return rows(width, height);
  return PASSES.reduce((n, [x, y, dx, dy]) => n + rows(Math.ceil((width - x) / dx), Math.ceil((height - y) / dy)), 0);
}

function headOf(data: Uint8Array, file: string): Head {
  const view = new DataView(data.buffer, data.byteOffset, data.byteLength);
  const [width, height] = [view.getUint32(0), view.getUint32(4)];
  const samples = SAMPLES[data[9]];
  if (samples === undefined || width === 0 || height === 0)
    throw new SourceError(`${file}: declares ${width} x ${height} pixels of kind ${data[9]}; export it again`);
  if (width * height > MAX_PIXELS)
    throw new SourceError(
      `${file}: declares ${width} x ${height} pixels, more than ${MAX_PIXELS / 1e6} million; scale the image down`,
    );
  return { width, height, bits: samples * data[8], interlaced: data[12] === 1 };
}

/** @throws SourceError when the picture's data unpack to less or more than its rows need; no more than that is unpacked */
function checkData(parts: Uint8Array[], wanted: number, file: string): void {
  let got = 0;
  let ended = false;
  const size = piece(wanted);
  const inflate = new Unzlib((data, final) => {
    got += data.length;
    ended ||= final;
  });
  try {
    for (const [n, part] of parts.entries())
      for (let at = 0; at < part.length && got <= wanted; at += size)
        inflate.push(part.subarray(at, at + size), n === parts.length - 1 && at + size >= part.length);
  } catch {
    // What was unpacked until then is judged below.
  }
  if (got > wanted)
    throw new SourceError(
      `${file}: unpacks to more than the ${wanted} bytes that its pixels need; it is damaged or made to do harm, get it from elsewhere`,
    );
  if (!ended || got < wanted)
    throw new SourceError(
      `${file}: is cut short or damaged: ${Math.round((100 * got) / wanted)} % of its pixels can be read; export it again`,
    );
}

/**
 * The chunks of a PNG that a relief is read from, put together anew, once its size is known to be bearable and its data to be as many
 * as its pixels need. Memory: the file's own size, and one piece of what it unpacks to.
 * @throws SourceError that says whether it is too short, cut short, damaged, too large or unpacks to too much
 */
export function soundPng(bytes: Uint8Array, file: string): Uint8Array<ArrayBuffer> {
  if (bytes.length < 33)
    throw new SourceError(`${file}: is ${bytes.length} bytes long, too short for a PNG; choose it again`);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kept: Uint8Array[] = [bytes.subarray(0, 8)];
  const data: Uint8Array[] = [];
  let head: Head | null = null;
  let ended = false;
  for (let at = 8; at + 12 <= bytes.length && !ended; ) {
    const length = view.getUint32(at);
    const type = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    const end = at + 12 + length;
    if (end > bytes.length) break;
    const content = bytes.subarray(at + 8, at + 8 + length);
    if (type === 'IHDR' && length === 13) head ??= headOf(content, file);
    if (type === 'IDAT') data.push(content);
    ended = type === 'IEND';
    if (WANTED.has(type) && !(type === 'eXIf' && length > MOST_EXIF)) kept.push(bytes.subarray(at, end));
    at = end;
  }
  if (!head) throw new SourceError(`${file}: begins like a PNG but says nothing of its size; export it again`);
  checkData(data, unpackedBytes(head), file);
  if (!ended) throw new SourceError(`${file}: is cut short: it has no end; fetch or export it again`);
  const out = new Uint8Array(kept.reduce((n, k) => n + k.length, 0));
  let at = 0;
  for (const k of kept) {
    out.set(k, at);
    at += k.length;
  }
  return out;
}
