import { strToU8, zipSync } from 'fflate';
import {
  BoxGeometry,
  BufferAttribute,
  BufferGeometry,
  SphereGeometry,
  Mesh as ThreeMesh,
  TorusKnotGeometry,
} from 'three';
import { OBJExporter } from 'three/examples/jsm/exporters/OBJExporter.js';
import { PLYExporter } from 'three/examples/jsm/exporters/PLYExporter.js';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { afterEach, expect, test, vi } from 'vitest';

import { GrowingFloats } from './growing';
import { healthNotes, meshHealth } from './health';
import { inspectSource } from './inspect';
import type { Mesh } from './mesh';
import { parseObj } from './obj';
import { boxOf, proposeBase } from './orient';
import { parsePly } from './ply';
import { readMesh } from './read-mesh';
import { SourceError } from './source-error';
import { writeStl } from './stl';
import { parse3mf, staysInside } from './three-mf';

const text = (s: string) => new TextEncoder().encode(s);

/** The triangles of a geometry of three, corner by corner. */
function corners(g: BufferGeometry): Float32Array {
  const flat = g.index ? g.toNonIndexed() : g;
  return Float32Array.from(flat.getAttribute('position').array);
}

/** The same triangles in any order, to a millionth. */
function sameTriangles(a: Float32Array, b: Float32Array): void {
  const list = (v: Float32Array) =>
    Array.from({ length: v.length / 9 }, (_, t) =>
      Array.from(v.subarray(9 * t, 9 * t + 9), (x) => (Math.round(x * 1e4) / 1e4 + 0).toFixed(4)).join(' '),
    ).sort();
  expect(list(a)).toEqual(list(b));
}

