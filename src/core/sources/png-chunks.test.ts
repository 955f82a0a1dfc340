import { crc32, deflateSync } from 'node:zlib';
import sharp, { type Sharp } from 'sharp';
import { expect, test } from 'vitest';
import { parseHeightImage } from './height-image';
import { soundPng } from './png-chunks';

const raw = (width: number, height: number, channels: 1 | 2 | 3 | 4) =>
  sharp(
    Uint8Array.from({ length: width * height * channels }, (_, i) => (i * 37) % 256),
    { raw: { width, height, channels } },
  );

/** A chunk with its length and checksum (PNG specification, third edition, 5.3). */
function chunk(type: string, data: Uint8Array): Buffer {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const out = Buffer.alloc(body.length + 8);
  out.writeUInt32BE(data.length, 0);
  body.copy(out, 4);
  out.writeUInt32BE(crc32(body), body.length + 4);
  return out;
}

/** A PNG made by hand: gray, eight bits, with any data and any chunks before them. */
function made(width: number, height: number, data: Uint8Array, before: Buffer[] = [], end = true): Uint8Array {
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 0, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    ...before,
    chunk('IDAT', data),
    ...(end ? [chunk('IEND', new Uint8Array(0))] : []),
  ]);
}

const rows = (width: number, height: number) =>
  Uint8Array.from({ length: height * (width + 1) }, (_, i) => (i % (width + 1) === 0 ? 0 : i % 251));

// What a general-purpose encoder writes, of every colour type, depth and order of rows, unpacks to what we reckon.
test.each([
  ['gray', (p: Sharp) => p.toColourspace('b-w').png()],
  ['gray, interlaced', (p: Sharp) => p.toColourspace('b-w').png({ progressive: true })],
  ['colour', (p: Sharp) => p.png()],
  ['colour, interlaced', (p: Sharp) => p.png({ progressive: true })],
  ['16 bits', (p: Sharp) => p.toColourspace('rgb16').png()],
  ['palette of 16', (p: Sharp) => p.png({ palette: true, colours: 16 })],
  ['palette of 2, interlaced', (p: Sharp) => p.png({ palette: true, colours: 2, progressive: true })],
  ['with transparency', (p: Sharp) => p.ensureAlpha(0.5).png()],
])('a sound PNG passes: %s', async (_, write) => {
  for (const [w, h] of [
    [1, 1],
    [7, 5],
    [33, 18],
  ]) {
    const png = new Uint8Array(await write(raw(w, h, 3)).toBuffer());
    const kept = soundPng(png, 'a.png');
    const theirs = await sharp(kept).raw().toBuffer();
    expect(theirs.equals(await sharp(png).raw().toBuffer())).toBe(true);
  }
});

test('data that unpack to more than the pixels need are refused before they are unpacked', () => {
  const bomb = made(64, 64, deflateSync(Buffer.alloc(40_000_000)));
  const before = process.memoryUsage().arrayBuffers;
  expect(() => parseHeightImage(bomb, 'bomb.png')).toThrow(
    'bomb.png: unpacks to more than the 4160 bytes that its pixels need',
  );
  expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(5_000_000);
});

test('large texts and profiles are left out, whatever they unpack to', () => {
  const packed = deflateSync(Buffer.alloc(40_000_000));
  const png = made(20, 10, deflateSync(rows(20, 10)), [
    chunk('zTXt', Buffer.concat([Buffer.from('Comment\0\0', 'latin1'), packed])),
    chunk('iCCP', Buffer.concat([Buffer.from('profile\0\0', 'latin1'), packed])),
    chunk('eXIf', Buffer.alloc(100_000)),
  ]);
  expect(soundPng(png, 'a.png')).toEqual(new Uint8Array(made(20, 10, deflateSync(rows(20, 10)))));
  expect(parseHeightImage(png, 'a.png').width).toBe(20);
});

test('a PNG that is cut short or damaged says what of it can be read', () => {
  const whole = made(40, 40, deflateSync(rows(40, 40), { level: 0 }));
  expect(() => soundPng(made(40, 40, deflateSync(rows(40, 20))), 'a.png')).toThrow('50 % of its pixels can be read');
  expect(() => soundPng(whole.subarray(0, 900), 'a.png')).toThrow('is cut short or damaged: 0 % of its pixels');
  expect(() => soundPng(made(40, 40, deflateSync(rows(40, 40)), [], false), 'a.png')).toThrow('it has no end');
  const wrong = Buffer.from(whole);
  wrong[300] ^= 1;
  expect(() => parseHeightImage(wrong, 'a.png')).toThrow('a.png: is ');
  expect(() => soundPng(whole.subarray(0, 20), 'a.png')).toThrow('20 bytes long, too short');
});
