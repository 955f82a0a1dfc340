import { beforeEach, expect, test } from 'vitest';
import { notices } from '../controls/notices';
import type { Editor } from '../editor/editor';
import { emptyBoard } from '../editor/editor-test-kit';
import { altered, type Line, shownOn, stepped } from '../editor/line';
import { wayBack } from './layer-acts';

/** No more of an editor than a way back needs. */
function editing() {
  let line: Line = { entries: [{ id: 'v0', document: emptyBoard() }], at: 0 };
  const step = (by: 1 | -1) => {
    line = stepped(line, by);
  };
  return {
    rename: (name: string) => {
      line = altered(line, (j) => void (j.name = name));
    },
    step,
    name: () => shownOn(line)?.name,
    editor: { get: () => ({ line }), undo: () => step(-1) } as unknown as Editor,
  };
}
const said = () => notices.get().all.map((n) => n.text);

beforeEach(() => {
  for (const n of notices.get().all) notices.leave(n.id);
});

test('the way back takes back the change that it was offered for', () => {
  const { rename, name, editor } = editing();
  rename('removed');
  wayBack(editor)();
  expect(name()).toBe('Board');
  expect(said()).toEqual([]);
});

test('after other changes it takes back none of theirs, and says so', () => {
  const { rename, name, editor } = editing();
  rename('removed');
  const back = wayBack(editor);
  rename('changed since');
  back();
  expect(name()).toBe('changed since');
  expect(said()).toEqual(['More has been changed since: Ctrl Z goes back step by step']);
});

test('what has been taken back already is not taken back twice', () => {
  const { rename, step, name, editor } = editing();
  rename('before');
  rename('removed');
  const back = wayBack(editor);
  step(-1);
  back();
  expect(name()).toBe('before');
  expect(said()).toEqual(['It is back already']);
  step(1);
  back();
  expect(name()).toBe('before');
});
