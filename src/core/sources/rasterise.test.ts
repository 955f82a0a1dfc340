import bunny from 'bunny';
import fc from 'fast-check';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { expect, test } from 'vitest';
import { AIR, boardGrid } from '../field/height-field';
import type { Mesh } from './mesh';
import { axesOf, boxOf, guessUnit, type Orientation, proposeBase, proposeOrientation } from './orient';
import { type Placement, rasterise } from './rasterise';

const still: Placement = { x: [1, 0, 0, 0], y: [0, 1, 0, 0], z: [0, 0, 1, 0] };

/** A mesh turned and mirrored, corner by corner. */
function turned(mesh: Mesh, o: Orientation): Mesh {
  const { from, sign, winding } = axesOf(o);
  const out = new Float32Array(mesh.triangles.length);
  for (let i = 0; i < out.length; i++) {
    const corner = Math.floor((i % 9) / 3);
    const to = winding < 0 && corner > 0 ? i + (corner === 1 ? 3 : -3) : i;
    out[to] = sign[i % 3] * mesh.triangles[i - (i % 3) + from[i % 3]];
  }
  return { triangles: out };
}

function bunnyMesh() {
  const out = new Float32Array(bunny.cells.length * 9);
  bunny.cells.forEach((c, t) => {
    c.forEach((v, i) => {
      out.set(bunny.positions[v], t * 9 + i * 3);
    });
  });
  return { triangles: out };
}

test('the bunny as a height field is what rays from above hit (three-mesh-bvh)', () => {
  const mesh = bunnyMesh();
  const { min, max } = boxOf(mesh);
  const k = 60 / (max[0] - min[0]);
  const place: Placement = { x: [k, 0, 0, -min[0] * k], y: [0, k, 0, -min[1] * k], z: [0, 0, k, -min[2] * k] };
  const grid = boardGrid(60, Math.ceil((max[1] - min[1]) * k), 0.5);
  const { field } = rasterise(mesh, place, grid);
  const scaled = new Float32Array(mesh.triangles.length);
  for (let i = 0; i < scaled.length; i++) scaled[i] = (mesh.triangles[i] - min[i % 3]) * k;
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(scaled, 3));
  const bvh = new MeshBVH(geometry);
  let hits = 0;
  let edges = 0;
  for (let j = 0; j < grid.height; j++) {
    for (let i = 0; i < grid.width; i++) {
      const x = grid.originX + i * grid.cell;
      const y = grid.originY + j * grid.cell;
      const hit = bvh.raycastFirst(new Ray(new Vector3(x, y, 1000), new Vector3(0, 0, -1)), DoubleSide);
      const got = field.data[j * grid.width + i];
      if (!hit || got === AIR) {
        // A ray may slip through an edge that the rasteriser counts as inside, never the other way round.
        if (hit) expect(got).not.toBe(AIR);
        else if (got !== AIR) edges++;
        continue;
      }
      hits++;
      expect(Math.abs(got - hit.point.z)).toBeLessThan(2e-3);
    }
  }
  expect(hits).toBeGreaterThan(5000);
  expect(edges).toBeLessThan(5);
});

test('triangles that share edges and corners leave no hole, wherever they fall on the grid', () => {
  fc.assert(
    fc.property(fc.integer({ min: 3, max: 12 }), fc.integer(), (n, seed) => {
      let s = seed >>> 0;
      const random = () => {
        s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
        return s / 2 ** 32;
      };
      // A plane z = 1 + x / 10 over a jittered grid of corners, many of them exactly on cell centres.
      const at: [number, number][][] = [];
      for (let j = 0; j <= n; j++) {
        at.push([]);
        for (let i = 0; i <= n; i++) {
          const inner = i > 0 && j > 0 && i < n && j < n;
          const snap = random() < 0.5;
          const jitter = () => (inner ? (snap ? Math.round(random() * 4) / 4 - 0.5 : random() - 0.5) * 0.8 : 0);
          at[j].push([i * 2 + jitter(), j * 2 + jitter()]);
        }
      }
      const v: number[] = [];
      for (let j = 0; j < n; j++) {
        for (let i = 0; i < n; i++) {
          const [a, b, c, d] = [at[j][i], at[j][i + 1], at[j + 1][i + 1], at[j + 1][i]];
          const corners = random() < 0.5 ? [a, b, c, a, c, d] : [a, b, d, b, c, d];
          for (const [x, y] of random() < 0.5 ? corners : corners.reverse()) v.push(x, y, 1 + x / 10);
        }
      }
      const grid = { width: 8 * n + 1, height: 8 * n + 1, cell: 0.25, originX: 0, originY: 0 };
      const { field } = rasterise({ triangles: Float32Array.from(v) }, still, grid);
      for (let j = 0; j < grid.height; j++) {
        for (let i = 0; i < grid.width; i++) {
          expect(Math.abs(field.data[j * grid.width + i] - (1 + (i * 0.25) / 10))).toBeLessThan(1e-5);
        }
      }
    }),
    { numRuns: 16 },
  );
});

test('the highest of several surfaces counts, and a spike between the cells is reported', () => {
  const square = (z: number) => [0, 0, z, 10, 0, z, 10, 10, z, 0, 0, z, 10, 10, z, 0, 10, z];
  const spike = [5.2, 5.2, 2, 5.3, 5.2, 2, 5.25, 5.25, 9];
  const grid = boardGrid(10, 10, 1);
  const plain = rasterise({ triangles: Float32Array.from([...square(1), ...square(2)]) }, still, grid);
  expect(plain.thinCells).toBe(0);
  expect(plain.field.data.every((v) => v === 2)).toBe(true);
  expect(rasterise({ triangles: Float32Array.from([...square(2), ...spike]) }, still, grid).thinCells).toBe(1);
});

const slab = (): { triangles: Float32Array } => {
  // 40 x 20 x 4 with its flat back at z = 0.
  const p = (x: number, y: number, z: number) => [x * 40, y * 20, z * 4];
  const quad = (a: number[], b: number[], c: number[], d: number[]) => [...a, ...b, ...c, ...a, ...c, ...d];
  return {
    triangles: Float32Array.from([
      ...quad(p(0, 0, 0), p(0, 1, 0), p(1, 1, 0), p(1, 0, 0)),
      ...quad(p(0, 0, 1), p(1, 0, 1), p(1, 1, 1), p(0, 1, 1)),
    ]),
  };
};

test('quarter turns are exact and four of them are none; a mirror keeps faces facing out', () => {
  const m = slab();
  for (const axis of [0, 1, 2]) {
    let t = m;
    for (let i = 0; i < 4; i++) {
      const turns: [number, number, number] = [0, 0, 0];
      turns[axis] = 1;
      t = turned(t, { turns, mirror: false });
    }
    expect(t.triangles.map((v) => v + 0)).toEqual(m.triangles);
  }
  expect(proposeBase(turned(m, { turns: [0, 0, 0], mirror: true }))).toEqual(proposeBase(m));
});

test('a slab that stands on its side is laid on its flat back', () => {
  const standing = turned(slab(), { turns: [1, 0, 0], mirror: false });
  const laid = turned(standing, proposeOrientation(standing));
  const { min, max } = boxOf(laid);
  expect(max[2] - min[2]).toBeCloseTo(4, 6);
  expect(proposeBase(laid)).toEqual({ z: min[2], flatBack: true });
});

test('the unit is guessed from the longest side', () => {
  expect(guessUnit(boxOf(slab()))).toBe('mm');
  const small = { triangles: slab().triangles.map((v) => v / 25.4) };
  expect(guessUnit(boxOf(small))).toBe('in');
});
