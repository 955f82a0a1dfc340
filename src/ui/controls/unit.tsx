'use client';
import { useSyncExternalStore } from 'react';
import type { LengthUnit } from '@/core/units/length';

/** Where this browser keeps the unit that lengths and feeds are shown in first. */
const KEY = 'zg-unit';
const watching = new Set<() => void>();

function watch(call: () => void): () => void {
  watching.add(call);
  addEventListener('storage', call);
  return () => {
    watching.delete(call);
    removeEventListener('storage', call);
  };
}
const read = (): LengthUnit => (localStorage.getItem(KEY) === 'in' ? 'in' : 'mm');

/** Shows lengths and feeds in a unit first from now on, in all fields of the shop. */
export function chooseUnit(unit: LengthUnit): void {
  localStorage.setItem(KEY, unit);
  for (const call of watching) call();
}

/** The unit that fields show first, and that a bare number in them is in. */
export const useUnit = (): LengthUnit => useSyncExternalStore(watch, read, () => 'mm');

/** Changes between mm and inches for the fields of the whole shop. */
export function UnitSwitch() {
  const unit = useUnit();
  const other = unit === 'mm' ? 'in' : 'mm';
  return (
    <button
      type="button"
      className="btn btn-ghost btn-sm px-2"
      aria-label={`Fields in ${unit}; change to ${other}`}
      title={`Fields in ${unit}; change to ${other}`}
      onClick={() => chooseUnit(other)}
    >
      {unit}
    </button>
  );
}
