import { useSyncExternalStore } from 'react';
import { Store } from '../editor/store';
import type { Pace } from './pace';

type Place = { x: number; y: number };

/** The place of the board that is pointed at, mm: kept apart from all else, so that a pointer that moves draws no more than what shows it. */
export class PointerPlace extends Store<{ at: Place | null }> {
  constructor(private readonly pace: Pace) {
    super({ at: null });
  }
  /** Points at another place; under a hand that moves something it is drawn together with that. */
  readonly put = (at: Place | null): void =>
    this.pace.join('pointer', () => {
      const was = this.state.at;
      if (at?.x !== was?.x || at?.y !== was?.y) this.set({ at });
    });
}

export const usePointer = ({ subscribe, get }: PointerPlace): Place | null =>
  useSyncExternalStore(subscribe, get, get).at;
