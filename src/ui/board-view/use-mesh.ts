import { type Remote, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import { BufferAttribute, BufferGeometry, Color, SRGBColorSpace } from 'three';
import type { Mesh } from './mesh';
import type { MeshApi, Turned } from './mesh.worker';

let worker: Remote<MeshApi> | null = null;
function meshes(): Remote<MeshApi> {
  worker ??= wrap<MeshApi>(new Worker(new URL('./mesh.worker.ts', import.meta.url), { type: 'module' }));
  return worker;
}

/** What a light of 0..255 of a screen is to a renderer, which reckons in linear light. */
const LINEAR = Float32Array.from({ length: 256 }, (_, v) => new Color().setRGB(v / 255, 0, 0, SRGBColorSpace).r);

function geometryOf({ positions, normals, colours, index }: Mesh): BufferGeometry {
  const g = new BufferGeometry();
  g.setAttribute('position', new BufferAttribute(positions, 3));
  g.setAttribute('normal', new BufferAttribute(normals, 3));
  g.setAttribute(
    'color',
    new BufferAttribute(
      Float32Array.from(colours, (v) => LINEAR[v]),
      3,
    ),
  );
  g.setIndex(new BufferAttribute(index, 1));
  return g;
}

export interface Meshes {
  turning: BufferGeometry | null;
  /** Null until it has been worked out: the other one is shown as long. */
  resting: BufferGeometry | null;
}

/** What is turned about as meshes, worked out beside the page; the last ones while others are on their way. */
export function useMeshes(turned: Turned): Meshes {
  const [made, setMade] = useState<Meshes>({ turning: null, resting: null });
  useEffect(() => {
    let wanted = true;
    const make = async () => {
      const turning = geometryOf(await meshes().mesh(turned, 'turning'));
      if (!wanted) return turning.dispose();
      setMade({ turning, resting: null });
      const resting = geometryOf(await meshes().mesh(turned, 'resting'));
      if (!wanted) return resting.dispose();
      setMade({ turning, resting });
    };
    void make();
    return () => {
      wanted = false;
    };
  }, [turned]);
  useEffect(
    () => () => {
      made.turning?.dispose();
    },
    [made.turning],
  );
  useEffect(
    () => () => {
      made.resting?.dispose();
    },
    [made.resting],
  );
  return made;
}
