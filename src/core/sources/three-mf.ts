import { Unzip, UnzipInflate } from 'fflate';
import { SaxesParser } from 'saxes';
import { GrowingFloats } from './growing';
import type { Mesh } from './mesh';
import { MAX_TRIANGLES, SourceError } from './source-error';

/** Millimetres of the units of the 3MF core specification, "unit" attribute of <model>. */
const UNITS: Record<string, number> = {
  micron: 0.001,
  millimeter: 1,
  centimeter: 10,
  inch: 25.4,
  foot: 304.8,
  meter: 1000,
};

/** Most that a package may unpack to, bytes, and most times its own size. */
const MOST_BYTES = 1024 ** 3;
const MOST_RATIO = 200;
const PIECE = 1 << 20;

/** Row-vector matrix of a 3MF transform: x' = x m0 + y m3 + z m6 + m9 and so on. */
type Matrix = number[];
const STILL: Matrix = [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0];

function readMatrix(text: string | undefined, file: string): Matrix {
  if (text === undefined) return STILL;
  const m = text.trim().split(/\s+/).map(Number);
  if (m.length !== 12 || !m.every(Number.isFinite))
    throw new SourceError(`${file}: a transform reads "${text.slice(0, 40)}"; export the model again`);
  return m;
}

/** First a, then b. */
function times(a: Matrix, b: Matrix): Matrix {
  const out: number[] = [];
  for (let r = 0; r < 4; r++) {
    for (let c = 0; c < 3; c++) {
      out.push(a[3 * r] * b[c] + a[3 * r + 1] * b[3 + c] + a[3 * r + 2] * b[6 + c] + (r === 3 ? b[9 + c] : 0));
    }
  }
  return out;
}

interface Part {
  vertices: Float32Array;
  /** Corners of the triangles, three indices each. */
  corners: Int32Array;
  components: { id: string; matrix: Matrix }[];
}

export function looksLikeZip(bytes: Uint8Array): boolean {
  return bytes.length > 4 && bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5);
}

/** Whether a name of an archive stays inside it. */
export function staysInside(name: string): boolean {
  return !name.startsWith('/') && !/^[a-z]:/i.test(name) && !name.split(/[\\/]/).includes('..');
}

/**
 * Reads the objects of a 3MF package that its build names, in millimetres. Entries are unpacked piece by piece and counted, so that
 * a package that unpacks to far more than it is stops early.
 * @throws SourceError
 */
