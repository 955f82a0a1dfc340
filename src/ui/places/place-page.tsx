'use client';
import { Copy, Plus, Search, Trash2, Undo2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { putting, removing, type Shelf, type Thing } from '@/core/doc/library';
import { ThemeSwitch } from '../theme-switch';
import { InAndOut } from './in-and-out';
import { shelfFromFile } from './place-files';
import { PlaceLinks } from './place-links';
import { useLibrary } from './use-library';
import { UsedBy } from './used-by';

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
  fresh(all: Thing<K>[]): Thing<K>;
  copy(thing: Thing<K>, all: Thing<K>[]): Thing<K>;
  card(thing: Thing<K>, set: (edit: (t: Thing<K>) => void) => void): ReactNode;
}

/** A place of the shop: its things on the left, the one that is looked at on the right. */
export function PlacePage<K extends Shelf>({ place }: { place: Place<K> }) {
  const { library, uses, error, change, undo, undoable } = useLibrary();
  const [text, setText] = useState('');
  const [chosen, setChosen] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const all = place.sorted([...((library?.[place.shelf] ?? []) as Thing<K>[])]);
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const found = all.filter((t) => {
    const said = `${place.heading(t)} ${place.line(t)}`.toLowerCase();
    return words.every((w) => said.includes(w));
  });
  const thing = all.find((t) => t.id === chosen) ?? found[0];
  const put = (said: string, make: (now: Thing<K>[]) => Thing<K>) =>
    change(said, (now) => {
      const made = make(now[place.shelf] as Thing<K>[]);
      setChosen(made.id);
      setText('');
      return putting(place.shelf, made);
    });
  const set = (edit: (t: Thing<K>) => void) =>
    change(`changed ${thing.name}`, (now) => {
      const next = structuredClone((now[place.shelf] as Thing<K>[]).find((t) => t.id === thing.id) ?? thing);
      edit(next);
      return putting(place.shelf, next);
    });
  const takeIn = async (file: File) => {
    setRefused(null);
    try {
      const wanted = await shelfFromFile(file);
      change(`took in ${file.name}`, () => wanted);
    } catch (e) {
      setRefused((e as Error).message);
    }
  };
  return (
    <div className="mx-auto flex min-h-screen max-w-6xl flex-col px-5 pb-6">
      <header className="flex flex-wrap items-center gap-4 py-4">
        <h1 className="slab text-2xl">{place.title}</h1>
        <div className="flex-1">
          <PlaceLinks here={place.shelf} />
        </div>
        <ThemeSwitch />
      </header>
      {(refused ?? error) && (
        <p role="alert" className="mb-2 text-error">
          {refused ?? error?.message}
        </p>
      )}
      <main className="grid flex-1 items-start gap-5 md:grid-cols-[22rem_1fr]">
        <section aria-label={`All ${place.many}`} className="panel">
          <div className="flex gap-2 border-b border-base-300 p-2">
            <label className="input input-sm flex-1 bg-(--paper)">
              <Search size={14} aria-hidden />
              <input
                type="search"
                value={text}
                placeholder={`Search ${all.length} ${place.many}`}
                aria-label={`Search ${place.many}`}
                onChange={(e) => setText(e.target.value)}
              />
            </label>
            <button
              type="button"
              className="btn btn-primary btn-sm"
              onClick={() => put(`added a ${place.one}`, place.fresh)}
            >
              <Plus size={15} aria-hidden /> Add
            </button>
          </div>
          <ul className="max-h-[34rem] overflow-y-auto p-1">
            {found.map((t) => (
              <li key={t.id}>
                <button
                  type="button"
                  aria-current={t.id === thing?.id}
                  className={`flex w-full items-center gap-3 rounded px-3 py-1.5 text-left text-sm ${t.id === thing?.id ? 'bg-base-300' : 'hover:bg-base-200'}`}
                  onClick={() => setChosen(t.id)}
                >
                  {place.mark(t)}
                  <span className="min-w-0">
                    <b className="block truncate">{place.heading(t)}</b>
                    <span className="soft block">{place.line(t)}</span>
                  </span>
                </button>
              </li>
            ))}
          </ul>
          {library && found.length === 0 && (
            <p className="soft px-4 py-3 text-sm">
              {all.length === 0
                ? `No ${place.many} yet. Add one, or take in a file that another shop has written out.`
                : `None of ${all.length} ${place.many} has “${text}”.`}
            </p>
          )}
          {library && <InAndOut library={library} shelf={place.shelf} onFile={(f) => void takeIn(f)} />}
        </section>
        {thing && (
          <section aria-label={place.heading(thing)} className="panel p-4">
            <div className="mb-2 flex flex-wrap items-center gap-2">
              <h2 className="slab flex-1 text-xl">{place.heading(thing)}</h2>
              {undoable && (
                <button type="button" className="btn btn-ghost btn-sm" onClick={undo} title="Ctrl+Z">
                  <Undo2 size={15} aria-hidden /> Undo: {undoable}
                </button>
              )}
              <button
                type="button"
                className="btn btn-sm"
                onClick={() => put(`duplicated ${thing.name}`, (now) => place.copy(thing, now))}
              >
                <Copy size={15} aria-hidden /> Duplicate
              </button>
              <button
                type="button"
                className="btn btn-sm"
                onClick={() => change(`removed ${thing.name}`, () => removing(place.shelf, thing.id))}
              >
                <Trash2 size={15} aria-hidden /> Remove
              </button>
            </div>
            <UsedBy jobs={uses?.[place.shelf][thing.id]} />
            <div key={thing.id}>{place.card(thing, set)}</div>
          </section>
        )}
        {!thing && undoable && (
          <button type="button" className="btn btn-sm justify-self-start" onClick={undo}>
            <Undo2 size={15} aria-hidden /> Undo: {undoable}
          </button>
        )}
      </main>
    </div>
  );
}
