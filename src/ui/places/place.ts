import type { ReactNode } from 'react';
import type { Library, Shelf, Thing } from '@/core/doc/library';

/** One of the shop's places: what stands in it, and how one thing is shown, found, made and copied. */
export interface Place<K extends Shelf> {
  shelf: K;
  title: string;
  /** One thing, and several, in words. */
  one: string;
  many: string;
  /** All in the order in which they are listed. */
  sorted(all: Thing<K>[]): Thing<K>[];
  /** Its picture, its heading and its line in the list; the line is searched too. */
  mark(thing: Thing<K>): ReactNode;
  heading(thing: Thing<K>): string;
  line(thing: Thing<K>): string;
  /** A new thing; null where they are made elsewhere, as `howTo` says. */
  fresh: ((all: Thing<K>[]) => Thing<K>) | null;
  howTo?: string;
  copy(thing: Thing<K>, all: Thing<K>[]): Thing<K>;
  /** What stands first on the shelf is for, where that matters. */
  firstFor?: string;
  card(thing: Thing<K>, set: (edit: (t: Thing<K>) => void) => void, library: Library): ReactNode;
}

/** What of a place a search for some words finds. */
export function foundIn<K extends Shelf>(place: Place<K>, all: Thing<K>[], text: string): Thing<K>[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  return all.filter((t) => {
    const said = `${place.heading(t)} ${place.line(t)}`.toLowerCase();
    return words.every((w) => said.includes(w));
  });
}
