import { type Raw, withPasses } from './raw';

/** Kinds of pass that version 4 asks which way they mill. */
const MILLING = ['rough', 'flat', 'finish'];

/** Brings a job document of version 3 to version 4, whose passes say which way they mill: as it comes, as before. The same programs are cut. */
export function v3ToV4(raw: Raw): unknown {
  const passes = withPasses(raw, (p) => (MILLING.includes(String(p.kind)) ? { milling: 'either', ...p } : p));
  return { ...passes, version: 4 };
}
