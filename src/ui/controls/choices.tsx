import { type ReactNode, useId } from 'react';
import { Field } from './field';

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
  disabled,
}: {
  label: string;
  value: boolean;
  onChange(v: boolean): void;
  note?: ReactNode;
  disabled?: boolean;
}) {
  return (
    <div className="py-1">
      <label className="flex min-h-8 cursor-pointer items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="checkbox checkbox-sm checkbox-primary"
          checked={value}
          disabled={disabled}
          onChange={(e) => onChange(e.target.checked)}
        />
        {label}
      </label>
      {note && <p className="soft text-[13px] leading-snug">{note}</p>}
    </div>
  );
}
