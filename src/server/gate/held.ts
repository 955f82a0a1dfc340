import { Elsewhere } from '../errors';
import type { Gate } from './gate';
import { cameThroughGate } from './mark';

const held = globalThis as typeof globalThis & { zealousGrainGate?: Gate };

/** The gate of this process; null while other devices are not listened to. */
const gate = (): Gate | null => held.zealousGrainGate ?? null;

/** The same for a request at the machine itself. @throws Elsewhere for one that came from another device */
export function devicesFor(headers: Headers): Gate | null {
  if (cameThroughGate(headers))
    throw new Elsewhere('devices are paired and removed at the machine that runs the shop, on its own page');
  return gate();
}

export function holdGate(g: Gate): void {
  held.zealousGrainGate = g;
}
