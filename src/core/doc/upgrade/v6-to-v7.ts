import { type Raw, withParts } from './raw';

/**
 * Brings a job document of version 6 to version 7: boards say about which axis they are turned over (as before: left to right), how much wood is to be
 * left (as before: 1/16 in) and where they are open on purpose, setups how they find the place of those before them, holes whether dowels go
 * into them. The same programs are cut.
 */
export function v6ToV7(raw: Raw): unknown {
  const parts = withParts(raw, {
    board: (b) => ({ flip: 'about-y', web: 25.4 / 16, openings: [], ...b }),
    setup: (s) => ({ register: 'none', ...s }),
    pass: (p) => (p.kind === 'hole' ? { dowel: null, ...p } : p),
  });
  return { ...parts, version: 7 };
}
