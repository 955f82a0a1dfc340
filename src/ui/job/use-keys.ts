import { useEffect } from 'react';
import type { SetupView } from '@/core/setup/view';
import { duplicateLayers, editLayers, freeGroup, moveLayers, removeLayers, shiftLayers } from '../arrange/actions';
import { wayOnBoard } from '../board-view/layout';
import type { Editor } from '../editor/editor';
import { STATIONS, type Station } from '../editor/place';

const ARROWS: Record<string, [number, number]> = {
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
};

/** Whether a text is being edited there: a field whose text is no longer the value that it shows, or one that shows no value. */
function isEdited(target: EventTarget | null): boolean {
  const isText =
    target instanceof HTMLTextAreaElement ||
    (target instanceof HTMLInputElement && ['text', 'search', 'number', 'password'].includes(target.type));
  return isText && target.value !== (target as HTMLElement).dataset.shown;
}

/**
 * Keys of the job screen: 1 to 5 for the stations, Ctrl Z and Ctrl Shift Z; at Arrange the arrows nudge by 1 mm (Shift 10, Alt
 * 0.1), Delete removes, Ctrl D duplicates, Ctrl G groups, [ and ] change the order, Escape deselects. With a dialog open they are the dialog's own.
 */
export function useKeys({
  editor,
  change,
  station,
  layers: selected,
  turned,
}: {
  editor: Editor;
  change(edit: (job: SetupView) => void): void;
  station: Station;
  layers: string[];
  /** Whether the board is shown half a turn round: an arrow moves things the way that it points. */
  turned: boolean;
}): void {
  useEffect(() => {
    const arrange = (e: KeyboardEvent): boolean => {
      if (station !== 'Arrange' || selected.length === 0) return false;
      const ctrl = e.ctrlKey || e.metaKey;
      const arrow = ARROWS[e.key];
      // A focused button or slider has the arrows for itself.
      const own = e.target instanceof Element && e.target.closest('[role="slider"], [aria-roledescription]') !== null;
      if (arrow && !ctrl && !own) {
        const d = e.shiftKey ? 10 : e.altKey ? 0.1 : 1;
        const [x, y] = wayOnBoard({ turned }, arrow);
        change((j: SetupView) => moveLayers(j, selected, x * d, y * d));
        return true;
      }
      if (e.key === 'Delete' || e.key === 'Backspace') {
        change((j: SetupView) => removeLayers(j, selected));
        editor.select([]);
        return true;
      }
      if (e.key === 'Escape') {
        editor.select([]);
        return true;
      }
      if (ctrl && e.key.toLowerCase() === 'd') {
        let made: string[] = [];
        change((j: SetupView) => (made = duplicateLayers(j, selected)));
        editor.select(made);
        return true;
      }
      if (ctrl && e.key.toLowerCase() === 'g') {
        change((j: SetupView) => {
          const name = freeGroup(j.layers);
          editLayers(j, selected, (l) => (l.group = e.shiftKey ? null : name));
        });
        return true;
      }
      if (e.key === '[' || e.key === ']') {
        change((j: SetupView) => shiftLayers(j, selected, e.key === ']'));
        return true;
      }
      return false;
    };
    const keys = (e: KeyboardEvent) => {
      const { target } = e;
      if (target instanceof HTMLElement && target.closest('[role="dialog"]') !== null) return;
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z') {
        // A text that is being edited has its own way back.
        if (isEdited(target)) return;
        e.preventDefault();
        if (e.shiftKey) editor.redo();
        else editor.undo();
        return;
      }
      if (target instanceof HTMLElement && target.closest('input, select, textarea') !== null) return;
      if (!e.ctrlKey && !e.altKey && !e.metaKey && /^[1-5]$/.test(e.key)) editor.go(STATIONS[Number(e.key) - 1]);
      else if (arrange(e)) e.preventDefault();
    };
    addEventListener('keydown', keys);
    return () => removeEventListener('keydown', keys);
  }, [editor, change, station, selected, turned]);
}
