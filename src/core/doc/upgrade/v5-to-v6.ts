import { type Raw, withPasses } from './raw';

const AREA_KINDS = ['rough', 'flat', 'letter', 'finish'];

/** Brings a job document of version 5 to version 6, whose passes over an area can be kept in reserve: none is. */
export function v5ToV6(raw: Raw): unknown {
  const own = (p: Raw) => (AREA_KINDS.includes(String(p.kind)) ? { reserve: false, ...p } : p);
  return { ...withPasses(raw, own), version: 6 };
}
