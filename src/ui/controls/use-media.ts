import { useCallback, useSyncExternalStore } from 'react';

/** Whether the window is as a media query says. */
export function useMedia(query: string): boolean {
  const watch = useCallback(
    (call: () => void) => {
      const media = matchMedia(query);
      media.addEventListener('change', call);
      return () => media.removeEventListener('change', call);
    },
    [query],
  );
  return useSyncExternalStore(
    watch,
    () => matchMedia(query).matches,
    () => false,
  );
}

/** Too narrow for a card beside the board: a tablet held upright, or a phone. */
export const useNarrow = (): boolean => useMedia('(max-width: 1023px)');
/** A phone: to look at things, and to name and tick them. */
export const usePhone = (): boolean => useMedia('(max-width: 639px)');
