import sharp, { type Sharp } from 'sharp';
import { expect, test } from 'vitest';
import { SourceError, WORK_PIXELS } from '../core/sources/source-error';
import { readSource } from './read-source';

/** A picture of colours, as raw bytes. */
function raw(width: number, height: number, channels: 1 | 3 | 4, at: (x: number, y: number) => number[]) {
  const data = Buffer.alloc(width * height * channels);
  for (let k = 0; k < width * height; k++) Buffer.from(at(k % width, Math.floor(k / width))).copy(data, k * channels);
  return sharp(data, { raw: { width, height, channels } });
}

async function read(bytes: Uint8Array, file: string) {
  const { image, notes } = await readSource(bytes, file);
  return { image: image!, notes };
}

test('colour becomes luminance by the weights of Rec. 709 on light (IEC 61966-2-1)', async () => {
  const colours = [
    [255, 0, 0],
    [0, 255, 0],
    [0, 0, 255],
    [255, 255, 255],
    [128, 128, 128],
    [200, 100, 50],
  ];
  const bytes = await raw(6, 1, 3, (x) => colours[x])
    .png()
    .toBuffer();
  const { image } = await read(bytes, 'c.png');
  // Worked by hand from the standard: 0.2126, 0.7152, 0.0722 of full light, coded again.
  const coded = (v: number) => 1.055 * v ** (1 / 2.4) - 0.055;
  expect(image.values[0]).toBeCloseTo(coded(0.2126), 3);
  expect(image.values[1]).toBeCloseTo(coded(0.7152), 3);
  expect(image.values[2]).toBeCloseTo(coded(0.0722), 3);
  expect(image.values[3]).toBeCloseTo(1, 5);
  expect(image.values[4]).toBeCloseTo(128 / 255, 5);
  const light = (v: number) => ((v / 255 + 0.055) / 1.055) ** 2.4;
  expect(image.values[5]).toBeCloseTo(coded(0.2126 * light(200) + 0.7152 * light(100) + 0.0722 * light(50)), 3);
});

test('every EXIF orientation brings the same picture upright (Exif 2.3, tag 0x0112)', async () => {
  // Upright: the darkest corner at the upper left, a light bar along the top right.
  const [w, h] = [24, 16];
  const upright = (x: number, y: number) => (x < 8 && y < 8 ? 20 : x >= 16 && y < 8 ? 240 : x < 8 ? 90 : 150);
  // How the stored picture shows the upright one, by the standard's table: where row 0 and column 0 lie.
  const stored: Record<number, { w: number; h: number; at(x: number, y: number): number }> = {
    1: { w, h, at: (x, y) => upright(x, y) },
    2: { w, h, at: (x, y) => upright(w - 1 - x, y) },
    3: { w, h, at: (x, y) => upright(w - 1 - x, h - 1 - y) },
    4: { w, h, at: (x, y) => upright(x, h - 1 - y) },
    5: { w: h, h: w, at: (x, y) => upright(y, x) },
    6: { w: h, h: w, at: (x, y) => upright(w - 1 - y, x) },
    7: { w: h, h: w, at: (x, y) => upright(w - 1 - y, h - 1 - x) },
    8: { w: h, h: w, at: (x, y) => upright(y, h - 1 - x) },
  };
  for (const [n, s] of Object.entries(stored)) {
    const bytes = await raw(s.w, s.h, 3, (x, y) => [s.at(x, y), s.at(x, y), s.at(x, y)])
      .withMetadata({ orientation: Number(n) })
      .jpeg({ quality: 100, chromaSubsampling: '4:4:4' })
      .toBuffer();
    const { image, notes } = await read(bytes, `o${n}.jpg`);
    expect([image.width, image.height], n).toEqual([w, h]);
    for (const [x, y] of [
      [3, 3],
      [20, 3],
      [3, 12],
      [20, 12],
    ])
      expect(Math.abs(image.values[y * w + x] * 255 - upright(x, y)), n).toBeLessThan(6);
    expect(notes.join().includes('orientation')).toBe(Number(n) > 1);
  }
});

test('16 bit comes through whole, from PNG and from TIFF, whatever its packing', async () => {
  const levels = Uint16Array.from({ length: 4096 }, (_, k) => k * 16 + (k % 7));
  for (const write of [
    (s: Sharp) => s.png(),
    (s: Sharp) => s.tiff({ compression: 'none' }),
    (s: Sharp) => s.tiff({ compression: 'deflate', predictor: 'horizontal' }),
    (s: Sharp) => s.tiff({ compression: 'lzw', bigtiff: true }),
  ]) {
    const bytes = await write(
      sharp(levels, { raw: { width: 64, height: 64, channels: 1 } }).toColourspace('grey16'),
    ).toBuffer();
    const { image } = await read(bytes, 'heights');
    expect(image.depth).toBe(16);
    for (let k = 0; k < 4096; k++) expect(Math.round(image.values[k] * 65535)).toBe(levels[k]);
  }
});

