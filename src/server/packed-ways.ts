import { closeSync, openSync } from 'node:fs';
import type { Bounds } from '../core/outline/polygon';
import { headEnd, packedIn, packStage } from '../core/plan/pack';
import { WayThinner } from '../core/proof/thin-ways';
import { type PassWays, WAY_ARRAYS, WAYS } from '../core/proof/way-parts';
import { bytesAt } from './packed-part';

/** Places that are read at once: 2 MB. */
const CHUNK = 65_536;
/** Most places that are sent: about 4 MB, and more than a screen tells apart. */
export const MOST_PLACES = 140_000;

const START = WAYS.indexOf('start');

/** Reads the ways of a file between two of its places, chunk by chunk. */
function readWays(
  fd: number,
  arrays: ReturnType<typeof packedIn>['arrays'],
  [from, to]: [number, number],
  into: WayThinner,
) {
  const array = (name: string) => {
    const found = arrays.find((a) => a.name === name);
    if (!found) throw new Error(`the file has no ${name}`);
    return found;
  };
  const kinds = array('kind');
  const numbers = WAY_ARRAYS.map(array);
  for (let at = from; at < to; at += CHUNK) {
    const n = Math.min(CHUNK, to - at);
    const kind = bytesAt(fd, kinds.at + at, n);
    const chunk = numbers.map((a) => new Float32Array(bytesAt(fd, a.at + 4 * at, 4 * n).buffer));
    for (let i = 0; i < n; i++)
      into.put(
        at + i === from ? START : kind[i],
        chunk.map((c) => c[i]),
      );
    if (into.count > MOST_PLACES) return;
  }
}

/** Where the ways of a pass lie in a file: from its beginning to that of the next in the same setup. */
function spanOf(passes: PassWays[], pass: string | undefined, all: number): [number, number][] {
  if (pass === undefined) return [[0, all]];
  return passes.flatMap((p, i): [number, number][] => (p.pass === pass ? [[p.from, passes[i + 1]?.from ?? all]] : []));
}

/**
 * The ways of a pass of a setup, or of all its passes, as a picture of a part of the board shows them, packed. Where there are more than are sent
 * they are thinned twice as much, and again.
 * @param fine how far a place may lie from what is kept of its way, mm
 */
export function packedWays(file: string, pass: string | undefined, box: Bounds, fine: number): Uint8Array[] {
  const fd = openSync(file, 'r');
  try {
    const { meta, arrays } = packedIn(bytesAt(fd, 0, headEnd(bytesAt(fd, 0, 8))));
    const all = arrays.find((a) => a.name === 'kind')?.length ?? 0;
    const spans = spanOf((meta as { passes: PassWays[] }).passes, pass, all);
    for (let f = fine; ; f *= 2) {
      const thinner = new WayThinner(box, f);
      for (const span of spans) readWays(fd, arrays, span, thinner);
      const thin = thinner.finish();
      if (thin.kind.length <= MOST_PLACES || f > 1e3)
        return packStage({ meta: { fine: f }, arrays: { kind: thin.kind, ...thin.places } });
    }
  } finally {
    closeSync(fd);
  }
}
