import type { Drawn } from '../arrange/edges';
import { MASK } from '../arrange/target';
import type { DrawingGrid } from '../arrange/window';
import { gridOf, type HeightField } from '../field/height-field';
import { localHost } from '../kernels/host';
import { cutSlots, type Slot } from '../passes/slots';
import { type Deepest, type Look, type Looking, lookAt, type ToLookAt } from '../proof/closer';
import { type Drawing, drawerOf } from './draw-window';

/** What a closer look is made with: the layers, where they are seated, what is cut into them, and the moves. */
export interface CloserLook {
  drawing: Drawing;
  /** Height of the base plane, mm over the board's top. */
  datum: number;
  slots: Slot[];
  at: Looking;
}

/** Work that is done piece by piece: what all pieces have in common, a piece, and what it gives. All of it is plain data. */
export interface Works {
  draw: { common: Drawing; piece: DrawingGrid; done: Drawn };
  closer: { common: CloserLook; piece: ToLookAt; done: Deepest };
}

/** Does work piece by piece, in this thread or spread over others, in any order. */
export interface Threads {
  /** @param each told what every piece gives, and the piece's place in the list */
  work<K extends keyof Works>(
    name: K,
    common: Works[K]['common'],
    pieces: Works[K]['piece'][],
    each: (done: Works[K]['done'], n: number) => void,
  ): Promise<void>;
}

/** The target on finer windows: drawn from the layers, seated, with slots as their bits leave them. */
function lookOf({ drawing, datum, slots }: CloserLook): Look {
  const draw = drawerOf(drawing);
  return async (g) => {
    const { z, cover } = draw(g);
    const field: HeightField = { ...gridOf(g), data: z.map((v, k) => (cover[k] ? Math.min(0, datum + v) : datum)) };
    const mask = new Uint8Array(z.length).fill(MASK.cut);
    const opened = await cutSlots({ field, mask, outside: new Float32Array(0), ground: datum }, slots, localHost);
    return { field: opened.target.field, seen: cover };
  };
}

type Workers = {
  [K in keyof Works]: (common: Works[K]['common']) => (piece: Works[K]['piece']) => Promise<Works[K]['done']>;
};

const WORKERS: Workers = {
  draw: (drawing) => {
    const draw = drawerOf(drawing);
    return async (g) => draw(g);
  },
  closer: (common) => {
    const look = lookOf(common);
    return (window) => lookAt(window, common.at, look, localHost);
  },
};

/** How work of a name is done, once for all of its pieces. */
export const workerOf = <K extends keyof Works>(name: K, common: Works[K]['common']): ReturnType<Workers[K]> =>
  WORKERS[name](common as never) as ReturnType<Workers[K]>;

/** All work in this thread. */
export const oneThread: Threads = {
  work: async (name, common, pieces, each) => {
    const work = workerOf(name, common);
    for (const [n, piece] of pieces.entries()) each(await work(piece), n);
  },
};
