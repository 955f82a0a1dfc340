'use client';
import { Canvas } from '@react-three/fiber';
import { useMemo, useState } from 'react';
import { type HeightField, nearestCell } from '@/core/field/height-field';
import type { SetupView } from '@/core/setup/view';
import type { Surface } from '../job/surface';
import type { Turned } from './mesh.worker';
import { type EyeLight, TurnControls } from './turn-controls';
import { useMeshes } from './use-mesh';

/** Light from the eye's side, from which the board is seen, and a little from aside, so that slopes of both ways differ; shares of the size. */
const LIGHTS: readonly EyeLight[] = [
  { at: [-0.9, 0.8, 0.6], intensity: 2 },
  { at: [0.9, -0.3, 0.4], intensity: 0.6 },
];
/** Light from everywhere: that of the sky, and what the ground gives back. */
const AROUND = { sky: '#fffaf0', ground: '#b9a88a', intensity: 1.1 };

/** What is seen of a surface on its own grid: the whole board as all setups leave it where both sides are proven, else this setup's. */
function turnedOf({ board }: SetupView, surface: Surface, alone: boolean): Turned {
  const { proven, web, cut, target, under, mask } = surface;
  if (board.drum) return { kind: 'drum', field: cut ?? target, mask, radius: board.thickness, long: board.x };
  const whole = proven && web ? { ...web.grid, data: web.heights } : null;
  const f = whole ?? cut ?? target;
  const { x, y, thickness } = board;
  const { width, height, cell, originX, originY } = f;
  const grid = { width, height, cell, originX, originY };
  return {
    kind: 'board',
    alone,
    block: { grid, top: f.data, under: under && underOn(f, under), mask, board: { x, y, thickness } },
  };
}

/** The underside on the cells of the top. */
function underOn(f: HeightField, under: HeightField): Float32Array {
  if (under.data.length === f.data.length) return under.data;
  return f.data.map((_, k) =>
    Math.min(
      0,
      under.data[nearestCell(under, f.originX + (k % f.width) * f.cell, f.originY + Math.floor(k / f.width) * f.cell)],
    ),
  );
}

/** The board to be turned about: with all that is left of it, or the piece alone as it will look. */
export function TurnView({ job, surface, alone }: { job: SetupView; surface: Surface; alone: boolean }) {
  const [turning, setTurning] = useState(false);
  const round = job.board.drum !== null;
  const turned = useMemo(() => turnedOf(job, surface, alone), [job, surface, alone]);
  const meshes = useMeshes(turned);
  const geometry = (turning ? meshes.turning : meshes.resting) ?? meshes.turning;
  const far = Math.max(job.board.x, round ? 2 * job.board.thickness : job.board.y);
  return (
    <>
      <Canvas
        frameloop="demand"
        dpr={1}
        gl={{ antialias: true }}
        camera={{ position: [0, -0.82 * far, 0.92 * far], up: [0, 0, 1], near: far / 100, far: far * 10, fov: 38 }}
      >
        <hemisphereLight args={[AROUND.sky, AROUND.ground, AROUND.intensity]} position={[0, 0, 1]} />
        {geometry && (
          <mesh geometry={geometry}>
            <meshLambertMaterial vertexColors />
          </mesh>
        )}
        <TurnControls
          far={far}
          lights={LIGHTS}
          onTurning={setTurning}
          label={`The ${round ? 'drum' : 'board'}; the arrow keys turn it, + and - come closer and go further`}
        />
      </Canvas>
      {meshes.problem ? (
        <p role="alert" className="absolute inset-x-0 top-8 text-center text-sm text-error">
          The board cannot be turned about: {meshes.problem}.
        </p>
      ) : (
        !geometry && (
          <p role="status" className="absolute inset-0 flex items-center justify-center text-sm">
            Working out how it stands.
          </p>
        )
      )}
    </>
  );
}
