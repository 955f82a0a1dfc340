import { type Op, opOf } from '../arrange/compose';
import { isGroove } from '../arrange/grooves';
import type { Rendered } from '../arrange/rendered';
import type { Walls } from '../arrange/vee-walls';
import type { Layer } from '../doc/layer';
import { AIR, type Grid } from '../field/height-field';

/** As plans see it: round a drum V grooves are what their bit leaves that runs along them, so that their layers cover the ground and leave it as it is. */
export function plannedOp(l: Layer, rendered: Rendered, walls: Walls | null, { drum }: Grid): Op {
  const op = opOf(l, rendered, walls);
  if (!drum || !isGroove(l)) return op;
  return {
    ...op,
    lift: 0,
    walls: null,
    rendered: { ...rendered, heights: rendered.heights.map((h) => (h === AIR ? h : 0)) },
  };
}
