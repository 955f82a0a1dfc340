type Raw = Record<string, unknown>;

const isObject = (v: unknown): v is Raw => typeof v === 'object' && v !== null && !Array.isArray(v);
/** What a function makes of every entry of a list; what is no list is handed on for reading to refuse. */
const each = (v: unknown, f: (v: Raw) => unknown) => (Array.isArray(v) ? v.map((e) => (isObject(e) ? f(e) : e)) : v);

/** Kinds of pass that version 4 asks which way they mill. */
const MILLING = ['rough', 'flat', 'finish'];

/** Brings a job document of version 3 to version 4, whose passes say which way they mill: as it comes, as before. The same programs are cut. */
export function v3ToV4(raw: Raw): unknown {
  const pass = (p: Raw) => (MILLING.includes(String(p.kind)) ? { milling: 'either', ...p } : p);
  const setup = (s: Raw) => ({ ...s, passes: each(s.passes, pass) });
  return { ...raw, version: 4, boards: each(raw.boards, (b) => ({ ...b, setups: each(b.setups, setup) })) };
}
