'use client';
import { Canvas } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import { BufferAttribute, BufferGeometry, Color } from 'three';
import { DEPTH } from '@/core/arrange/picture';
import { MASK } from '@/core/arrange/target';
import { nearestCell } from '@/core/field/height-field';
import type { SetupView } from '@/core/setup/view';
import type { Surface } from '../job/surface';
import { roundMesh } from './round-mesh';
import { TurnControls } from './turn-controls';

/** Where light comes from, as shares of the size. What faces the eye of a drum lies between its sides: a light from there, and one that grazes. */
const OVER_BOARD = [
  { from: [-0.6, 0.7, 0.55], intensity: 2.4 },
  { from: [0.6, -0.7, -0.55], intensity: 1.8 },
];
const OVER_DRUM = [
  { from: [-0.9, -0.25, 0.75], intensity: 2 },
  { from: [0.5, -0.9, 0.1], intensity: 0.7 },
];

/** Cells along the longer side while turning: what software rendering still draws at once. */
const MESH_CELLS = 320;

/** The surface as a mesh with the board's sides, coloured by depth, mm, its middle at 0. */
function solid({ board }: SetupView, surface: Surface): BufferGeometry {
  // Where both sides are proven it is the whole board that is turned, as all setups leave it.
  const whole = surface.proven && surface.web ? { ...surface.web.grid, data: surface.web.heights } : null;
  const f = whole ?? surface.cut ?? surface.target;
  const under = (x: number, y: number) =>
    surface.under ? Math.min(0, surface.under.data[nearestCell(surface.under, x, y)]) : -board.thickness;
  const step = Math.max(1, Math.ceil(Math.max(f.width, f.height) / MESH_CELLS));
  const nx = Math.floor((f.width - 1) / step) + 1;
  const ny = Math.floor((f.height - 1) / step) + 1;
  const positions: number[] = [];
  const colours: number[] = [];
  const index: number[] = [];
  let low = 0;
  for (let k = 0; k < f.data.length; k += 7) if (f.data[k] < low) low = Math.max(f.data[k], -board.thickness);
  const c = new Color();
  const put = (x: number, y: number, z: number, rgb: readonly number[]) => {
    positions.push(x - board.x / 2, y - board.y / 2, z);
    c.setRGB(rgb[0] / 255, rgb[1] / 255, rgb[2] / 255, 'srgb');
    colours.push(c.r, c.g, c.b);
  };
  const at = (i: number, j: number) => ({
    k: Math.min(f.height - 1, j * step) * f.width + Math.min(f.width - 1, i * step),
    x: i === 0 ? 0 : i === nx - 1 ? board.x : f.originX + i * step * f.cell,
    y: j === 0 ? 0 : j === ny - 1 ? board.y : f.originY + j * step * f.cell,
  });
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) {
      const { k, x, y } = at(i, j);
      // A hole goes on into the spoilboard; the board ends with its underside.
      const z = Math.max(f.data[k], -board.thickness);
      const rgb =
        surface.mask[k] === MASK.waste
          ? [214, 204, 186]
          : DEPTH[Math.round(255 * Math.min(1, Math.max(0, 1 - z / (low || -1))))];
      put(x, y, z, rgb);
    }
  }
  for (let j = 0; j + 1 < ny; j++) {
    for (let i = 0; i + 1 < nx; i++) {
      const a = j * nx + i;
      index.push(a, a + 1, a + nx + 1, a, a + nx + 1, a + nx);
    }
  }
  const side = [200, 172, 122];
  const rim: [number, number][] = [];
  for (let i = 0; i < nx; i++) rim.push([i, 0]);
  for (let j = 1; j < ny; j++) rim.push([nx - 1, j]);
  for (let i = nx - 2; i >= 0; i--) rim.push([i, ny - 1]);
  for (let j = ny - 2; j > 0; j--) rim.push([0, j]);
  const base = positions.length / 3;
  for (const [i, j] of rim) {
    const { k, x, y } = at(i, j);
    put(x, y, f.data[k], side);
    put(x, y, Math.min(f.data[k], under(x, y)), side);
  }
  for (let r = 0; r < rim.length; r++) {
    const a = base + 2 * r;
    const b = base + 2 * ((r + 1) % rim.length);
    index.push(a, a + 1, b + 1, a, b + 1, b);
  }
  // The underside, seen from below: coloured by how deep it is cut from there.
  const below = positions.length / 3;
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++) {
      const { k, x, y } = at(i, j);
      const z = Math.min(f.data[k], under(x, y));
      const deep = (z + board.thickness) / board.thickness;
      put(x, y, z, surface.under ? DEPTH[Math.round(255 * Math.min(1, Math.max(0, 1 - 2 * deep)))] : side);
    }
  for (let j = 0; j + 1 < ny; j++)
    for (let i = 0; i + 1 < nx; i++) {
      const a = below + j * nx + i;
      index.push(a, a + nx + 1, a + 1, a, a + nx, a + nx + 1);
    }
  const g = new BufferGeometry();
  g.setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3));
  g.setAttribute('color', new BufferAttribute(Float32Array.from(colours), 3));
  g.setIndex(index);
  g.computeVertexNormals();
  return g;
}

/** A drum as it stands, to be turned about. */
function drum({ board }: SetupView, surface: Surface): BufferGeometry {
  const f = surface.cut ?? surface.target;
  const m = roundMesh(f, surface.mask, { radius: board.thickness, long: board.x }, MESH_CELLS);
  const c = new Color();
  const colours = new Float32Array(m.colours.length);
  for (let k = 0; k < colours.length; k += 3) {
    c.setRGB(m.colours[k] / 255, m.colours[k + 1] / 255, m.colours[k + 2] / 255, 'srgb');
    colours.set([c.r, c.g, c.b], k);
  }
  const g = new BufferGeometry();
  g.setAttribute('position', new BufferAttribute(m.positions, 3));
  g.setAttribute('color', new BufferAttribute(colours, 3));
  g.setIndex(new BufferAttribute(m.index, 1));
  g.computeVertexNormals();
  return g;
}

/** The board to be turned about. */
export function TurnView({ job, surface }: { job: SetupView; surface: Surface }) {
  const round = job.board.drum !== null;
  const geometry = useMemo(() => (round ? drum : solid)(job, surface), [round, job, surface]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const far = Math.max(job.board.x, round ? 2 * job.board.thickness : job.board.y);
  return (
    <Canvas
      frameloop="demand"
      dpr={1}
      gl={{ antialias: false }}
      camera={{ position: [0, -0.82 * far, 0.92 * far], up: [0, 0, 1], near: far / 100, far: far * 10, fov: 38 }}
    >
      <ambientLight intensity={0.75} />
      {(round ? OVER_DRUM : OVER_BOARD).map(({ from: [x, y, z], intensity }) => (
        <directionalLight key={x} position={[x * far, y * far, z * far]} intensity={intensity} />
      ))}
      <mesh geometry={geometry}>
        <meshLambertMaterial vertexColors />
      </mesh>
      <TurnControls
        label={`The ${round ? 'drum' : 'board'}; the arrow keys turn it, + and - come closer and go further`}
      />
    </Canvas>
  );
}
