/** A part of a document as it was stored. */
export type Raw = Record<string, unknown>;

export const isObject = (v: unknown): v is Raw => typeof v === 'object' && v !== null && !Array.isArray(v);

/** What a function makes of every entry of a list; what is no list is handed on for reading to refuse. */
const each = (v: unknown, f: (v: Raw) => unknown) => (Array.isArray(v) ? v.map((e) => (isObject(e) ? f(e) : e)) : v);

/** A document with what functions make of each of its boards, setups and passes. */
export function withParts(
  raw: Raw,
  { board, setup, pass }: Record<'board' | 'setup' | 'pass', (part: Raw) => Raw>,
): Raw {
  const inSetup = (s: Raw) => setup({ ...s, passes: each(s.passes, pass) });
  return { ...raw, boards: each(raw.boards, (b) => board({ ...b, setups: each(b.setups, inSetup) })) };
}

const asIs = (part: Raw) => part;

/** A document with what a function makes of each of its passes. */
export const withPasses = (raw: Raw, pass: (p: Raw) => Raw): Raw => withParts(raw, { board: asIs, setup: asIs, pass });
