import { useHotkeys } from 'react-hotkeys-hook';
import type { Pass } from '@/core/doc/pass';
import type { SetupView } from '@/core/setup/view';
import { moveLayers } from '../arrange/actions';
import { wayOnBoard } from '../board-view/layout';
import type { Act } from '../controls/act';
import { useSingleKeys } from '../controls/single-keys';
import type { Editor } from '../editor/editor';
import { STATIONS, type Station } from '../editor/place';
import { layerActs } from './layer-acts';
import { passActs } from './pass-acts';

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

const inside = (e: KeyboardEvent, where: string): boolean =>
  e.target instanceof Element && e.target.closest(where) !== null;
/** With a dialog or a menu open the keys are its own. */
const isAside = (e: KeyboardEvent): boolean => inside(e, '[role="dialog"], [role="menu"], [role="listbox"]');
/** A slider and what is sorted by keys have the arrows for themselves. */
const hasArrows = (e: KeyboardEvent): boolean => isAside(e) || inside(e, '[role="slider"], [aria-roledescription]');
/** Text that is marked on the page is copied as text. */
const isMarked = (): boolean => (getSelection()?.toString() ?? '') !== '';

/** The key of an act as the hotkeys are told it. */
const hotkey = (keys: string): string => keys.toLowerCase().replace('ctrl', 'mod').replaceAll(' ', '+');

interface KeysOf {
  editor: Editor;
  change(edit: (job: SetupView) => void): void;
  job: SetupView | null;
  station: Station;
  layers: string[];
  pass: Pass | null;
  setRenaming(id: string | null): void;
  /** Whether the board is shown half a turn round: an arrow moves things the way that it points. */
  turned: boolean;
}

/** What the keys do with what is selected at a station. */
function actsAt({ job, station, layers, pass, ...doing }: KeysOf): Act[] {
  if (!job) return [];
  if (station === 'Arrange') return layerActs({ job, ...doing }, layers);
  return station === 'Passes' && pass ? passActs({ job, ...doing }, pass) : [];
}

/**
 * Keys of the job screen: 1 to 5 for the stations, Ctrl Z and Ctrl Y or Ctrl Shift Z; the acts of what is selected by their own; at Arrange the arrows
 * nudge by 1 mm (Shift 10, Alt 0.1) and Escape deselects. They do nothing in a field, and single characters only as long as they are allowed.
 */
export function Keys({ screen: keys }: { screen: KeysOf }): null {
  const { editor, change, station, layers, turned } = keys;
  const single = useSingleKeys();
  // A letter is meant as it stands on the keyboard at hand, wherever that has it.
  const own = { preventDefault: true, useKey: true, ignoreEventWhen: isAside };
  const acts = actsAt(keys);
  const run = (pressed: string) => {
    const act = acts.find((a) => hotkey(a.keys) === pressed);
    if (act?.can) act.run();
  };
  // A text that is being edited has its own way back.
  const steps = {
    ...own,
    enableOnFormTags: true,
    ignoreEventWhen: (e: KeyboardEvent) => isAside(e) || isEdited(e.target),
  };
  useHotkeys('mod+z', editor.undo, steps);
  useHotkeys(['mod+shift+z', 'mod+y'], editor.redo, steps);
  useHotkeys('1,2,3,4,5', (e) => editor.go(STATIONS[Number(e.key) - 1]), { ...own, enabled: single });

  const some = acts.length > 0;
  useHotkeys('mod+d', () => run('mod+d'), { ...own, enabled: some });
  useHotkeys('mod+v', () => run('mod+v'), { ...own, enabled: some });
  useHotkeys('mod+a', () => run('mod+a'), { ...own, enabled: station === 'Arrange' });
  useHotkeys('mod+g', () => run('mod+g'), { ...own, enabled: station === 'Arrange' });
  useHotkeys('mod+shift+g', () => run('mod+shift+g'), { ...own, enabled: station === 'Arrange' });
  const text = { useKey: true, ignoreEventWhen: (e: KeyboardEvent) => isAside(e) || isMarked(), enabled: some };
  useHotkeys('mod+c', () => run('mod+c'), text);
  useHotkeys('mod+x', () => run('mod+x'), text);
  const picked = station === 'Arrange' && layers.length > 0;
  useHotkeys(['delete', 'backspace'], () => run('delete'), {
    ...own,
    useKey: false,
    enabled: station === 'Passes' || picked,
  });
  useHotkeys('f2', () => run('f2'), { ...own, useKey: false, enabled: picked });
  useHotkeys('escape', () => editor.select([]), { ignoreEventWhen: isAside, enabled: picked });
  useHotkeys(['[', ']'], (e) => !e.ctrlKey && !e.metaKey && run(e.key), {
    ...own,
    ignoreModifiers: true,
    enabled: single && picked,
  });
  useHotkeys(
    ['up', 'down', 'left', 'right'],
    (e) => {
      if (e.ctrlKey || e.metaKey) return;
      const d = e.shiftKey ? 10 : e.altKey ? 0.1 : 1;
      const [x, y] = wayOnBoard({ turned }, ARROWS[e.key]);
      change((j) => moveLayers(j, layers, x * d, y * d));
    },
    { preventDefault: true, ignoreModifiers: true, ignoreEventWhen: hasArrows, enabled: picked },
  );
  return null;
}
