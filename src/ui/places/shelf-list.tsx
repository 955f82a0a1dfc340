import { Plus, Search } from 'lucide-react';
import type { ReactNode } from 'react';
import type { Shelf, Thing } from '@/core/doc/library';
import { foundIn, type Place } from './place';

interface Props<K extends Shelf> {
  place: Place<K>;
  all: Thing<K>[];
  text: string;
  chosen: string | undefined;
  onText(text: string): void;
  onChoose(id: string): void;
  /** Null where things are made elsewhere. */
  onAdd: (() => void) | null;
  /** What stands under the list. */
  children: ReactNode;
}

/** What stands in a place of the shop, searched by words. */
export function ShelfList<K extends Shelf>({ place, all, text, chosen, onText, onChoose, onAdd, children }: Props<K>) {
  const found = foundIn(place, all, text);
  return (
    <section aria-label={`All ${place.many}`} className="panel">
      <div className="flex gap-2 border-b border-base-300 p-2">
        <label className="input input-sm flex-1 bg-(--paper)">
          <Search size={14} aria-hidden />
          <input
            type="search"
            value={text}
            placeholder={`Search ${all.length} ${all.length === 1 ? place.one : place.many}`}
            aria-label={`Search ${place.many}`}
            onChange={(e) => onText(e.target.value)}
          />
        </label>
        {onAdd && (
          <button type="button" className="btn btn-primary btn-sm" onClick={onAdd}>
            <Plus size={15} aria-hidden /> Add
          </button>
        )}
      </div>
      <ul className="max-h-[34rem] overflow-y-auto p-1">
        {found.map((t) => (
          <li key={t.id}>
            <button
              type="button"
              aria-current={t.id === chosen}
              className={`flex w-full items-center gap-3 rounded px-3 py-1.5 text-left text-sm ${t.id === chosen ? 'bg-base-200 outline-2 outline-primary' : 'hover:bg-base-200'}`}
              onClick={() => onChoose(t.id)}
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
      {found.length === 0 && (
        <p className="soft px-4 py-3 text-sm">
          {all.length === 0
            ? `No ${place.many} yet. ${place.howTo ?? 'Add one'}, or import a file that another shop has written out.`
            : `None of ${all.length} ${place.many} has “${text}”.`}
        </p>
      )}
      {children}
    </section>
  );
}
