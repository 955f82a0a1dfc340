'use client';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { browser, serverOf } from '../editor/browser';
import { Editor, type EditorState, type Shown, shownOf } from '../editor/editor';

/** An editor with what is shown of it. */
export type Editing = EditorState & Shown & { editor: Editor };

/** The editor of a job; the component is made anew for another job. */
export function useEditor(id: string): Editing {
  const client = useQueryClient();
  const [editor] = useState(
    () =>
      new Editor(
        id,
        serverOf(id, () => void client.invalidateQueries({ queryKey: ['jobs'] })),
        browser,
      ),
  );
  useEffect(() => editor.open(), [editor]);
  const state = useSyncExternalStore(editor.subscribe, editor.get, editor.get);
  return useMemo(() => ({ ...state, ...shownOf(state), editor }), [state, editor]);
}
