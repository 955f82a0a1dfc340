import sharp from 'sharp';
import { expect, test } from 'vitest';
import { boardGrid } from '../field/height-field';
import { fieldToPng, parseHeightImage } from './height-image';

// PNG written by another library (sharp) and read by ours, and the other way round.
const W = 7;
const H = 5;
const values16 = Uint16Array.from({ length: W * H }, (_, i) => (i * 1873) % 65536);

test('a 16-bit PNG of another library is read to the last level', async () => {
  const png = await sharp(values16, { raw: { width: W, height: H, channels: 1 } })
    .toColourspace('grey16')
    .png()
    .toBuffer();
  const image = parseHeightImage(png, 'a.png');
  expect(image.depth).toBe(16);
  expect(Array.from(image.values, (v) => Math.round(v * 65535))).toEqual(Array.from(values16));
});

test('8-bit gray, colour and transparency', async () => {
  const gray = await sharp(
    Uint8Array.from({ length: W * H }, (_, i) => i * 7),
    { raw: { width: W, height: H, channels: 1 } },
  )
    .png()
    .toBuffer();
  const image = parseHeightImage(gray, 'a.png');
  expect(image.depth).toBe(8);
  expect(Array.from(image.values, (v) => Math.round(v * 255))).toEqual(Array.from({ length: W * H }, (_, i) => i * 7));
  const rgba = await sharp({
    create: { width: 2, height: 1, channels: 4, background: { r: 255, g: 255, b: 255, alpha: 0 } },
  })
    .composite([{ input: Buffer.from([255, 0, 0, 255]), raw: { width: 1, height: 1, channels: 4 }, left: 0, top: 0 }])
    .png({ palette: false })
    .toBuffer();
  const mixed = parseHeightImage(rgba, 'b.png');
  // Pure red: 0.2126 of the light (Rec. 709), coded again by sRGB's curve (IEC 61966-2-1): 1.055 * 0.2126^(1/2.4) - 0.055.
  expect(mixed.values[0]).toBeCloseTo(1.055 * 0.2126 ** (1 / 2.4) - 0.055, 5);
  expect(mixed.values[1]).toBe(0);
});

test('our 16-bit PNG is read by another library, the north row first', async () => {
  const f = { ...boardGrid(3, 2, 1), data: Float32Array.from([0, -1, -2, -3, -4, -10]) };
  const png = fieldToPng(f, -10, 0);
  const { data, info } = await sharp(png)
    .toColourspace('grey16')
    .raw({ depth: 'ushort' })
    .toBuffer({ resolveWithObject: true });
  const px = new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
  expect([info.width, info.height]).toEqual([3, 2]);
  expect(Array.from(px).filter((_, i) => i % info.channels === 0)).toEqual(
    [-3, -4, -10, 0, -1, -2].map((z) => Math.round(((z + 10) / 10) * 65535)),
  );
});

test('an image of 60000 x 60000 pixels is refused before it is unpacked', async () => {
  const png = new Uint8Array(
    await sharp(values16, { raw: { width: W, height: H, channels: 1 } })
      .png()
      .toBuffer(),
  );
  new DataView(png.buffer, png.byteOffset).setUint32(16, 60000);
  new DataView(png.buffer, png.byteOffset).setUint32(20, 60000);
  expect(() => parseHeightImage(png, 'big.png')).toThrow('big.png: declares 60000 x 60000 pixels');
});

test('a cut-off file and an image without relief are refused with the reason', async () => {
  const png = new Uint8Array(
    await sharp(values16, { raw: { width: W, height: H, channels: 1 } })
      .png()
      .toBuffer(),
  );
  expect(() => parseHeightImage(png.subarray(0, png.length - 30), 'cut.png')).toThrow(/^cut\.png: is cut short/);
  expect(() => parseHeightImage(png.subarray(0, 20), 'cut.png')).toThrow(/too short/);
  const flat = new Uint8Array(
    await sharp({ create: { width: 4, height: 4, channels: 3, background: '#808080' } })
      .png()
      .toBuffer(),
  );
  expect(() => parseHeightImage(flat, 'flat.png')).toThrow(/no relief/);
});
