import { Unzip, type UnzipFile, UnzipInflate } from 'fflate';
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
/** Packed bytes that are taken at once; a thousandfold of them may come out. */
const PIECE = 1 << 14;

/** Deepest that objects may be made of others, and most that are put in place, each as often as it is used. */
const DEEPEST = 8;
const MOST_PUTS = 100_000;

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

/** A package on its way: what its models have held so far. */
class PackageReader {
  private readonly parts = new Map<string, Part>();
  private readonly items: { id: string; matrix: Matrix }[] = [];
  private unit = 1;
  private models = 0;
  private unpacked = 0;
  private failure: SourceError | null = null;
  private readonly out = new GrowingFloats();

  constructor(
    private readonly bytes: Uint8Array,
    private readonly file: string,
  ) {}

  private fail(what: string): never {
    throw new SourceError(`${this.file}: ${what}`);
  }

  private number(v: string | undefined, what: string): number {
    const n = Number(v);
    if (v === undefined || !Number.isFinite(n)) this.fail(`${what} reads "${v ?? ''}"; export the model again`);
    return n;
  }

  private unitOf(name: string): number {
    if (!(name in UNITS))
      this.fail(`is in "${name.slice(0, 20)}", a unit that 3MF does not have; export it in millimeters`);
    return UNITS[name];
  }

  /** A parser that keeps the objects of one model. */
  private modelParser(): SaxesParser {
    const parser = new SaxesParser();
    let vertices = new GrowingFloats();
    let corners = new GrowingFloats();
    let id = '';
    let components: Part['components'] = [];
    parser.on('error', (e) =>
      this.fail(`its model is not whole as XML: line ${e.message.split(':')[0]} cannot be read; export it again`),
    );
    const open: Record<string, (at: Record<string, string>) => void> = {
      model: (at) => {
        this.unit = this.unitOf(at.unit ?? 'millimeter');
      },
      object: (at) => {
        id = at.id ?? '';
        vertices = new GrowingFloats();
        corners = new GrowingFloats();
        components = [];
      },
      vertex: (at) => {
        for (const k of ['x', 'y', 'z']) vertices.push(this.number(at[k], 'a vertex'));
      },
      triangle: (at) => {
        for (const k of ['v1', 'v2', 'v3']) corners.push(this.number(at[k], 'a triangle'));
        this.countTriangles(corners.length / 3);
      },
      component: (at) => {
        components.push({ id: at.objectid ?? '', matrix: readMatrix(at.transform, this.file) });
      },
      item: (at) => {
        this.items.push({ id: at.objectid ?? '', matrix: readMatrix(at.transform, this.file) });
      },
    };
    parser.on('opentag', ({ name, attributes }) => {
      const tag = name.replace(/^.*:/, '');
      if (Object.hasOwn(open, tag)) open[tag](attributes as Record<string, string>);
    });
    parser.on('closetag', ({ name }) => {
      if (name.replace(/^.*:/, '') === 'object') this.keep(id, vertices.done(), corners.done(), components);
    });
    return parser;
  }

  private countTriangles(n: number): void {
    if (n > MAX_TRIANGLES) this.fail(`holds more than ${MAX_TRIANGLES} triangles; reduce the mesh`);
  }

  private keep(id: string, vertices: Float32Array, triangles: Float32Array, components: Part['components']): void {
    const corners = Int32Array.from(triangles);
    for (const i of corners)
      if (i < 0 || i >= vertices.length / 3)
        this.fail(`a triangle names vertex ${i} of ${vertices.length / 3}; export the model again`);
    this.parts.set(id, { vertices, corners, components });
  }

  private count(length: number): void {
    this.unpacked += length;
    const most = Math.min(MOST_BYTES, MOST_RATIO * this.bytes.length);
    if (this.unpacked > MOST_BYTES || this.unpacked > MOST_RATIO * this.bytes.length + 1_000_000)
      this.fail(`unpacks to more than ${most / 1e6} MB; it is refused, get the model from elsewhere`);
  }

