/** A part of a document as it was stored. */
export type Raw = Record<string, unknown>;

export const isObject = (v: unknown): v is Raw => typeof v === 'object' && v !== null && !Array.isArray(v);

/** What a function makes of every entry of a list; what is no list is handed on for reading to refuse. */
const each = (v: unknown, f: (v: Raw) => unknown) => (Array.isArray(v) ? v.map((e) => (isObject(e) ? f(e) : e)) : v);

/** A document with what a function makes of each of its passes. */
export function withPasses(raw: Raw, pass: (p: Raw) => Raw): Raw {
  const setup = (s: Raw) => ({ ...s, passes: each(s.passes, pass) });
  return { ...raw, boards: each(raw.boards, (b) => ({ ...b, setups: each(b.setups, setup) })) };
}
