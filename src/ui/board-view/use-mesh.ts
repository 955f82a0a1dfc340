import { useEffect, useState } from 'react';
import { BufferAttribute, BufferGeometry, Color, SRGBColorSpace } from 'three';
import { Hand } from '../workers/hand';
import type { Mesh } from './mesh';
import type { MeshApi, Turned } from './mesh.worker';

const hand = new Hand<MeshApi>(
  'turns the board about',
  () => new Worker(new URL('./mesh.worker.ts', import.meta.url), { type: 'module' }),
);

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
  /** Why there is none; null while there may be. */
  problem: string | null;
}

/** What is turned about as meshes, worked out beside the page; the last ones while others are on their way. */
export function useMeshes(turned: Turned): Meshes {
  const [made, setMade] = useState<Meshes>({ turning: null, resting: null, problem: null });
  useEffect(() => {
    let wanted = true;
    /** A mesh that is still wanted when it has come; null where it is not. */
    const mesh = async (how: 'turning' | 'resting') => {
      const made = geometryOf(await hand.askTwice((m) => m.mesh(turned, how)));
      if (wanted) return made;
      made.dispose();
      return null;
    };
    const make = async () => {
      const turning = await mesh('turning');
      if (!turning) return;
      setMade({ turning, resting: null, problem: null });
      const resting = await mesh('resting');
      if (resting) setMade({ turning, resting, problem: null });
    };
    make().catch((e: Error) => wanted && setMade((was) => ({ ...was, problem: e.message })));
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
