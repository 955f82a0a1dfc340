import { isObject, type Raw, withParts } from './raw';

/**
 * Brings a job document of version 9 to version 10: a drum says what is glued on to hold it by and where it is never cut (as before: nothing, and
 * nowhere), and layers whether they were drawn as a drum is seen from the front (as before: none was). The same programs are cut.
 */
export function v9ToV10(raw: Raw): unknown {
  const same = (p: Raw) => p;
  const board = (b: Raw) =>
    isObject(b.drum) ? { ...b, drum: { extended: { chuck: 0, tailStock: 0 }, collar: null, ...b.drum } } : b;
  const setup = (s: Raw) => ({
    ...s,
    layers: Array.isArray(s.layers) ? s.layers.map((l) => (isObject(l) ? { fromFront: false, ...l } : l)) : s.layers,
  });
  return { ...withParts(raw, { board, setup, pass: same }), version: 10 };
}
