import { useEffect } from 'react';
import type { SetupView } from '@/core/setup/view';
import { duplicateLayers, editLayers, moveLayers, newId, removeLayers, shiftLayers } from '../arrange/actions';
import { STATIONS, type Station } from './stations';
import type { JobState } from './use-job';

const ARROWS: Record<string, [number, number]> = {
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
};

/**
 * Keys of the job screen: 1 to 5 for the stations, Ctrl Z and Ctrl Shift Z; at Arrange the arrows nudge by 1 mm (Shift 10, Alt
 * 0.1), Delete removes, Ctrl D duplicates, Ctrl G groups, [ and ] change the order, Escape lets go.
 */
export function useKeys(
  state: Pick<JobState, 'undo' | 'redo'> & { change(edit: (job: SetupView) => void): void },
  station: Station,
  onStation: (s: Station) => void,
  selected: string[],
  onSelect: (ids: string[]) => void,
): void {
  const { undo, redo, change } = state;
  useEffect(() => {
    const arrange = (e: KeyboardEvent): boolean => {
      if (station !== 'Arrange' || selected.length === 0) return false;
      const ctrl = e.ctrlKey || e.metaKey;
      const arrow = ARROWS[e.key];
      // A focused button or slider has the arrows for itself.
      const own =
        e.target instanceof HTMLElement && e.target.closest('[role="slider"], [aria-roledescription]') !== null;
      if (arrow && !ctrl && !own) {
        const d = e.shiftKey ? 10 : e.altKey ? 0.1 : 1;
        change((j: SetupView) => moveLayers(j, selected, arrow[0] * d, arrow[1] * d));
        return true;
      }
      if (e.key === 'Delete' || e.key === 'Backspace') {
        change((j: SetupView) => removeLayers(j, selected));
        onSelect([]);
        return true;
      }
      if (e.key === 'Escape') {
        onSelect([]);
        return true;
      }
      if (ctrl && e.key.toLowerCase() === 'd') {
        let made: string[] = [];
        change((j: SetupView) => (made = duplicateLayers(j, selected)));
        onSelect(made);
        return true;
      }
      if (ctrl && e.key.toLowerCase() === 'g') {
        const name = `Group ${newId().slice(0, 3)}`;
        change((j: SetupView) => editLayers(j, selected, (l) => (l.group = e.shiftKey ? null : name)));
        return true;
      }
      if (e.key === '[' || e.key === ']') {
        change((j: SetupView) => shiftLayers(j, selected, e.key === ']'));
        return true;
      }
      return false;
    };
    const keys = (e: KeyboardEvent) => {
      if (e.target instanceof HTMLElement && e.target.closest('input, select, textarea') !== null) return;
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z') {
        e.preventDefault();
        if (e.shiftKey) redo();
        else undo();
      } else if (!e.ctrlKey && !e.altKey && !e.metaKey && /^[1-5]$/.test(e.key)) onStation(STATIONS[Number(e.key) - 1]);
      else if (arrange(e)) e.preventDefault();
    };
    addEventListener('keydown', keys);
    return () => removeEventListener('keydown', keys);
  }, [undo, redo, change, station, onStation, selected, onSelect]);
}
