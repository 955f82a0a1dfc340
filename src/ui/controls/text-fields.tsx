import { type ReactNode, useId } from 'react';
import { parseFeed } from '@/core/units/feed';
import { formatLength, MM_PER_INCH, parseLength, trimNumber } from '@/core/units/length';
import { parseNumber } from '@/core/units/number';
import { Field } from './field';
import { Typed } from './typed';
import { useUnit } from './unit';

interface NumberProps {
  label: string;
  /** A sign before the label. */
  mark?: ReactNode;
  value: number;
  onChange(v: number): void;
  note?: ReactNode;
  min?: number;
  max?: number;
  /** Whether exactly `min` is allowed. */
  open?: boolean;
}

/** What is wrong with a value at its bounds, or null. */
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

/** Takes what a reader makes of a text when it lies within its bounds; what is wrong with it, or null. */
function taken(read: () => number, wrong: (v: number) => string | null, put: (v: number) => void): string | null {
  try {
    const v = read();
    const why = wrong(v);
    if (why === null) put(v);
    return why;
  } catch (e) {
    return (e as Error).message;
  }
}

/** A label with a text that is taken as a value. */
function TypedField({
  label,
  mark,
  note,
  ...typed
}: {
  label: string;
  mark?: ReactNode;
  note?: ReactNode;
  shown: string;
  suffix?: string;
  take(text: string): string | null;
}) {
  const id = useId();
  return (
    <Field label={label} mark={mark} note={note} id={id}>
      <Typed id={id} label={label} suffix="" {...typed} />
    </Field>
  );
}

/** How a length is shown and taken in the shop's unit: either unit, fractions and sums. @param places decimals of mm; one more of inches */
function useLength({ value, onChange, ...bounds }: Omit<NumberProps, 'label' | 'note' | 'mark'>, places: number) {
  const unit = useUnit();
  return {
    unit,
    shown: formatLength(value, unit, unit === 'mm' ? places : places + 1),
    take: (text: string) =>
      taken(
        () => parseLength(text, unit),
        (v) => limit(v, bounds, (n) => formatLength(n, unit)),
        (v) => onChange(Number(v.toFixed(5))),
      ),
  };
}

/** A length in mm, shown in the shop's unit first, with the other one beside it. */
export function LengthField({ label, mark, note, ...length }: NumberProps) {
  const { unit, ...typed } = useLength(length, 3);
  const { value } = length;
  const suffix = formatLength(value, unit === 'mm' ? 'in' : 'mm', Math.abs(value) < 1 ? 4 : undefined);
  return <TypedField label={label} mark={mark} note={note} suffix={suffix} {...typed} />;
}

/** A plain number with its unit. @param whole no fractions */
export function NumberField({
  label,
  mark,
  value,
  onChange,
  note,
  suffix,
  whole = false,
  ...bounds
}: NumberProps & { suffix?: string; whole?: boolean }) {
  return (
    <TypedField
      label={label}
      mark={mark}
      note={note}
      shown={trimNumber(value, 4)}
      suffix={suffix}
      take={(text) =>
        taken(
          () => parseNumber(text, whole),
          (v) => limit(v, bounds, (n) => trimNumber(n, 4)),
          onChange,
        )
      }
    />
  );
}

/** How a feed is shown and taken in the shop's unit; the other one and seconds are understood ("60 in/min", "30 mm/s"). */
function useFeed(value: number, onChange: (v: number) => void) {
  const unit = useUnit() === 'in' ? 'in/min' : 'mm/min';
  return {
    shown: unit === 'in/min' ? trimNumber(value / MM_PER_INCH, 2) : trimNumber(value, 1),
    suffix: unit,
    take: (text: string) =>
      taken(
        () => parseFeed(text, unit),
        () => null,
        (v) => onChange(Number(v.toFixed(2))),
      ),
  };
}

/** A feed, mm/min. */
export function FeedField({ label, value, onChange, note }: NumberProps) {
  return <TypedField label={label} note={note} {...useFeed(value, onChange)} />;
}

/** A feed in a table, mm/min. @param label what it is, for who does not see the table */
export function FeedCell({ label, value, onChange }: Pick<NumberProps, 'label' | 'value' | 'onChange'>) {
  const { suffix: _, ...feed } = useFeed(value, onChange);
  return <Typed label={label} {...feed} />;
}

/** A whole number above nothing in a table. @param label what it is, for who does not see the table */
export function WholeCell({ label, value, onChange }: Pick<NumberProps, 'label' | 'value' | 'onChange'>) {
  return (
    <Typed
      label={label}
      shown={trimNumber(value, 0)}
      take={(text) =>
        taken(
          () => parseNumber(text, true),
          (v) => limit(v, { min: 1 }, (n) => trimNumber(n, 0)),
          onChange,
        )
      }
    />
  );
}

/** A length in a table, mm. @param label what it is, for who does not see the table */
export function LengthCell({ label, ...length }: Omit<NumberProps, 'note' | 'mark'>) {
  const { unit: _, ...typed } = useLength(length, 2);
  return <Typed label={label} {...typed} />;
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
  return (
    <TypedField
      label={label}
      shown={value}
      take={(text) => {
        const t = text.trim();
        if (required && t === '') return `${label.toLowerCase()} cannot be empty`;
        if (t.length > max) return `at most ${max} characters, this has ${t.length}`;
        onChange(t);
        return null;
      }}
    />
  );
}