  private takeEntry(entry: UnzipFile): void {
    if (!staysInside(entry.name))
      this.fail(
        `holds an entry "${entry.name.slice(0, 60)}" outside its own folder; it is refused, get the model from elsewhere`,
      );
    if (!/^3d\/.*\.model$/i.test(entry.name)) return;
    this.models++;
    const parser = this.modelParser();
    const decoder = new TextDecoder();
    entry.ondata = (error, data, final) => {
      if (this.failure) return;
      try {
        if (error) this.fail('is a broken package: its content does not unpack; export it again');
        this.count(data.length);
        parser.write(decoder.decode(data, { stream: !final }));
        if (final) parser.close();
      } catch (e) {
        this.failure = e as SourceError;
      }
    };
    entry.start();
  }

  /** Reads all models; entries are unpacked piece by piece. */
  unpack(): void {
    const { bytes } = this;
    const unzip = new Unzip((entry) => this.takeEntry(entry));
    unzip.register(UnzipInflate);
    try {
      for (let at = 0; at < bytes.length && !this.failure; at += PIECE)
        unzip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length);
    } catch (e) {
      if (e instanceof SourceError) throw e;
      this.fail('is a broken package: its content does not unpack; export it again');
    }
    if (this.failure) throw this.failure;
    if (this.models === 0) this.fail('is an archive without a 3D model in it; choose a 3MF file');
  }

  private part(id: string): Part {
    const p = this.parts.get(id);
    if (!p) this.fail(`names an object "${id.slice(0, 20)}" that is not in it; export the model again`);
    return p;
  }

  /** Triangles of an object with all that it is made of, and the objects that are put in place for it, before any is. */
  private countOf(id: string, known: Map<string, { triangles: number; puts: number }>, depth = 0) {
    const had = known.get(id);
    if (had) return had;
    if (depth > DEEPEST) this.fail('its objects are made of each other without end; export the model again');
    const { corners, components } = this.part(id);
    const sum = { triangles: corners.length / 3, puts: 1 };
    for (const c of components) {
      const inner = this.countOf(c.id, known, depth + 1);
      sum.triangles += inner.triangles;
      sum.puts += inner.puts;
    }
    known.set(id, sum);
    return sum;
  }

  private put(id: string, m: Matrix): void {
    const { out, unit } = this;
    const p = this.part(id);
    for (const i of p.corners) {
      const [x, y, z] = [p.vertices[3 * i], p.vertices[3 * i + 1], p.vertices[3 * i + 2]];
      for (let c = 0; c < 3; c++) out.push(unit * (x * m[c] + y * m[3 + c] + z * m[6 + c] + m[9 + c]));
    }
    for (const c of p.components) this.put(c.id, times(c.matrix, m));
  }

  /** The objects that the build names, put together; a package without a build is taken whole. */
  build(): Mesh {
    const named = this.items.length > 0 ? this.items : [...this.parts.keys()].map((id) => ({ id, matrix: STILL }));
    const known = new Map<string, { triangles: number; puts: number }>();
    const sums = named.map((it) => this.countOf(it.id, known));
    this.countTriangles(sums.reduce((n, s) => n + s.triangles, 0));
    if (sums.reduce((n, s) => n + s.puts, 0) > MOST_PUTS)
      this.fail(`puts more than ${MOST_PUTS} objects together; merge them and export the model again`);
    for (const it of named) this.put(it.id, it.matrix);
    if (this.out.length === 0) this.fail('holds 0 triangles; export the model again');
    return { triangles: this.out.done() };
  }
}

/**
 * Reads the objects of a 3MF package that its build names, in millimetres. Entries are unpacked piece by piece and counted, so that
 * a package that unpacks to far more than it is stops early.
 * @throws SourceError
 */
export function parse3mf(bytes: Uint8Array, file: string): Mesh {
  const reader = new PackageReader(bytes, file);
  reader.unpack();
  return reader.build();
}
