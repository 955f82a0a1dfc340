import type { Cutter } from '../cutter/cutter';
import { z } from '../units/zod';
import { type Machine, machineSchema } from './machine';
import { type Material, materialSchema } from './material';
import { type ShopBit, shopBitSchema } from './own-feeds';
import { type Recipe, recipeSchema } from './recipe';

/** What the shop has: jobs keep copies of what they use. */
export interface Library {
  machines: Machine[];
  cutters: ShopBit[];
  materials: Material[];
  recipes: Recipe[];
}
/** What can stand in one of the shop's places. */
export type Thing<K extends Shelf> = Library[K][number];

export const SHELVES = ['machines', 'cutters', 'materials', 'recipes'] as const;
export type Shelf = (typeof SHELVES)[number];

/** Shelves of which jobs keep copies; a recipe leaves none of itself in a job. */
export const COPIED = ['machines', 'cutters', 'materials'] as const satisfies Shelf[];
export type Copied = (typeof COPIED)[number];
export const isCopied = (shelf: Shelf): shelf is Copied => (COPIED as readonly Shelf[]).includes(shelf);

/** Most things that one change may put or take away. */
const MOST = 2000;
const ids = z.array(z.string().min(1).max(64)).max(MOST);
const shelfIds = z.object({ machines: ids, cutters: ids, materials: ids, recipes: ids });

export const librarySchema = z.object({
  machines: z.array(machineSchema).max(MOST),
  cutters: z.array(shopBitSchema).max(MOST),
  materials: z.array(materialSchema).max(MOST),
  recipes: z.array(recipeSchema).max(MOST),
});

/** A change of what the shop has: things put in, or in the place of those of the same id, things taken away, and their order. */
export const libraryChangeSchema = z.object({
  put: librarySchema,
  remove: shelfIds,
  /** Ids of each shelf in the order in which they are to stand, the first of them first; what is not named stands behind as it stood. */
  order: shelfIds,
});
export type LibraryChange = z.infer<typeof libraryChangeSchema>;

/** A change that changes nothing. */
export const noChange = (): LibraryChange => ({
  put: { machines: [], cutters: [], materials: [], recipes: [] },
  remove: { machines: [], cutters: [], materials: [], recipes: [] },
  order: { machines: [], cutters: [], materials: [], recipes: [] },
});

/** The change that puts a thing on a shelf. */
export function putting<K extends Shelf>(shelf: K, ...things: Thing<K>[]): LibraryChange {
  const change = noChange();
  (change.put[shelf] as Thing<K>[]).push(...things);
  return change;
}

/** The change that takes a thing away. */
export function removing(shelf: Shelf, ...gone: string[]): LibraryChange {
  const change = noChange();
  change.remove[shelf].push(...gone);
  return change;
}

/** The change that lets a thing stand first on its shelf. */
export function first(shelf: Shelf, id: string): LibraryChange {
  const change = noChange();
  change.order[shelf].push(id);
  return change;
}

/** The change that brings back what was there before another change was made. */
export function inverseOf(library: Library, { put, remove }: Pick<LibraryChange, 'put' | 'remove'>): LibraryChange {
  const change = noChange();
  for (const shelf of SHELVES) {
    const had = new Map<string, Thing<typeof shelf>>(library[shelf].map((t) => [t.id, t]));
    for (const { id } of put[shelf]) if (!had.has(id)) change.remove[shelf].push(id);
    const touched = new Set([...put[shelf].map((t) => t.id), ...remove[shelf]]);
    for (const id of touched) {
      const before = had.get(id);
      if (before) (change.put[shelf] as Thing<typeof shelf>[]).push(before);
    }
    change.order[shelf] = library[shelf].map((t) => t.id);
  }
  return change;
}

/** A new thing's id that no other on its shelf has. */
export function freshId(taken: { id: string }[], wish: string): string {
  const stem =
    wish
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 50) || 'new';
  const has = new Set(taken.map((t) => t.id));
  if (!has.has(stem)) return stem;
  for (let n = 2; ; n++) if (!has.has(`${stem}-${n}`)) return `${stem}-${n}`;
}

/** The lowest tool number that no bit has. */
export function freeNumber(cutters: Pick<Cutter, 'number'>[]): number {
  const taken = new Set(cutters.map((c) => c.number));
  let n = 1;
  while (taken.has(n)) n++;
  return n;
}
