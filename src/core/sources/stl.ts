import { looksLikeText } from './known-files';
import type { Mesh } from './mesh';
import { MAX_TRIANGLES, SourceError } from './source-error';

const HEADER = 84;
const RECORD = 50;

function check(triangles: Float32Array, file: string): Mesh {
  for (let i = 0; i < triangles.length; i++) {
    if (!Number.isFinite(triangles[i])) {
      throw new SourceError(
        `${file}: triangle ${Math.floor(i / 9) + 1} has a corner at ${triangles[i]}; repair the mesh and export it again`,
      );
    }
  }
  if (triangles.length === 0) throw new SourceError(`${file}: holds 0 triangles; export the model again`);
  return { triangles };
}

function tooMany(n: number, file: string): never {
  throw new SourceError(`${file}: holds ${n} triangles, more than ${MAX_TRIANGLES}; reduce the mesh`);
}

function parseBinary(bytes: Uint8Array, count: number, file: string): Mesh {
  if (count > MAX_TRIANGLES) tooMany(count, file);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const out = new Float32Array(count * 9);
  for (let t = 0; t < count; t++) {
    const at = HEADER + t * RECORD + 12;
    for (let i = 0; i < 9; i++) out[t * 9 + i] = view.getFloat32(at + i * 4, true);
  }
  return check(out, file);
}

function parseAscii(bytes: Uint8Array, file: string): Mesh {
  // Decoded piece by piece, so that a text near the size limit never becomes one string.
  const decoder = new TextDecoder();
  let out = new Float32Array(9 * 1024);
  let n = 0;
  let rest = '';
  let ending = '';
  const PIECE = 1 << 22;
  const vertex = /vertex\s+(\S+)\s+(\S+)\s+(\S+)/gi;
  for (let at = 0; at < bytes.length; at += PIECE) {
    const last = at + PIECE >= bytes.length;
    let text = rest + decoder.decode(bytes.subarray(at, at + PIECE), { stream: !last });
    if (!last) {
      const cut = text.toLowerCase().lastIndexOf('vertex');
      rest = cut > 0 ? text.slice(cut) : text;
      text = cut > 0 ? text.slice(0, cut) : '';
      if (rest.length > 2 * PIECE) break;
    }
    ending = (ending + text).slice(-200);
    for (const m of text.matchAll(vertex)) {
      if (n + 3 > out.length) {
        if (n / 9 > MAX_TRIANGLES) tooMany(Math.floor(n / 9), file);
        const grown = new Float32Array(out.length * 2);
        grown.set(out);
        out = grown;
      }
      for (let i = 1; i <= 3; i++) {
        const v = Number(m[i]);
        if (Number.isNaN(v)) {
          throw new SourceError(
            `${file}: vertex ${n / 3 + 1} reads "${m[i].slice(0, 20)}", not a number; export the model again`,
          );
        }
        out[n++] = v;
      }
    }
  }
  if (n % 9 !== 0) {
    throw new SourceError(
      `${file}: ends in the middle of triangle ${Math.floor(n / 9) + 1}; the file is cut short, fetch it again`,
    );
  }
  if (!/endsolid/i.test(ending))
    throw new SourceError(
      `${file}: is cut short after ${n / 9} triangles: it does not end with "endsolid"; fetch or export it again`,
    );
  return check(out.slice(0, n), file);
}

/**
 * Reads binary or ASCII STL. The binary form is recognised by its length (84 + 50 n bytes for the n it declares),
 * because binary headers may begin with "solid" too.
 * @throws SourceError for an empty, truncated or malformed file, and for one whose count is lower than what it holds
 */
export function parseStl(bytes: Uint8Array, file: string): Mesh {
  if (bytes.length === 0) throw new SourceError(`${file}: is empty (0 bytes); choose the file again`);
  const count =
    bytes.length >= HEADER ? new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength).getUint32(80, true) : 0;
  if (bytes.length >= HEADER && bytes.length === HEADER + RECORD * count) return parseBinary(bytes, count, file);
  const head = new TextDecoder().decode(bytes.subarray(0, 512)).trimStart().toLowerCase();
  const text = !bytes.subarray(0, 512).includes(0);
  if (head.startsWith('solid') && text) return parseAscii(bytes, file);
  if (text && looksLikeText(bytes))
    throw new SourceError(
      `${file}: is a text that no model, image or drawing begins like; its name does not say what it is, choose another`,
    );
  if (bytes.length < HEADER) {
    throw new SourceError(
      `${file}: is ${bytes.length} bytes long, too short for an STL; choose an STL or a grayscale PNG`,
    );
  }
  const fits = Math.floor((bytes.length - HEADER) / RECORD);
  // Some exporters append data of their own; a count that the file can hold is believed, a larger one is not.
  if (count > fits) {
    throw new SourceError(
      `${file}: declares ${count} triangles but has room for ${fits}; it is cut short or not an STL, export it again`,
    );
  }
  // Room for whole triangles more than are declared: the count is wrong, and a part of the model would be lost.
  if (count < fits && bytes.length === HEADER + RECORD * fits)
    throw new SourceError(
      `${file}: declares ${count} triangles but holds ${fits}, so ${Math.round(100 * (1 - count / fits))} % of the model would be lost; export it again`,
    );
  if (count === 0) throw new SourceError(`${file}: holds 0 triangles; export the model again`);
  return parseBinary(bytes, count, file);
}

/** Writes binary STL from nine floats a triangle; normals by the right-hand rule. */
export function writeStl(triangles: Float32Array, title: string): Uint8Array {
  const count = triangles.length / 9;
  const bytes = new Uint8Array(HEADER + RECORD * count);
  bytes.set(new TextEncoder().encode(title.slice(0, 79)));
  const view = new DataView(bytes.buffer);
  view.setUint32(80, count, true);
  for (let t = 0; t < count; t++) {
    const v = triangles.subarray(t * 9, t * 9 + 9);
    const [ux, uy, uz] = [v[3] - v[0], v[4] - v[1], v[5] - v[2]];
    const [wx, wy, wz] = [v[6] - v[0], v[7] - v[1], v[8] - v[2]];
    const n = [uy * wz - uz * wy, uz * wx - ux * wz, ux * wy - uy * wx];
    const l = Math.hypot(...n) || 1;
    for (let i = 0; i < 3; i++) view.setFloat32(HEADER + t * RECORD + i * 4, n[i] / l, true);
    for (let i = 0; i < 9; i++) view.setFloat32(HEADER + t * RECORD + 12 + i * 4, v[i], true);
  }
  return bytes;
}
