import type { Effect } from '@/core/arrange/compose';
import type { Join, Layer } from '@/core/doc/layer';
import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';

export const JOIN_NAMES: [Join, string][] = [
  ['stack', 'stack on'],
  ['carve', 'carve into'],
  ['highest', 'highest wins'],
  ['lowest', 'lowest wins'],
  ['blend', 'blend'],
];

const told = (v: number) => sayLength(v, 1);

/** What a layer does to what lies beneath it, in words. */
export function effectText(l: Layer, e: Effect | null, beneath: string): string {
  if (!e || e.covered === 0) return 'It does not lie on the board.';
  if (e.changed === 0)
    return `It changes nothing: what lies beneath is ${l.join === 'lowest' ? 'lower' : 'higher'} everywhere.`;
  const part =
    e.changed < 0.995 * e.covered ? ` over ${trimNumber((100 * e.changed) / e.covered, 0)} % of its plan` : '';
  const raises = e.up > 1e-3 ? `raises ${beneath} by up to ${told(e.up)}` : '';
  const digs = e.down > 1e-3 ? `digs ${told(e.down)} into ${beneath}` : '';
  const what = raises && digs ? `${digs} and ${raises.replace(beneath, 'it')}` : raises || digs;
  return `It ${what}${part}.`;
}
