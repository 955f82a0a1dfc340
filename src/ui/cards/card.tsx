import type { ReactNode } from 'react';

/** The side card: a name, one sentence of consequence, then the numbers. */
export function Card({
  title,
  subtitle,
  mark,
  children,
}: {
  title: string;
  subtitle: string;
  mark?: ReactNode;
  children: ReactNode;
}) {
  return (
    <section aria-label={title} className="px-4 py-4">
      <header className="flex items-center gap-3">
        {mark}
        <div>
          <h2 className="slab text-xl leading-tight">{title}</h2>
          <p className="soft text-sm">{subtitle}</p>
        </div>
      </header>
      {children}
    </section>
  );
}

export function Sentence({ children }: { children: ReactNode }) {
  return <p className="py-3 leading-snug">{children}</p>;
}

/** Figures that the choice comes to. */
export function Figures({ items }: { items: [string, string][] }) {
  return (
    <dl className="mt-3 grid grid-cols-3 gap-2">
      {items.map(([value, label]) => (
        <div key={label} className="flex flex-col-reverse justify-end rounded-lg bg-base-200 px-2.5 py-2">
          <dt className="soft text-[12.5px] leading-tight">{label}</dt>
          <dd className="font-semibold">{value}</dd>
        </div>
      ))}
    </dl>
  );
}
