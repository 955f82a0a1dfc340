import { crc32, deflateSync } from 'node:zlib';
import { strToU8, zipSync } from 'fflate';
import type { Verdict } from './say';
import type { AttackedServer } from './server';

function chunk(type: string, data: Uint8Array): Buffer {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const out = Buffer.alloc(body.length + 8);
  out.writeUInt32BE(data.length, 0);
  body.copy(out, 4);
  out.writeUInt32BE(crc32(body), body.length + 4);
  return out;
}

/** Zeros of so many MB, packed: made once of pieces, so that making it takes no memory to speak of. */
const packedZeros = (megabytes: number) => deflateSync(Buffer.alloc(megabytes * 1_000_000), { level: 9 });

function png(data: Uint8Array, before: Buffer[] = []): Uint8Array {
  const head = Buffer.alloc(13);
  head.writeUInt32BE(64, 0);
  head.writeUInt32BE(64, 4);
  head.set([8, 0, 0, 0, 0], 8);
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([
    signature,
    chunk('IHDR', head),
    ...before,
    chunk('IDAT', data),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

const nested = (n: number, of: (i: number) => string) => Array.from({ length: n }, (_, i) => of(i)).join('');

const MODEL_HEAD =
  '<?xml version="1.0"?><model unit="millimeter" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02">';
const TETRA =
  '<object id="1"><mesh><vertices><vertex x="0" y="0" z="0"/><vertex x="1" y="0" z="0"/><vertex x="0" y="1" z="0"/><vertex x="0" y="0" z="1"/></vertices><triangles><triangle v1="0" v2="1" v3="2"/><triangle v1="0" v2="1" v3="3"/></triangles></mesh></object>';

function bombsOf(): [string, Uint8Array][] {
  const zeros = packedZeros(1500);
  const named = (text: string) => Buffer.concat([Buffer.from(text, 'latin1'), zeros]);
  const level = (i: number) =>
    `<object id="${i + 2}"><components>${`<component objectid="${i + 1}"/>`.repeat(20)}</components></object>`;
  const parts = `${MODEL_HEAD}<resources>${TETRA}${nested(6, level)}</resources><build><item objectid="7"/></build></model>`;
  const uses = nested(8, (i) => `<g id="g${i + 1}">${`<use href="#g${i}"/>`.repeat(10)}</g>`);
  const block = (i: number) =>
    `0\nBLOCK\n8\n0\n2\nB${i + 1}\n70\n0\n10\n0\n20\n0\n${`0\nINSERT\n8\n0\n2\nB${i}\n10\n0\n20\n0\n`.repeat(12)}0\nENDBLK\n`;
  const first = '0\nBLOCK\n8\n0\n2\nB0\n70\n0\n10\n0\n20\n0\n0\nCIRCLE\n8\n0\n10\n0\n20\n0\n40\n1\n0\nENDBLK\n';
  return [
    ['pixels.png', png(zeros)],
    ['text.png', png(deflateSync(Buffer.alloc(64 * 65)), [chunk('zTXt', named('Comment\0\0'))])],
    ['profile.png', png(deflateSync(Buffer.alloc(64 * 65)), [chunk('iCCP', named('profile\0\0'))])],
    ['spaces.3mf', zipSync({ '3D/3dmodel.model': strToU8(`${MODEL_HEAD}<resources>${' '.repeat(300_000_000)}`) })],
    ['components.3mf', zipSync({ '3D/3dmodel.model': strToU8(parts) })],
    ['uses.svg', strToU8(`<svg xmlns="http://www.w3.org/2000/svg"><path id="g0" d="M0 0H1V1z"/>${uses}</svg>`)],
    [
      'blocks.dxf',
      strToU8(
        `0\nSECTION\n2\nBLOCKS\n${first}${nested(7, block)}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nINSERT\n8\n0\n2\nB7\n10\n0\n20\n0\n0\nENDSEC\n0\nEOF\n`,
      ),
    ],
  ];
}

/** Memory that the server may come to hold while bombs are thrown at it, MB. */
const MOST = 600;

/** Files that unpack, nest or repeat without end: each refused by its name, and the server's memory bounded. */
export async function bombs(server: AttackedServer): Promise<Verdict> {
  const list = bombsOf();
  await server.start();
  const faults: string[] = [];
  const peaks: string[] = [];
  const before = server.peak();
  try {
    for (const [name, bytes] of list) {
      const { status, body } = await server.put(name, bytes);
      // A picture without relief is refused too: what its texts hold does not matter to it.
      if (status !== 400 || !body.error?.startsWith(`${name}: `)) faults.push(`${name}: ${status} ${body.error ?? ''}`);
      peaks.push(`${name} ${server.peak()?.toFixed(0)}`);
    }
    const deep = `${'['.repeat(200_000)}${']'.repeat(200_000)}`;
    const res = await fetch(`${server.base}/api/jobs`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-zealous-grain': '1' },
      body: deep,
    });
    if (res.status !== 400) faults.push(`deep JSON: ${res.status}`);
    const peak = server.peak();
    return {
      passed: peak === null ? null : faults.length === 0 && peak < MOST,
      said: `${list.length + 1} bombs; the server held at most ${peak?.toFixed(0) ?? '?'} MB of ${MOST} (${before?.toFixed(0)} at its start, then ${peaks.join(', ')}); faults: ${faults.join(' | ') || 'none'}`,
    };
  } finally {
    await server.kill();
  }
}
