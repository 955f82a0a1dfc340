import { useSyncExternalStore } from 'react';

/** Where this browser notes that single letters and digits do nothing by themselves: for those who speak to it, or whose hand rests on the keys. */
const KEY = 'zg-single-keys';
const watching = new Set<() => void>();

function watch(call: () => void): () => void {
  watching.add(call);
  addEventListener('storage', call);
  return () => {
    watching.delete(call);
    removeEventListener('storage', call);
  };
}

/** Lets single keys work, or switches them off, in the whole shop. */
export function allowSingleKeys(on: boolean): void {
  if (on) localStorage.removeItem(KEY);
  else localStorage.setItem(KEY, 'off');
  for (const call of watching) call();
}

/** Whether keys work that are a single character, as 1 to 5 and [ and ]. */
export const useSingleKeys = (): boolean =>
  useSyncExternalStore(
    watch,
    () => localStorage.getItem(KEY) === null,
    () => true,
  );
