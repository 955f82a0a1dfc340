/** A choice that this browser keeps for the whole shop, under a name; every screen that shows it is told when it changes, in other tabs too. */
export function keptChoice(key: string) {
  const watching = new Set<() => void>();
  return {
    read: (): string | null => localStorage.getItem(key),
    put: (value: string | null): void => {
      if (value === null) localStorage.removeItem(key);
      else localStorage.setItem(key, value);
      for (const call of watching) call();
    },
    watch: (call: () => void): (() => void) => {
      watching.add(call);
      addEventListener('storage', call);
      return () => {
        watching.delete(call);
        removeEventListener('storage', call);
      };
    },
  };
}
