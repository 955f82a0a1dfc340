import type { ReactNode } from 'react';
import { TermMark } from '../terms/term-mark';

/** A label with its control, above it within a group of fields that are stacked, and a consequence or a unit said beside it. */
export function Field({
  label,
  mark,
  note,
  error,
  id,
  children,
}: {
  label: string;
  /** A sign before the label. */
  mark?: ReactNode;
  note?: ReactNode;
  error?: string | null;
  id?: string;
  children: ReactNode;
}) {
  return (
    <div className="py-1">
      <div className="grid grid-cols-[6.6rem_1fr] items-center gap-2 group-data-stacked/fields:grid-cols-1 group-data-stacked/fields:gap-0.5">
        <div className="soft text-sm leading-tight">
          <label htmlFor={id}>
            {mark} {label}
          </label>{' '}
          <TermMark label={label} />
        </div>
        <div>{children}</div>
      </div>
      {error ? (
        <p role="alert" className="mt-1 text-[13px] text-error">
          {error}
        </p>
      ) : (
        note && (
          <p className="soft mt-0.5 ml-[7.1rem] text-[13px] group-data-stacked/fields:ml-0 leading-snug">{note}</p>
        )
      )}
    </div>
  );
}

/** Numbers that are seldom changed. */
export function Folded({ title, children }: { title: string; children: ReactNode }) {
  return (
    <details className="mt-2 border-t border-base-300 pt-2">
      <summary className="min-h-8 cursor-pointer text-sm font-semibold">{title}</summary>
      <div className="pt-1">{children}</div>
    </details>
  );
}
