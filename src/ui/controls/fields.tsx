'use client';
import { type ReactNode, useEffect, useId, useState } from 'react';
import { formatLength, type LengthUnit, MM_PER_INCH, parseLength, trimNumber } from '@/core/units/length';

/** A label with its control, and a consequence or a unit said beside it. */
export function Field({
  label,
  note,
  error,
  id,
  children,
}: {
  label: string;
  note?: ReactNode;
  error?: string | null;
  id?: string;
  children: ReactNode;
}) {
  return (
    <div className="py-1">
      <div className="grid grid-cols-[6.6rem_1fr] items-center gap-2">
        <label htmlFor={id} className="soft text-sm leading-tight">
          {label}
        </label>
        <div>{children}</div>
      </div>
      {error ? (
        <p role="alert" className="mt-1 text-[13px] text-error">
          {error}
        </p>
      ) : (
        note && <p className="soft mt-0.5 ml-[7.1rem] text-[13px] leading-snug">{note}</p>
      )}
    </div>
  );
}

interface NumberProps {
  label: string;
  value: number;
  onChange(v: number): void;
  note?: ReactNode;
  min?: number;
  max?: number;
  /** Whether exactly `min` is allowed. */
  open?: boolean;
}

function limit(
  v: number,
  { min, max, open }: Pick<NumberProps, 'min' | 'max' | 'open'>,
  show: (v: number) => string,
): string | null {
  if (min !== undefined && (open ? v <= min : v < min))
    return `${show(v)} must be ${open ? 'more than' : 'at least'} ${show(min)}`;
  if (max !== undefined && v > max) return `${show(v)} must be at most ${show(max)}`;
  return null;
}

/** A text box that takes a value when it is left or Enter is pressed, and keeps what cannot be read with the reason. */
function Typed({
  id,
  shown,
  suffix,
  label,
  take,
}: {
  id: string;
  shown: string;
  suffix: string;
  label: string;
  take(text: string): string | null;
}) {
  const [text, setText] = useState(shown);
  const [error, setError] = useState<string | null>(null);
  useEffect(() => {
    setText(shown);
    setError(null);
  }, [shown]);
  const commit = () => {
    if (text.trim() === shown) return setError(null);
    const wrong = take(text);
    setError(wrong);
  };
  return (
    <>
      <label className={`input input-sm w-full bg-(--paper) ${error ? 'input-error' : ''}`}>
        <input
          id={id}
          aria-label={label}
          aria-invalid={error !== null}
          value={text}
          autoComplete="off"
          onChange={(e) => setText(e.target.value)}
          onBlur={commit}
          onKeyDown={(e) => {
            if (e.key === 'Enter') commit();
            if (e.key === 'Escape') {
              setText(shown);
              setError(null);
            }
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

/** A length in mm: takes either unit, fractions and sums, and shows the other unit beside it. */
export function LengthField({
  label,
  value,
  onChange,
  note,
  min,
  max,
  open,
  unit = 'mm',
}: NumberProps & { unit?: LengthUnit }) {
  const id = useId();
  const digits = unit === 'mm' ? 3 : 4;
  return (
    <Field label={label} note={note} id={id}>
      <Typed
        id={id}
        label={label}
        shown={formatLength(value, unit, digits)}
        suffix={formatLength(value, unit === 'mm' ? 'in' : 'mm', Math.abs(value) < 1 ? 4 : undefined)}
        take={(text) => {
          try {
            const v = parseLength(text, unit);
            const wrong = limit(v, { min, max, open }, (n) => formatLength(n, unit));
            if (!wrong) onChange(Number(v.toFixed(5)));
            return wrong;
          } catch (e) {
            return (e as Error).message;
          }
        }}
      />
    </Field>
  );
}

/** A plain number with its unit. @param whole no fractions */
export function NumberField({
  label,
  value,
  onChange,
  note,
  min,
  max,
  open,
  suffix = '',
  whole = false,
}: NumberProps & { suffix?: string; whole?: boolean }) {
  const id = useId();
  return (
    <Field label={label} note={note} id={id}>
      <Typed
        id={id}
        label={label}
        shown={trimNumber(value, 4)}
        suffix={suffix}
        take={(text) => {
          const v = Number(
            text
              .trim()
              .replace(',', '.')
              .replace(/[^\d.eE+-]+$/, ''),
          );
          if (text.trim() === '' || !Number.isFinite(v)) return `"${text}" is not a number`;
          if (whole && !Number.isInteger(v)) return `${trimNumber(v, 4)} is not a whole number`;
          const wrong = limit(v, { min, max, open }, (n) => trimNumber(n, 4));
          if (!wrong) onChange(v);
          return wrong;
        }}
      />
    </Field>
  );
}

/** A feed in mm/min; inches and seconds are understood ("60 in/min", "30 mm/s"). */
export function FeedField({ label, value, onChange, note }: NumberProps) {
  const id = useId();
  return (
    <Field label={label} note={note} id={id}>
      <Typed
        id={id}
        label={label}
        shown={trimNumber(value, 1)}
        suffix="mm/min"
        take={(text) => {
          const m = /^\s*(\d*\.?\d+)\s*(mm\/min|mm\/s|in\/min|ipm|in\/s)?\s*$/i.exec(text.replace(',', '.'));
          if (!m) return `"${text}" is not a feed; write it like "1800", "30 mm/s" or "70 in/min"`;
          const u = (m[2] ?? 'mm/min').toLowerCase();
          const v = Number(m[1]) * (u.startsWith('in') || u === 'ipm' ? MM_PER_INCH : 1) * (u.endsWith('/s') ? 60 : 1);
          if (!(v > 0)) return 'a feed must be more than 0';
          onChange(Number(v.toFixed(2)));
          return null;
        }}
      />
    </Field>
  );
}

export function TextField({
  label,
  value,
  onChange,
  max,
  required,
}: {
  label: string;
  value: string;
  onChange(v: string): void;
  max: number;
  required?: boolean;
}) {
  const id = useId();
  return (
    <Field label={label} id={id}>
      <Typed
        id={id}
        label={label}
        shown={value}
        suffix=""
        take={(text) => {
          const t = text.trim();
          if (required && t === '') return `${label.toLowerCase()} cannot be empty`;
          if (t.length > max) return `at most ${max} characters, this has ${t.length}`;
          onChange(t);
          return null;
        }}
      />
    </Field>
  );
}

export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  note,
}: {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange(v: T): void;
  note?: ReactNode;
}) {
  const id = useId();
  return (
    <Field label={label} note={note} id={id}>
      <select
        id={id}
        className="select select-sm w-full bg-(--paper) pr-7 text-ellipsis"
        value={value}
        onChange={(e) => onChange(e.target.value as T)}
      >
        {options.map(([v, text]) => (
          <option key={v} value={v}>
            {text}
          </option>
        ))}
      </select>
    </Field>
  );
}

export function Tick({
  label,
  value,
  onChange,
  note,
}: {
  label: string;
  value: boolean;
  onChange(v: boolean): void;
  note?: ReactNode;
}) {
  return (
    <div className="py-1">
      <label className="flex min-h-8 cursor-pointer items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="checkbox checkbox-sm checkbox-primary"
          checked={value}
          onChange={(e) => onChange(e.target.checked)}
        />
        {label}
      </label>
      {note && <p className="soft text-[13px] leading-snug">{note}</p>}
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
