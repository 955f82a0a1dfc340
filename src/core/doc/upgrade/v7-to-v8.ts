import { isObject, type Raw, withParts } from './raw';

/**
 * Brings a job document of version 7 to version 8: cut-outs say whether they end in the wood (as before: none does), layers whether they are one with
 * others (as before: none is), boards whether they are jigs (as before: none is). The same programs are cut.
 */
export function v7ToV8(raw: Raw): unknown {
  const parts = withParts(raw, {
    board: (b) => ({ jigFor: null, ...b }),
    setup: (s) => ({
      ...s,
      layers: Array.isArray(s.layers) ? s.layers.map((l) => (isObject(l) ? { shared: null, ...l } : l)) : s.layers,
    }),
    pass: (p) => (p.kind === 'cutout' ? { depth: null, ...p } : p),
  });
  return { ...parts, version: 8 };
}
