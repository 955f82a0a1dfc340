import type { Window } from './window';

/** A layer on the board's grid, only where it is. */
export interface Rendered {
  window: Window;
  /** Heights over its own foot, mm; AIR where it has nothing. */
  heights: Float32Array;
  /** How much of it counts, 0..1; null where it is all or nothing. */
  weight: Float32Array | null;
  /** 1 where a mesh lies under its own base plane; null when nothing does. */
  below: Uint8Array | null;
  /** Share of a mesh's plan under its base plane. */
  lostPlan: number;
  /** Places of a mesh thinner than a cell. */
  thinCells: number;
}
