import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { ask } from '@/contract/ask';
import { SHOP } from '@/contract/shop';
import { inverseOf, type Library, type LibraryChange } from '@/core/doc/library';

/** A change that was made, in words, and what brings back what was there before it. */
interface Made {
  said: string;
  back: LibraryChange;
}

/** Most changes that can be undone. */
const DEPTH = 100;

/** What the shop has, how it is changed, and the way back from each change made here. */
export function useLibrary() {
  const client = useQueryClient();
  const library = useQuery({ queryKey: ['library'], queryFn: () => ask(SHOP.library, {}) });
  const uses = useQuery({ queryKey: ['library', 'uses'], queryFn: () => ask(SHOP.uses, {}) });
  const [made, setMade] = useState<Made[]>([]);
  // Changes go one after the other: each is the inverse of what stood when its turn came.
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const send = useMutation({
    mutationFn: (change: LibraryChange) => ask(SHOP.changeLibrary, {}, change),
    onSuccess: (now) => client.setQueryData<Library>(['library'], now),
  });
  const inTurn = (work: () => Promise<unknown>) => {
    queue.current = queue.current.then(work, work).catch(() => {});
  };
  /** @param change what is to be done to what the shop has when its turn comes */
  const change = (said: string, change: (now: Library) => LibraryChange) =>
    inTurn(async () => {
      const now = client.getQueryData<Library>(['library']);
      if (!now) return;
      const wanted = change(now);
      const back = inverseOf(now, wanted);
      await send.mutateAsync(wanted);
      setMade((m) => [...m, { said, back }].slice(-DEPTH));
    });
  const undo = () => {
    const last = made.at(-1);
    if (!last) return;
    inTurn(async () => {
      await send.mutateAsync(last.back);
      setMade((m) => m.filter((o) => o !== last));
    });
  };
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      // In a field whose text is being edited the keys are the text's own.
      if (e.target instanceof HTMLInputElement && e.target.type !== 'checkbox') return;
      if ((e.ctrlKey || e.metaKey) && !e.shiftKey && e.key === 'z') undo();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  return {
    library: library.data,
    uses: uses.data,
    error: send.error ?? library.error,
    change,
    undo,
    undoable: made.at(-1)?.said ?? null,
  };
}