afterEach(() => {
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const knot = new TorusKnotGeometry(10, 3, 40, 8);
const cube = corners(new BoxGeometry(2, 3, 4));

function refused(read: () => unknown, words: string): void {
  expect(read).toThrow(SourceError);
  expect(read).toThrow(words);
}

test('OBJ: what three writes is read as three reads it, polygons and counting from the end too', () => {
  const written = new OBJExporter().parse(new ThreeMesh(knot));
  const { mesh } = parseObj(text(written), 'knot.obj');
  const theirs = (new OBJLoader().parse(written).children[0] as ThreeMesh).geometry as BufferGeometry;
  // Corners are kept from the first one on.
  const first = firstVertex(written);
  const moved = corners(theirs).map((v, i) => v - first[i % 3]);
  sameTriangles(mesh.triangles, moved);
  const quad = 'v 0 0 0\nv 2 0 0\nv 2 1 0\nv 0 1 0.5\nf -4/1/1 -3 -2//2 -1\n';
  expect(parseObj(text(quad), 'q.obj').mesh.triangles).toEqual(
    Float32Array.from([0, 0, 0, 2, 0, 0, 2, 1, 0, 0, 0, 0, 2, 1, 0, 0, 1, 0.5]),
  );
  // Windows line ends, tabs and blanks make no difference.
  const windows = quad.replaceAll('\n', '\r\n').replaceAll('v ', 'v\t').replaceAll('f ', '  f  ');
  expect(parseObj(text(windows), 'q.obj').mesh).toEqual(parseObj(text(quad), 'q.obj').mesh);
});

function firstVertex(obj: string): number[] {
  return /^v (\S+) (\S+) (\S+)/m.exec(obj)!.slice(1).map(Number);
}

test('OBJ: a missing material is passed over and said; what is broken is refused by name, line and remedy', () => {
  const source = readMesh(text('mtllib gone.mtl\nusemtl oak\nv 0 0 0\nv 1 0 0\nv 0 1 1\nf 1 2 3\n'), 'a.obj');
  expect(source.notes).toEqual(['names its materials in gone.mtl, which a carving does not need']);
  expect(source.mesh!.triangles).toHaveLength(9);
  refused(() => parseObj(text('v 0 0 0\nv 1 0 zero\n'), 'bad.obj'), 'bad.obj: line 2 reads "v 1 0 zero", not a vertex');
  refused(() => parseObj(text('v 0 0 0\nf 1 2 3\n'), 'bad.obj'), 'bad.obj: line 2 names vertex 2 of 1');
  refused(() => parseObj(text('v 0 0 0\n'), 'bad.obj'), 'bad.obj: holds 0 faces');
  refused(() => parseObj(text(`v 0 0 0\n${'x'.repeat(9 << 20)}`), 'bad.obj'), 'a line of over a million letters');
});

test('OBJ: a model far from zero keeps its shape', () => {
  const far = 1e7;
  const t = `v ${far} ${far} 0\nv ${far + 0.125} ${far} 0\nv ${far} ${far + 0.25} 0.5\nf 1 2 3\n`;
  const { mesh } = parseObj(text(t), 'far.obj');
  const { min, max } = boxOf(mesh);
  expect(max.map((v, a) => v - min[a])).toEqual([0.125, 0.25, 0.5]);
});

test('PLY: text and binary of both orders, as three writes them', () => {
  // The exporter puts its answer off to the next frame, which Node has not.
  vi.stubGlobal('requestAnimationFrame', (f: () => void) => f());
  const write = (binary: boolean, littleEndian: boolean) => {
    const out = new PLYExporter().parse(new ThreeMesh(knot), () => {}, { binary, littleEndian } as never) as unknown;
    return typeof out === 'string' ? text(out) : new Uint8Array(out as ArrayBuffer);
  };
  for (const [binary, little] of [
    [false, false],
    [true, true],
    [true, false],
  ] as const) {
    const source = readMesh(write(binary, little), 'knot.ply');
    sameTriangles(source.mesh!.triangles, corners(knot));
  }
});

test('PLY: points without faces, a cut header, a cut body are refused', () => {
  const points =
    'ply\nformat ascii 1.0\nelement vertex 1\nproperty float x\nproperty float y\nproperty float z\nend_header\n0 0 0\n';
  refused(() => parsePly(text(points), 'p.ply'), 'p.ply: holds points but no faces');
  refused(
    () => parsePly(text('ply\nformat ascii 1.0\nelement vertex 1\n'), 'p.ply'),
    'p.ply: its PLY header has no end',
  );
  const many = points.replace('end_header', 'element face 9000000\nproperty list uchar int vertex_index\nend_header');
  refused(() => parsePly(text(many), 'p.ply'), 'holds 9000000 faces, more than 5000000');
  const nan = points
    .replace('vertex 1', 'vertex 3')
    .replace(
      'end_header\n0 0 0',
      'element face 1\nproperty list uchar int vertex_index\nend_header\n0 0 0\n1 0 nan\n0 1 0\n3 0 1 2',
    );
  // three says so on the console as well.
  vi.spyOn(console, 'error').mockImplementation(() => {});
  refused(() => parsePly(text(nan), 'p.ply'), 'triangle 1 has a corner at NaN');
});

const tetra =
  '<vertices><vertex x="0" y="0" z="0"/><vertex x="1" y="0" z="0"/><vertex x="0" y="1" z="0"/><vertex x="0" y="0" z="1"/></vertices><triangles><triangle v1="0" v2="2" v3="1"/><triangle v1="0" v2="1" v3="3"/><triangle v1="1" v2="2" v3="3"/><triangle v1="0" v2="3" v3="2"/></triangles>';
const model = (inside: string, unit = ' unit="millimeter"') =>
  `<?xml version="1.0"?><model${unit} xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02">${inside}</model>`;
const pack = (xml: string, name = '3D/3dmodel.model') =>
  zipSync({ [name]: strToU8(xml), '[Content_Types].xml': strToU8('<Types/>') });
const simple = (unit?: string) =>
  model(
    `<resources><object id="1"><mesh>${tetra}</mesh></object></resources><build><item objectid="1"/></build>`,
    unit,
  );

test('3MF: the units of the core specification, millimetre when none is said', () => {
  const size = (unit: string) => boxOf(parse3mf(pack(simple(unit)), 'a.3mf')).max[0];
  expect(size('')).toBe(1);
  for (const [unit, mm] of [
    ['micron', 0.001],
    ['millimeter', 1],
    ['centimeter', 10],
    ['inch', 25.4],
    ['foot', 304.8],
    ['meter', 1000],
  ] as const)
    expect(size(` unit="${unit}"`) / mm).toBeCloseTo(1, 6);
  refused(
    () => parse3mf(pack(simple(' unit="cubit"')), 'a.3mf'),
    'a.3mf: is in "cubit", a unit that 3MF does not have',
  );
  expect(readMesh(pack(simple()), 'a.3mf').unit).toBe('mm');
});

test('3MF: components and items are placed by their row-vector matrices, one after the other', () => {
  const parts = `<resources><object id="1"><mesh>${tetra}</mesh></object><object id="2"><components><component objectid="1" transform="2 0 0 0 2 0 0 0 2 10 0 0"/><component objectid="1"/></components></object></resources><build><item objectid="2" transform="0 1 0 -1 0 0 0 0 1 0 0 5"/></build>`;
  const m = parse3mf(pack(model(parts)), 'a.3mf');
  expect(m.triangles).toHaveLength(72);
  // (x, y) -> (-y, x): the first, twice as large and moved by 10 along x, comes to lie along y.
  expect(boxOf(m)).toEqual({ min: [-2, 0, 5], max: [0, 12, 7] });
  const loop =
    '<resources><object id="1"><components><component objectid="1"/></components></object></resources><build><item objectid="1"/></build>';
  refused(() => parse3mf(pack(model(loop)), 'a.3mf'), 'made of each other without end');
  refused(
    () => parse3mf(pack(model('<resources/><build><item objectid="7"/></build>')), 'a.3mf'),
    'names an object "7" that is not in it',
  );
});

test('3MF: objects made of objects are counted before any is put together', () => {
  const level = (i: number) =>
    `<object id="${i}"><components>${`<component objectid="${i - 1}"/>`.repeat(20)}</components></object>`;
  const parts = [2, 3, 4, 5, 6, 7].map(level).join('');
  const many = `<resources><object id="1"><mesh>${tetra}</mesh></object>${parts}</resources><build><item objectid="7"/></build>`;
  refused(() => parse3mf(pack(model(many)), 'many.3mf'), 'more than 5000000 triangles');
  // Objects that hold nothing take their time all the same.
  const empty = many.replace(tetra, '<vertices/><triangles/>');
  refused(() => parse3mf(pack(model(empty)), 'empty.3mf'), 'puts more than 100000 objects together');
});

test('3MF: a bomb, an entry outside its folder, broken XML, a broken package and no model are refused', () => {
  const bomb = pack(model(`<resources>${' '.repeat(80_000_000)}</resources>`));
  expect(bomb.length).toBeLessThan(200_000);
  refused(() => parse3mf(bomb, 'bomb.3mf'), 'bomb.3mf: unpacks to more than');
  refused(() => parse3mf(pack(simple(), '../3D/3dmodel.model'), 'out.3mf'), 'outside its own folder');
  refused(() => parse3mf(pack('<model><resources>'), 'cut.3mf'), 'is not whole as XML');
  refused(() => parse3mf(pack(simple().replace('v3="1"', 'v3="9"')), 'v.3mf'), 'a triangle names vertex 9 of 4');
  refused(() => parse3mf(pack(simple().replace('x="1"', 'x="one"')), 'x.3mf'), 'a vertex reads "one"');
  refused(() => parse3mf(pack(simple(), 'readme.txt'), 'no.3mf'), 'an archive without a 3D model');
  const broken = pack(simple()).slice();
  broken.fill(0, 40, 90);
  refused(() => parse3mf(broken, 'broken.3mf'), 'broken.3mf: ');
  expect(['/etc/x', 'C:\\x', 'a/../../x', '..\\x'].map(staysInside)).toEqual([false, false, false, false]);
  expect(staysInside('3D/a.model')).toBe(true);
});

test('what is wrong with a solid: open, inside out, flat triangles, shared edges, far away', () => {
  const closed: Mesh = { triangles: cube };
  const health = meshHealth(closed);
  expect(health).toMatchObject({ triangles: 12, degenerate: 0, edges: { open: 0, shared: 0 } });
  expect(health.volume).toBeCloseTo(24, 4);
  expect(healthNotes(health)).toEqual([]);
  const ball = meshHealth({ triangles: corners(new SphereGeometry(5, 64, 48)) });
  expect(Math.abs(ball.volume / ((4 / 3) * Math.PI * 125) - 1)).toBeLessThan(0.01);
  const open = meshHealth({ triangles: cube.slice(9) });
  expect(open.edges).toEqual({ open: 3, shared: 0 });
  expect(healthNotes(open).join()).toContain('not closed, 3 open edges: used as seen from above');
  const turned = cube.slice();
  for (let t = 0; t < turned.length; t += 9)
    for (let a = 0; a < 3; a++) [turned[t + 3 + a], turned[t + 6 + a]] = [turned[t + 6 + a], turned[t + 3 + a]];
  expect(healthNotes(meshHealth({ triangles: turned })).join()).toContain('inside out');
  const flat = Float32Array.from([...cube, 0, 0, 0, 1, 1, 1, 0, 0, 0]);
  expect(healthNotes(meshHealth({ triangles: flat })).join()).toContain('1 of 13 triangles have no area');
  const twice = Float32Array.from([...cube, ...cube.slice(0, 9)]);
  expect(meshHealth({ triangles: twice }).edges!.shared).toBeGreaterThan(0);
  const far = cube.map((v, i) => (i % 3 === 0 ? v + 5e4 : v));
  expect(healthNotes(meshHealth({ triangles: far })).join()).toContain('times its own size away from zero');
  // 0 and -0 are the same place.
  const zeros = cube.map((v, i) => (v === 1 && i % 3 === 0 ? 0 : v));
  const signed = zeros.map((v, i) => (v === 0 && Math.floor(i / 9) % 2 === 0 ? -0 : v));
  expect(meshHealth({ triangles: signed }).edges).toEqual({ open: 0, shared: 0 });
});

test('degenerate and inside-out meshes are still seen from above, with a note', () => {
  const sunk = inspectSource({
    mesh: { triangles: Float32Array.from([...cube, 0, 0, 0, 1, 1, 1, 0, 0, 0]) },
    notes: [],
  });
  expect(sunk.kind).toBe('mesh');
  expect(sunk.size).toEqual({ x: 4, y: 3, z: 2 });
  expect(sunk.notes).toEqual(['1 of 13 triangles have no area and were passed over']);
});

test('a model of a recess is known by its high rim and its low middle; a boss and a plain are not', () => {
  const field = (h: (r: number) => number): Mesh => {
    const n = 40;
    const v: number[] = [];
    const z = (i: number, j: number) => h(Math.hypot(i - n / 2, j - n / 2) / (n / 2));
    for (let j = 0; j < n; j++) {
      for (let i = 0; i < n; i++) {
        v.push(i, j, z(i, j), i + 1, j, z(i + 1, j), i + 1, j + 1, z(i + 1, j + 1));
        v.push(i, j, z(i, j), i + 1, j + 1, z(i + 1, j + 1), i, j + 1, z(i, j + 1));
      }
    }
    return { triangles: Float32Array.from(v) };
  };
  expect(inspectSource({ mesh: field((r) => (r < 0.8 ? 6 * (r / 0.8) ** 2 : 6)), notes: [] }).recess).toBe(true);
  expect(inspectSource({ mesh: field((r) => Math.max(0, 6 - 6 * r)), notes: [] }).recess).toBe(false);
  expect(inspectSource({ mesh: field((r) => 6 + 0.2 * Math.sin(20 * r)), notes: [] }).recess).toBe(false);
});

test('a picture of a recess is known too, whatever black lies around it', () => {
  const picture = (h: (r: number) => number) => {
    const values = Float32Array.from({ length: 6400 }, (_, k) => {
      const r = Math.hypot((k % 80) - 39.5, Math.floor(k / 80) - 39.5) / 36;
      return r > 1 ? 0 : h(r);
    });
    return inspectSource({ image: { width: 80, height: 80, depth: 16, values }, notes: [] }).recess;
  };
  expect(picture((r) => (r > 0.85 ? 1 : 0.1 + 0.5 * r))).toBe(true);
  expect(picture((r) => 1 - 0.9 * r)).toBe(false);
});

test('a file is read by its content, whatever its name', () => {
  const stl = writeStl(cube, 'cube');
  sameTriangles(readMesh(stl, 'cube.obj').mesh!.triangles, cube);
  refused(() => readMesh(text('this is a letter to a carver\n'), 'letter.stl'), 'letter.stl: ');
});

test('floats that grow come out as they went in, over the pieces', () => {
  const g = new GrowingFloats();
  const n = (9 << 16) * 2 + 5;
  for (let i = 0; i < n; i++) g.push(i % 1000);
  expect(g.length).toBe(n);
  expect(g.at(9 << 16)).toBe((9 << 16) % 1000);
  const all = g.done();
  expect(all).toHaveLength(n);
  expect(all[n - 1]).toBe((n - 1) % 1000);
  expect(
    new BufferGeometry().setAttribute('position', new BufferAttribute(all.subarray(0, 9), 3)).getAttribute('position')
      .count,
  ).toBe(3);
});

test('a back is flat when what looks straight down at one height covers a fifth of the plan', () => {
  // A tray of 10 x 10 with sloping sides, standing on a square of a given share of its plan.
  const tray = (share: number): Mesh => {
    const b = 5 * Math.sqrt(share);
    const low = [
      [-b, -b],
      [b, -b],
      [b, b],
      [-b, b],
    ];
    const high = low.map(([x, y]) => [(x / b) * 5, (y / b) * 5]);
    const out: number[] = [];
    const tri = (...p: number[][]) => out.push(...p.flat());
    const at = (p: number[], z: number) => [...p, z];
    for (let i = 0; i < 4; i++) {
      const k = (i + 1) % 4;
      tri(at(low[i], 0), at(low[k], 0), at(high[k], 4));
      tri(at(low[i], 0), at(high[k], 4), at(high[i], 4));
    }
    tri(at(low[0], 0), at(low[2], 0), at(low[1], 0));
    tri(at(low[0], 0), at(low[3], 0), at(low[2], 0));
    tri(at(high[0], 4), at(high[1], 4), at(high[2], 4));
    tri(at(high[0], 4), at(high[2], 4), at(high[3], 4));
    return { triangles: Float32Array.from(out) };
  };
  expect(proposeBase(tray(0.22)).flatBack).toBe(true);
  expect(proposeBase(tray(0.18)).flatBack).toBe(false);
});
