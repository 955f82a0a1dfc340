'use client';
import { Plus, X } from 'lucide-react';
import { LengthField } from '../controls/fields';

/** Places on the board as numbers, each with what else is known of it. */
export function PlaceList<T extends { x: number; y: number }>({
  name,
  places,
  extra,
  least = 1,
  onChange,
  onAdd,
}: {
  name: string;
  places: T[];
  /** One more length of a place. */
  extra?: { label: string; key: keyof T };
  /** How many there must be. */
  least?: number;
  onChange(f: (places: T[]) => void): void;
  onAdd(): void;
}) {
  const set = (n: number, key: keyof T) => (v: number) => onChange((p) => Object.assign(p[n], { [key]: v }));
  return (
    <div className="py-1">
      <ul className="max-h-64 overflow-y-auto">
        {places.map((p, n) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: places have no other name than their place in the list
          <li key={n} className="border-b border-base-300 py-1">
            <div className="flex items-center justify-between text-sm">
              <span className="soft">
                {name} {n + 1}
              </span>
              <button
                type="button"
                className="btn btn-ghost btn-xs btn-square"
                aria-label={`Remove ${name.toLowerCase()} ${n + 1}`}
                disabled={places.length <= least}
                onClick={() => onChange((list) => list.splice(n, 1))}
              >
                <X size={14} />
              </button>
            </div>
            <LengthField label={`${name} ${n + 1}, x`} value={p.x} onChange={set(n, 'x')} />
            <LengthField label={`${name} ${n + 1}, y`} value={p.y} onChange={set(n, 'y')} />
            {extra && (
              <LengthField
                label={`${name} ${n + 1}, ${extra.label}`}
                value={p[extra.key] as number}
                min={0}
                open
                max={500}
                onChange={set(n, extra.key)}
              />
            )}
          </li>
        ))}
      </ul>
      <button type="button" className="btn btn-sm mt-1.5 w-full" onClick={onAdd}>
        <Plus size={14} /> Add one
      </button>
    </div>
  );
}
