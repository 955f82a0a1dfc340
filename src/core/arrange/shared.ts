import type { Board } from '../doc/board';
import type { Job } from '../doc/job';
import type { Layer } from '../doc/layer';
import type { Setup } from '../doc/setup';
import { frameBetween } from '../setup/frame';
import { mirroredCopy } from './new-layer';

/** A layer where it stands. */
interface Member {
  setup: Setup;
  layer: Layer;
}

/** The layers of a board by the name that they share; those that share none left out. */
function sharedOn(board: Board): Map<string, Member[]> {
  const out = new Map<string, Member[]>();
  for (const setup of board.setups)
    for (const layer of setup.layers) {
      if (layer.shared === null) continue;
      out.set(layer.shared, [...(out.get(layer.shared) ?? []), { setup, layer }]);
    }
  return out;
}

/** The other layers of a board that are one with a layer, each with its setup. */
export const oneWith = (board: Board, layer: Layer): Member[] =>
  layer.shared === null ? [] : (sharedOn(board).get(layer.shared) ?? []).filter((m) => m.layer.id !== layer.id);

/** What a layer keeps for itself when it follows another: its names, whether it is locked, and what refers to layers of its own setup. */
function following(board: Board, leader: Member, { setup, layer }: Member): Layer {
  const { turned } = frameBetween(board, leader.setup, setup);
  const axis = turned?.about === 'about-x' ? 'y' : 'x';
  const seen = turned ? mirroredCopy(leader.layer, layer.id, axis, board) : structuredClone(leader.layer);
  const { id, name, group, locked, shared } = layer;
  return { ...seen, id, name, group, locked, shared, mask: maskIn(setup, leader, seen, layer) };
}

/** A mask that follows: one by another layer names the layer of this setup that is one with that. Where there is none the layer keeps its own. */
function maskIn(setup: Setup, leader: Member, seen: Layer, own: Layer): Layer['mask'] {
  const { mask } = seen;
  if (mask.kind !== 'layer') return mask;
  const named = leader.setup.layers.find((l) => l.id === mask.layer);
  const here = setup.layers.find((l) => named?.shared != null && l.shared === named.shared);
  return here ? { ...mask, layer: here.id } : own.mask;
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/**
 * Lets layers that are one follow the one of them that has been changed, mirrored where the board is turned over between them; where the board itself
 * has been changed they follow the first. A change of several at once follows the first of these.
 * @param after is changed in place
 */
export function followShared(before: Job, after: Job): void {
  const had = new Map(before.boards.flatMap((b) => b.setups.flatMap((s) => s.layers.map((l) => [l.id, l] as const))));
  for (const board of after.boards) {
    const was = before.boards.find((b) => b.id === board.id);
    const lies = ({ x, y, flip }: Board) => [x, y, flip];
    const moved = was !== undefined && !same(lies(was), lies(board));
    for (const members of sharedOn(board).values()) {
      const changed = members.find(({ layer }) => had.has(layer.id) && !same(had.get(layer.id), layer));
      const leader = changed ?? (moved ? members[0] : undefined);
      if (!leader) continue;
      for (const m of members) if (m !== leader) Object.assign(m.layer, following(board, leader, m));
    }
  }
}

/** Makes a layer one by itself; the last of those that were one with it too. */
export function makeIndependent(board: Board, layer: Layer): void {
  const others = oneWith(board, layer);
  layer.shared = null;
  if (others.length === 1) others[0].layer.shared = null;
}

/** Puts a layer on another setup of its board too, on top of what is there, as one with itself. */
export function putOnToo(board: Board, from: Setup, layer: Layer, to: Setup, id: string): void {
  layer.shared ??= layer.id;
  const copy: Layer = { ...structuredClone(layer), id, mask: { kind: 'none' } };
  to.layers.push(following(board, { setup: from, layer }, { setup: to, layer: copy }));
}
