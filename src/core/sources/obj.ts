import { GrowingFloats } from './growing';
import type { Mesh } from './mesh';
import { MAX_TRIANGLES, SourceError } from './source-error';

const PIECE = 1 << 22;
/** A line longer than this is no line of a model. */
const LONGEST = 1 << 20;

/** The lines of a text, decoded piece by piece so that a large file never becomes one string. */
function* linesOf(bytes: Uint8Array, file: string): Generator<string> {
  const decoder = new TextDecoder();
  let rest = '';
  for (let at = 0; at < bytes.length; at += PIECE) {
    const last = at + PIECE >= bytes.length;
    const lines = (rest + decoder.decode(bytes.subarray(at, at + PIECE), { stream: !last })).split(/\r?\n/);
    rest = last ? '' : (lines.pop() ?? '');
    if (rest.length > LONGEST)
      throw new SourceError(`${file}: has a line of over a million letters; it is no OBJ model`);
    yield* lines;
  }
}

/** Whether a file reads as OBJ: text with vertices among its first lines. */
export function looksLikeObj(bytes: Uint8Array): boolean {
  const head = bytes.subarray(0, 65_536);
  return !head.includes(0) && /^v\s+-?[\d.]/m.test(new TextDecoder().decode(head));
}

/**
 * Reads the faces of an OBJ file as triangles, polygons as fans; materials, normals and textures are passed over. Corners
 * are kept from the first one on, so that a model far from zero loses nothing in 32-bit floats.
 * @returns the mesh, and the material libraries that it names
 * @throws SourceError
 */
export function parseObj(bytes: Uint8Array, file: string): { mesh: Mesh; materials: string[] } {
  const x = new GrowingFloats();
  const out = new GrowingFloats();
  const materials: string[] = [];
  let origin: [number, number, number] | null = null;
  let n = 0;
  let line = 0;
  const faces: number[] = [];
  for (const text of linesOf(bytes, file)) {
    line++;
    const t = text.trim();
    if (t.startsWith('v ') || t.startsWith('v\t')) {
      const v = t.split(/\s+/, 4).slice(1).map(Number);
      if (v.length < 3 || !v.every(Number.isFinite))
        throw new SourceError(`${file}: line ${line} reads "${t.slice(0, 40)}", not a vertex; export the model again`);
      origin ??= [v[0], v[1], v[2]];
      for (let a = 0; a < 3; a++) x.push(v[a] - origin[a]);
      n++;
    } else if (t.startsWith('f ') || t.startsWith('f\t')) {
      faces.length = 0;
      for (const word of t.split(/\s+/).slice(1)) {
        const k = Number.parseInt(word, 10);
        const i = k < 0 ? n + k : k - 1;
        if (!(i >= 0 && i < n))
          throw new SourceError(
            `${file}: line ${line} names vertex ${word.slice(0, 20)} of ${n}; export the model again`,
          );
        faces.push(i);
      }
      if (out.length / 9 + faces.length - 2 > MAX_TRIANGLES)
        throw new SourceError(`${file}: holds more than ${MAX_TRIANGLES} triangles; reduce the mesh`);
      for (let c = 1; c + 1 < faces.length; c++) {
        for (const i of [faces[0], faces[c], faces[c + 1]]) for (let a = 0; a < 3; a++) out.push(x.at(3 * i + a));
      }
    } else if (t.startsWith('mtllib ')) materials.push(t.slice(7).trim());
  }
  if (out.length === 0) throw new SourceError(`${file}: holds 0 faces; export the model with its faces`);
  return { mesh: { triangles: out.done() }, materials };
}
