'use client';
import { useSyncExternalStore } from 'react';
import type { LengthUnit } from '@/core/units/length';
import { sayIn } from '@/core/units/say';
import { keptChoice } from './kept-choice';

/** The unit that lengths and feeds are shown in first. */
const choice = keptChoice('zg-unit');
const read = (): LengthUnit => (choice.read() === 'in' ? 'in' : 'mm');

/** Shows lengths and feeds in a unit first from now on, in the whole shop. */
export const chooseUnit = (unit: LengthUnit): void => choice.put(unit);

/** The unit that is shown first, and that a bare number in a field is in. */
export const useUnit = (): LengthUnit => useSyncExternalStore(choice.watch, read, () => 'mm');

/** Tells all lengths and feeds of a screen in the shop's unit; called by the screen before anything in it is drawn. */
export function useSaidUnit(): void {
  sayIn(useUnit());
}

/** Changes between mm and inches for the whole shop. */
export function UnitSwitch() {
  const unit = useUnit();
  const other = unit === 'mm' ? 'in' : 'mm';
  return (
    <button
      type="button"
      className="btn btn-ghost btn-sm px-2"
      aria-label={`Lengths in ${unit}; change to ${other}`}
      title={`Lengths in ${unit}; change to ${other}`}
      onClick={() => chooseUnit(other)}
    >
      {unit}
    </button>
  );
}