/** A TIFF of one strip of 32-bit floats, by the baseline of TIFF 6.0 and its SampleFormat tag. */
function floatTiff(width: number, height: number, values: Float32Array): Uint8Array {
  const tags: [number, 3 | 4, number][] = [
    [256, 4, width],
    [257, 4, height],
    [258, 3, 32],
    [259, 3, 1],
    [262, 3, 1],
    [273, 4, 8],
    [277, 3, 1],
    [278, 4, height],
    [279, 4, values.byteLength],
    [339, 3, 3],
  ];
  const at = 8 + values.byteLength;
  const bytes = new Uint8Array(at + 6 + 12 * tags.length);
  const view = new DataView(bytes.buffer);
  bytes.set([0x49, 0x49, 42, 0]);
  view.setUint32(4, at, true);
  bytes.set(new Uint8Array(values.buffer), 8);
  view.setUint16(at, tags.length, true);
  tags.forEach(([tag, type, value], i) => {
    view.setUint16(at + 2 + 12 * i, tag, true);
    view.setUint16(at + 4 + 12 * i, type, true);
    view.setUint32(at + 6 + 12 * i, 1, true);
    view.setUint32(at + 10 + 12 * i, value, true);
  });
  return bytes;
}

test('floating-point heights are brought to black and white, and their range is said', async () => {
  const f = Float32Array.from({ length: 400 }, (_, k) => -3 + (k % 20) * 0.5);
  const bytes = floatTiff(20, 20, f);
  expect((await sharp(bytes).metadata()).depth).toBe('float');
  const { image, notes } = await read(bytes, 'f.tif');
  expect(image.values[0]).toBe(0);
  expect(image.values[19]).toBe(1);
  expect(notes.join()).toContain('run from -3 to 6.5');
});

test('palette, gray with transparency, WebP and CMYK pictures are read, with a note where it matters', async () => {
  const wedge = (x: number) => Math.round((x / 63) * 255);
  const colour = raw(64, 16, 3, (x) => [wedge(x), wedge(x), wedge(x)]);
  const palette = await read(await colour.clone().png({ palette: true, colours: 64 }).toBuffer(), 'p.png');
  expect(Math.abs(palette.image.values[40] - 40 / 63)).toBeLessThan(0.02);
  const webp = await read(await colour.clone().webp({ lossless: true }).toBuffer(), 'w.webp');
  expect(Math.abs(webp.image.values[40] - 40 / 63)).toBeLessThan(0.01);
  const cmyk = await read(await colour.clone().toColourspace('cmyk').jpeg({ quality: 100 }).toBuffer(), 'c.jpg');
  expect(cmyk.notes).toContain('is in print colours (CMYK); brought to gray');
  expect(cmyk.image.values[60]).toBeGreaterThan(cmyk.image.values[10] + 0.4);
  // What is transparent counts as black.
  const half = await raw(64, 16, 4, (x) => [200, 200, 200, x < 32 ? 0 : 255])
    .png()
    .toBuffer();
  const alpha = await read(half, 'a.png');
  expect(alpha.image.values[5]).toBe(0);
  expect(alpha.image.values[50]).toBeCloseTo(200 / 255, 2);
});

test('of an animated picture the first frame is used, and said', async () => {
  const frames = [40, 120, 200].map((v) =>
    raw(20, 20, 3, (x) => [v, v, x < 10 ? v : 0])
      .png()
      .toBuffer(),
  );
  const gif = await sharp(await Promise.all(frames), { join: { animated: true } })
    .gif()
    .toBuffer();
  const { image, notes } = await read(gif, 'a.gif');
  expect([image.width, image.height]).toEqual([20, 20]);
  expect(notes.join()).toContain('has 3 frames or pages; the first is used');
  expect(Math.abs(image.values[2] * 255 - 40)).toBeLessThan(12);
});

test('a large picture is averaged down, in bounds; a larger one than is taken is refused by its size', async () => {
  const bytes = await sharp({ create: { width: 6200, height: 400, channels: 3, background: '#222' } })
    .composite([
      {
        input: await raw(3000, 400, 3, () => [255, 255, 255])
          .png()
          .toBuffer(),
        left: 0,
        top: 0,
      },
    ])
    .png()
    .toBuffer();
  const { image, notes } = await read(bytes, 'large.png');
  expect(image.width).toBe(WORK_PIXELS);
  expect(notes.join()).toContain('averaged down to 3072');
  const huge = await sharp({ create: { width: 12_000, height: 9000, channels: 3, background: '#333' } })
    .png()
    .toBuffer();
  await expect(readSource(huge, 'huge.png')).rejects.toThrow('huge.png: ');
  await expect(readSource(huge, 'huge.png')).rejects.toThrow('100 million');
});

test('broken, cut, empty and even pictures are refused by name with a remedy', async () => {
  const good = await raw(64, 64, 3, (x, y) => [x * 4, y * 4, 0])
    .jpeg()
    .toBuffer();
  await expect(readSource(good.subarray(0, good.length >> 1), 'cut.jpg')).rejects.toThrow(
    'cut.jpg: is an image that is damaged or cut short',
  );
  await expect(readSource(new Uint8Array(0), 'none.png')).rejects.toThrow('none.png: is empty (0 bytes)');
  const even = await raw(8, 8, 3, () => [9, 9, 9])
    .webp({ lossless: true })
    .toBuffer();
  await expect(readSource(even, 'even.webp')).rejects.toThrow('even.webp: every pixel has the same gray');
  const tiff = Buffer.from('II*\0garbage that is no directory of tags');
  await expect(readSource(tiff, 'bad.tif')).rejects.toThrow(SourceError);
});
