import type { Layer } from '@/core/doc/layer';
import type { SetupView } from '@/core/setup/view';
import { duplicateLayers, editLayers, freeGroup, removeLayers, shiftLayers } from '../arrange/actions';
import type { Act } from '../controls/act';
import { notices } from '../controls/notices';
import type { Editor } from '../editor/editor';
import { shownOn } from '../editor/line';
import { copyOfLayers, keepCopied, putIn, readCopied } from './copied';

/** Names of things, as a notice tells them. */
function saidNames(things: { name: string }[]): string {
  const [first, second, ...more] = things.map((l) => l.name);
  if (second === undefined) return first;
  return more.length === 0 ? `${first} and ${second}` : `${first} and ${more.length + 1} more`;
}

/** What acts work with. */
export interface Doing {
  job: SetupView;
  change(edit: (j: SetupView) => void): void;
  editor: Editor;
  setRenaming(id: string | null): void;
}

/** The way back over the change that was just made; where others have been made since, or it has been gone already, nothing else is taken back. */
export function wayBack(editor: Editor): () => void {
  const made = shownOn(editor.get().line);
  return () => {
    const { line } = editor.get();
    if (shownOn(line) === made) editor.undo();
    else if (line.entries.slice(line.at).some((e) => e.document === made)) notices.say('It is back already');
    else notices.say('More has been changed since: Ctrl Z goes back step by step');
  };
}

/** Takes layers away, and says so with the way back. */
export function removeSaid({ job, change, editor }: Doing, ids: readonly string[]): void {
  const some = job.layers.filter((l) => ids.includes(l.id));
  if (some.length === 0) return;
  change((j) => removeLayers(j, [...ids]));
  const back = wayBack(editor);
  editor.select([]);
  notices.say(`${saidNames(some)} removed`, back);
}

/** Puts in what was copied last, and selects it. */
export function pasteCopied({ change, editor }: Doing): void {
  const copied = readCopied();
  if (!copied) return;
  let made: ReturnType<typeof putIn> | null = null;
  change((j) => {
    made = putIn(j, copied);
  });
  const put = made as ReturnType<typeof putIn> | null;
  if (!put) return;
  if ('layers' in put) {
    editor.go('Arrange');
    editor.select(put.layers);
  } else {
    editor.go('Passes');
    editor.showPass(put.pass);
  }
}

/** What can be done with layers. */
export function layerActs(doing: Doing, ids: readonly string[]): Act[] {
  const { job, change, editor } = doing;
  const some = job.layers.filter((l) => ids.includes(l.id));
  const any = some.length > 0;
  const edit = (to: (l: Layer, j: SetupView) => void) => change((j) => editLayers(j, [...ids], (l) => to(l, j)));
  const copy = () => {
    keepCopied(copyOfLayers(job, ids));
    notices.say(`${saidNames(some)} copied: Ctrl V puts it into any job`);
  };
  const grouped = any && some.every((l) => l.group !== null);
  const hidden = any && some.every((l) => l.hidden);
  const locked = any && some.every((l) => l.locked);
  return [
    { name: 'Copy', keys: 'Ctrl C', can: any, run: copy },
    {
      name: 'Cut',
      keys: 'Ctrl X',
      can: any,
      run: () => {
        keepCopied(copyOfLayers(job, ids));
        removeSaid(doing, ids);
      },
    },
    { name: 'Paste', keys: 'Ctrl V', can: true, run: () => pasteCopied(doing) },
    {
      name: 'Duplicate',
      keys: 'Ctrl D',
      can: any,
      run: () => {
        let made: string[] = [];
        change((j) => {
          made = duplicateLayers(j, [...ids]);
        });
        editor.select(made);
      },
    },
    {
      name: 'Group',
      keys: 'Ctrl G',
      can: some.length > 1,
      run: () =>
        change((j) => {
          const name = freeGroup(j.layers);
          editLayers(j, [...ids], (l) => (l.group = name));
        }),
    },
    { name: 'Take out of the group', keys: 'Ctrl Shift G', can: grouped, run: () => edit((l) => (l.group = null)) },
    { name: 'Later in the order', keys: ']', can: any, run: () => change((j) => shiftLayers(j, [...ids], true)) },
    { name: 'Earlier in the order', keys: '[', can: any, run: () => change((j) => shiftLayers(j, [...ids], false)) },
    { name: 'Rename', keys: 'F2', can: some.length === 1, run: () => doing.setRenaming(ids[0]) },
    { name: hidden ? 'Show' : 'Hide', keys: '', can: any, run: () => edit((l) => (l.hidden = !hidden)) },
    { name: locked ? 'Unlock' : 'Lock', keys: '', can: any, run: () => edit((l) => (l.locked = !locked)) },
    {
      name: 'Select all',
      keys: 'Ctrl A',
      can: job.layers.length > 0,
      run: () => editor.select(job.layers.map((l) => l.id)),
    },
    { name: 'Remove', keys: 'Delete', can: any, run: () => removeSaid(doing, ids) },
  ];
}
