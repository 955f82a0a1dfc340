'use client';
import { createContext, useContext, useState } from 'react';
import type { Draft, Drafts } from '../editor/drafts';

/** Where texts that are no values yet are kept, and what the fields below belong to. */
export const DraftsOf = createContext<{ drafts: Drafts; card: string } | null>(null);

/** The text of a field that is not its value: it goes when the value does, and outlives a reload. */
export function useDraft(label: string, shown: string) {
  const kept = useContext(DraftsOf);
  const name = `${kept?.card ?? ''} ${label}`;
  const [held, hold] = useState<{ name: string; of: string; draft: Draft | null }>();
  const mine = held?.name === name && held.of === shown;
  const draft = mine ? held.draft : (kept?.drafts.get(name, shown) ?? null);
  const put = (next: Draft | null) => {
    hold({ name, of: shown, draft: next });
    kept?.drafts.put(name, shown, next);
  };
  return { draft, put };
}

/** A text box that takes a value when it is left or Enter is pressed, and keeps what cannot be read with the reason. */
export function Typed({
  id,
  shown,
  suffix,
  label,
  take,
}: {
  id?: string;
  shown: string;
  suffix?: string;
  label: string;
  /** Takes the text as the value; what is wrong with it, or null. */
  take(text: string): string | null;
}) {
  const { draft, put } = useDraft(label, shown);
  const text = draft?.text ?? shown;
  const error = draft?.error ?? null;
  const commit = () => {
    if (!draft) return;
    const wrong = text.trim() === shown ? null : take(text);
    put(wrong === null ? null : { text, error: wrong });
  };
  return (
    <>
      <label className={`input input-sm w-full bg-(--paper) ${error ? 'input-error' : ''}`}>
        <input
          id={id}
          aria-label={label}
          aria-invalid={error !== null}
          value={text}
          // Undo is the text's own while it is another than this.
          data-shown={shown}
          autoComplete="off"
          onChange={(e) => put({ text: e.target.value, error })}
          onBlur={commit}
          onKeyDown={(e) => {
            if (e.key === 'Enter') commit();
            if (e.key === 'Escape') put(null);
          }}
        />
        {suffix && <span className="soft text-xs whitespace-nowrap">{suffix}</span>}
      </label>
      {error && (
        <p role="alert" className="mt-1 text-[13px] leading-snug text-error">
          {error}
        </p>
      )}
    </>
  );
}
