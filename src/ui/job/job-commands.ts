import { cutterOf, setupsOf } from '@/core/doc/job';
import { cardOf } from '../cards/kind-registry';
import { STATIONS } from '../editor/place';
import type { Command } from '../palette/commands';
import { fieldCommands } from '../palette/field-commands';
import type { KeyHelp } from '../palette/keys-help';
import { useShopCommands } from '../palette/shop-commands';
import { chooseTheme, isDark } from '../theme-switch';
import type { OpenScreen } from './use-screen';

/** The keys of the job screen. */
export const JOB_KEYS: KeyHelp = [
  [
    'Everywhere',
    [
      ['1 … 5', STATIONS.join(', ')],
      ['Ctrl Z', 'undo'],
      ['Ctrl Y', 'redo; Ctrl Shift Z as well'],
      ['Ctrl K', 'find and do anything by its name'],
      ['?', 'this list'],
    ],
  ],
  [
    'The board',
    [
      ['+ and -', 'closer and further; the wheel where the pointer is'],
      ['0', 'the whole board'],
      ['Space', 'held down: drag the board along'],
    ],
  ],
  [
    'The pass at Passes',
    [
      ['Ctrl C, X, V', 'copy with its bit, cut, paste; into other jobs too'],
      ['Ctrl D', 'duplicate'],
      ['Delete', 'remove'],
    ],
  ],
  [
    'Selected layers, at Arrange',
    [
      ['Arrows', 'move by 1 mm; with Shift 10 mm, with Alt 0.1 mm'],
      ['Delete', 'remove'],
      ['Ctrl C, X, V', 'copy, cut, paste; into other jobs too'],
      ['Ctrl A', 'select all'],
      ['Ctrl D', 'duplicate'],
      ['Ctrl G', 'group; with Shift take out of the group'],
      ['[ and ]', 'earlier and later in the order'],
      ['Escape', 'deselect'],
    ],
  ],
];

/** All that can be done or gone to from a job by its name. */
export function useJobCommands(screen: OpenScreen): () => Command[] {
  const shop = useShopCommands();
  return () => {
    const { editor, job, state, id } = screen;
    const planning = state.plan?.status === 'running' || state.plan?.status === 'queued';
    const doing: [name: string, can: boolean, run: () => void, keys?: string][] = [
      ['Prove the cut', !planning, editor.prove],
      ['Stop proving', planning, editor.cancel],
      ['Undo', state.canUndo, editor.undo, 'Ctrl Z'],
      ['Redo', state.canRedo, editor.redo, 'Ctrl Y'],
    ];
    const setups = setupsOf(job.document);
    return [
      ...STATIONS.map((s, i) => ({
        id: `station ${s}`,
        group: 'Station',
        name: s,
        keys: String(i + 1),
        run: () => editor.go(s),
      })),
      ...doing
        .filter(([, can]) => can)
        .map(([name, , run, keys]) => ({ id: `do ${name}`, group: 'Do', name, keys, run })),
      ...job.passes.map((p) => ({
        id: `pass ${p.id}`,
        group: 'Pass',
        name: `${cardOf(p).label}, ${cutterOf(job, p)?.name ?? 'bit missing'}`,
        run: () => {
          editor.go('Passes');
          editor.showPass(p.id);
        },
      })),
      ...(setups.length > 1 ? setups : []).map(({ board, setup }) => ({
        id: `setup ${setup.id}`,
        group: 'Setup',
        name: `${board.name}, ${setup.name}`,
        run: () => screen.showSetup(setup.id),
      })),
      ...job.layers.map((l) => ({
        id: `layer ${l.id}`,
        group: 'Layer',
        name: l.name,
        run: () => {
          editor.go('Arrange');
          editor.select([l.id]);
        },
      })),
      ...fieldCommands(document.querySelector('aside')),
      { id: 'dark', group: 'Do', name: isDark() ? 'Show it light' : 'Show it dark', run: () => chooseTheme(!isDark()) },
      ...shop(id),
    ];
  };
}