export function parse3mf(bytes: Uint8Array, file: string): Mesh {
  const parts = new Map<string, Part>();
  const items: { id: string; matrix: Matrix }[] = [];
  let unit = 1;
  let models = 0;
  let unpacked = 0;
  let failure: SourceError | null = null;

  const readModel = (): SaxesParser => {
    const parser = new SaxesParser();
    let vertices = new GrowingFloats();
    let corners = new GrowingFloats();
    let id = '';
    let components: Part['components'] = [];
    const number = (v: string | undefined, what: string) => {
      const n = Number(v);
      if (v === undefined || !Number.isFinite(n))
        throw new SourceError(`${file}: ${what} reads "${v ?? ''}"; export the model again`);
      return n;
    };
    parser.on('error', (e) => {
      throw new SourceError(`${file}: its model is not well-formed XML (${e.message.slice(0, 80)}); export it again`);
    });
    parser.on('opentag', ({ name, attributes: a }) => {
      const at = a as Record<string, string>;
      switch (name.replace(/^.*:/, '')) {
        case 'model': {
          const u = at.unit ?? 'millimeter';
          if (!(u in UNITS))
            throw new SourceError(
              `${file}: is in "${u.slice(0, 20)}", a unit that 3MF does not have; export it in millimeters`,
            );
          unit = UNITS[u];
          break;
        }
        case 'object':
          id = at.id ?? '';
          vertices = new GrowingFloats();
          corners = new GrowingFloats();
          components = [];
          break;
        case 'vertex':
          for (const k of ['x', 'y', 'z']) vertices.push(number(at[k], 'a vertex'));
          break;
        case 'triangle':
          for (const k of ['v1', 'v2', 'v3']) corners.push(number(at[k], 'a triangle'));
          if (corners.length / 3 > MAX_TRIANGLES)
            throw new SourceError(`${file}: holds more than ${MAX_TRIANGLES} triangles; reduce the mesh`);
          break;
        case 'component':
          components.push({ id: at.objectid ?? '', matrix: readMatrix(at.transform, file) });
          break;
        case 'item':
          items.push({ id: at.objectid ?? '', matrix: readMatrix(at.transform, file) });
          break;
      }
    });
    parser.on('closetag', ({ name }) => {
      if (name.replace(/^.*:/, '') !== 'object') return;
      const c = Int32Array.from(corners.done());
      const v = vertices.done();
      for (const i of c)
        if (i < 0 || i >= v.length / 3)
          throw new SourceError(`${file}: a triangle names vertex ${i} of ${v.length / 3}; export the model again`);
      parts.set(id, { vertices: v, corners: c, components });
    });
    return parser;
  };

  const unzip = new Unzip((entry) => {
    if (!staysInside(entry.name))
      throw new SourceError(
        `${file}: holds an entry "${entry.name.slice(0, 60)}" outside its own folder; it is refused, get the model from elsewhere`,
      );
    if (!/^3d\/.*\.model$/i.test(entry.name)) return;
    models++;
    const parser = readModel();
    const decoder = new TextDecoder();
    entry.ondata = (error, data, final) => {
      if (failure) return;
      try {
        if (error) throw new SourceError(`${file}: is a broken package (${error.message}); export it again`);
        unpacked += data.length;
        if (unpacked > MOST_BYTES || unpacked > MOST_RATIO * bytes.length + 1_000_000)
          throw new SourceError(
            `${file}: unpacks to more than ${Math.min(MOST_BYTES, MOST_RATIO * bytes.length) / 1e6} MB; it is refused, get the model from elsewhere`,
          );
        parser.write(decoder.decode(data, { stream: !final }));
        if (final) parser.close();
      } catch (e) {
        failure = e as SourceError;
      }
    };
    entry.start();
  });
  unzip.register(UnzipInflate);
  try {
    for (let at = 0; at < bytes.length && !failure; at += PIECE)
      unzip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length);
  } catch (e) {
    if (e instanceof SourceError) throw e;
    throw new SourceError(`${file}: is a broken package (${(e as Error).message}); export it again`);
  }
  if (failure) throw failure;
  if (models === 0) throw new SourceError(`${file}: is an archive without a 3D model in it; choose a 3MF file`);

  const out = new GrowingFloats();
  const put = (id: string, m: Matrix, depth: number) => {
    const p = parts.get(id);
    if (!p)
      throw new SourceError(`${file}: names an object "${id.slice(0, 20)}" that is not in it; export the model again`);
    if (depth > 8)
      throw new SourceError(`${file}: its objects are made of each other without end; export the model again`);
    for (const i of p.corners) {
      const [x, y, z] = [p.vertices[3 * i], p.vertices[3 * i + 1], p.vertices[3 * i + 2]];
      for (let c = 0; c < 3; c++) out.push(unit * (x * m[c] + y * m[3 + c] + z * m[6 + c] + m[9 + c]));
    }
    if (out.length / 9 > MAX_TRIANGLES)
      throw new SourceError(`${file}: holds more than ${MAX_TRIANGLES} triangles; reduce the mesh`);
    for (const c of p.components) put(c.id, times(c.matrix, m), depth + 1);
  };
  // A package without a build is taken whole.
  for (const it of items.length > 0 ? items : [...parts.keys()].map((id) => ({ id, matrix: STILL })))
    put(it.id, it.matrix, 0);
  if (out.length === 0) throw new SourceError(`${file}: holds 0 triangles; export the model again`);
  return { triangles: out.done() };
}
