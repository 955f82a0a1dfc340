import { type Raw, withPasses } from './raw';

/** Brings a job document of version 4 to version 5, whose finishing passes say what lines they follow: rows, as before. */
export function v4ToV5(raw: Raw): unknown {
  return { ...withPasses(raw, (p) => (p.kind === 'finish' ? { lines: 'rows', ...p } : p)), version: 5 };
}
