import { useSyncExternalStore } from 'react';
import { keptChoice } from './kept-choice';

/** Off where single characters do nothing by themselves: for those who speak to the browser, or whose hand rests on the keys. */
const choice = keptChoice('zg-single-keys');

/** Lets single keys work, or switches them off, in the whole shop. */
export const allowSingleKeys = (on: boolean): void => choice.put(on ? null : 'off');

/** Whether keys work that are a single character, as 1 to 5 and [ and ]. */
export const useSingleKeys = (): boolean =>
  useSyncExternalStore(
    choice.watch,
    () => choice.read() === null,
    () => true,
  );
