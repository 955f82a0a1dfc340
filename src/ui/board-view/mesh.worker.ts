import { expose, transfer } from 'comlink';
import type { HeightField } from '@/core/field/height-field';
import { type Block, boardMesh, MOST_TRIANGLES, withinTriangles } from './board-mesh';
import type { Mesh } from './mesh';
import { pieceOf } from './piece';
import { roundMesh } from './round-mesh';

/** What is turned about: a board, with its waste or the piece alone, or a drum. */
export type Turned =
  | { kind: 'board'; block: Omit<Block, 'shown'>; alone: boolean }
  | { kind: 'drum'; field: HeightField; mask: Uint8Array; radius: number; long: number };

/** Samples along the longer side: what software rendering still turns at once, and what is looked at while it rests. */
const SAMPLES = { turning: 360, resting: 800 };

const api = {
  /** What is turned about as a mesh: to be turned, or to be looked at. */
  mesh(t: Turned, how: 'turning' | 'resting'): Mesh {
    const made = withinTriangles((n) => meshOf(t, n), SAMPLES[how], MOST_TRIANGLES[how]);
    return transfer(made, [made.positions.buffer, made.normals.buffer, made.colours.buffer, made.index.buffer]);
  },
};

function meshOf(t: Turned, samples: number): Mesh {
  if (t.kind === 'drum') return roundMesh(t.field, t.mask, t, samples);
  const { grid, board, ...sides } = t.block;
  const shown = t.alone ? pieceOf({ ...grid, ...sides, thickness: board.thickness }) : null;
  return boardMesh({ ...t.block, shown }, samples);
}

export type MeshApi = typeof api;

expose(api);
