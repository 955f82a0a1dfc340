'use client';
import { useEffect, useRef } from 'react';

/** Longest name of anything. */
const MOST = 80;

/** A name that is written where it stands: Enter or going elsewhere keeps it, Escape leaves it as it was. */
export function NameWhereItStands({ name, onDone }: { name: string; onDone(name: string | null): void }) {
  const input = useRef<HTMLInputElement>(null);
  const left = useRef(false);
  useEffect(() => {
    input.current?.focus();
    input.current?.select();
  }, []);
  const done = (to: string | null) => {
    if (left.current) return;
    left.current = true;
    const kept = to?.trim() ?? '';
    onDone(kept !== '' && kept !== name ? kept : null);
  };
  return (
    <input
      ref={input}
      type="text"
      className="input input-sm min-w-0 flex-1 bg-(--paper)"
      aria-label={`New name of ${name}`}
      defaultValue={name}
      maxLength={MOST}
      onBlur={(e) => done(e.target.value)}
      onKeyDown={(e) => {
        if (e.key === 'Enter') done(e.currentTarget.value);
        if (e.key === 'Escape') done(null);
        e.stopPropagation();
      }}
    />
  );
}
