'use client';
import { Copy, Trash2, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { first, isCopied, putting, removing, type Shelf, type Thing } from '@/core/doc/library';
import { useSaidUnit } from '../controls/unit';
import { ShopTools } from '../palette/shop-tools';
import { InAndOut } from './in-and-out';
import { foundIn, type Place } from './place';
import { shelfFromFile } from './place-files';
import { PlaceLinks } from './place-links';
import { ShelfList } from './shelf-list';
import { useLibrary } from './use-library';
import { UsedBy } from './used-by';

/** A place of the shop: its things on the left, the one that is looked at on the right. */
export function PlacePage<K extends Shelf>({ place }: { place: Place<K> }) {
  useSaidUnit();
  const { library, uses, error, change, undo, undoable } = useLibrary();
  const [text, setText] = useState('');
  const [chosen, setChosen] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const all = place.sorted([...((library?.[place.shelf] ?? []) as Thing<K>[])]);
  const thing = all.find((t) => t.id === chosen) ?? foundIn(place, all, text)[0];
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
      change(`imported ${file.name}`, () => wanted);
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
        <ShopTools />
      </header>
      {(refused ?? error) && (
        <p role="alert" className="mb-2 text-error">
          {refused ?? error?.message}
        </p>
      )}
      <main className="grid flex-1 items-start gap-5 md:grid-cols-[22rem_1fr]">
        {library && (
          <ShelfList
            place={place}
            all={all}
            text={text}
            chosen={thing?.id}
            onText={setText}
            onChoose={setChosen}
            onAdd={place.fresh && (() => put(`added a ${place.one}`, place.fresh!))}
          >
            <InAndOut library={library} shelf={place.shelf} onFile={(f) => void takeIn(f)} />
          </ShelfList>
        )}
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
                onClick={() => change(`removed ${thing.name}`, () => removing(place.shelf, thing.id), thing.name)}
              >
                <Trash2 size={15} aria-hidden /> Remove
              </button>
            </div>
            {place.firstFor &&
              (library?.[place.shelf][0]?.id === thing.id ? (
                <p className="mb-1 text-sm font-semibold">It is used for {place.firstFor}.</p>
              ) : (
                <button
                  type="button"
                  className="btn btn-sm mb-1"
                  onClick={() => change(`uses ${thing.name} for ${place.firstFor}`, () => first(place.shelf, thing.id))}
                >
                  Use it for {place.firstFor}
                </button>
              ))}
            {isCopied(place.shelf) && <UsedBy jobs={uses?.[place.shelf][thing.id]} />}
            <div key={thing.id}>{library && place.card(thing, set, library)}</div>
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
