import { useCallback, useSyncExternalStore } from 'react';

const asked = new Map<string, MediaQueryList>();

/** A media query, put once: its answer is read at every drawing. */
export function mediaOf(query: string): MediaQueryList {
  const had = asked.get(query) ?? matchMedia(query);
  asked.set(query, had);
  return had;
}

/** Whether the window is as a media query says. */
export function useMedia(query: string): boolean {
  const watch = useCallback(
    (call: () => void) => {
      const media = mediaOf(query);
      media.addEventListener('change', call);
      return () => media.removeEventListener('change', call);
    },
    [query],
  );
  return useSyncExternalStore(
    watch,
    () => mediaOf(query).matches,
    () => false,
  );
}

/** Too narrow for a card beside the board: a tablet held upright, or a phone. */
export const useNarrow = (): boolean => useMedia('(max-width: 1023px)');
/** A phone: to look at things, and to name and tick them. */
export const usePhone = (): boolean => useMedia('(max-width: 639px)');
