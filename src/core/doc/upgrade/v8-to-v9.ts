import { isObject, type Raw, withParts } from './raw';

/** A rotary axis as version 9 knows it: what an axis of its kind has as a rule; a shop enters its own (common practice, no source). */
const axis = (along: 'x' | 'y') => ({
  along,
  height: 60,
  letter: along === 'x' ? 'A' : 'B',
  maxSpeed: 7200,
  acceleration: 360,
  feed: 'inverse-time',
  degreesCount: false,
  endless: true,
});

/** A machine of version 8, which said of a rotary axis only which way it lies. */
export function machineToV9(raw: unknown): unknown {
  if (!isObject(raw)) return raw;
  const { rotary } = raw;
  if (rotary === 'none') return { ...raw, rotary: null };
  return rotary === 'along-x' || rotary === 'along-y'
    ? { ...raw, rotary: axis(rotary === 'along-x' ? 'x' : 'y') }
    : raw;
}

/**
 * Brings a job document of version 8 to version 9: boards say whether they are drums (as before: none is), and a machine's rotary axis how it is
 * driven. The same programs are cut.
 */
export function v8ToV9(raw: Raw): unknown {
  const same = (p: Raw) => p;
  const parts = withParts(raw, { board: (b) => ({ drum: null, ...b }), setup: same, pass: same });
  return { ...parts, machine: machineToV9(raw.machine), version: 9 };
}
