import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { ask } from '@/contract/ask';
import { SHOP } from '@/contract/shop';
import { inverseOf, type Library, type LibraryChange } from '@/core/doc/library';
import { notices } from '../controls/notices';

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
  const takeBack = (last: Made) =>
    inTurn(async () => {
      await send.mutateAsync(last.back);
      setMade((m) => m.filter((o) => o !== last));
    });
  /**
   * @param change what is to be done to what the shop has when its turn comes
   * @param gone what a notice says is gone by it, with the way back
   */
  const change = (said: string, change: (now: Library) => LibraryChange, gone?: string) =>
    inTurn(async () => {
      const now = client.getQueryData<Library>(['library']);
      if (!now) return;
      const wanted = change(now);
      const back = inverseOf(now, wanted);
      await send.mutateAsync(wanted);
      const done = { said, back };
      setMade((m) => [...m, done].slice(-DEPTH));
      if (gone !== undefined) notices.say(`${gone} removed`, () => takeBack(done));
    });
  const undo = () => {
    const last = made.at(-1);
    if (last) takeBack(last);
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
