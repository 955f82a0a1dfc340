'use client';
import { X } from 'lucide-react';
import { useState } from 'react';
import { distanceNow, keepGaps } from '@/core/arrange/place';
import { type Gap, type Seat, THE_BOARD } from '@/core/doc/layer';
import { clean } from '@/core/units/round';
import { sayLength } from '@/core/units/say';
import { Choice, Folded, LengthField } from '../controls/fields';
import { newId } from './actions';
import type { FieldsProps } from './kinds/kind-fields';

/** Which sides a distance is measured between, and its sign, as people say it. */
type Saying = Pick<Gap, 'axis' | 'ofSide' | 'fromSide'> & { sign: 1 | -1 };

/** A layer from another one. */
const SIDES: Record<string, Saying> = {
  'right of': { axis: 'x', ofSide: 'low', fromSide: 'high', sign: 1 },
  'left of': { axis: 'x', ofSide: 'high', fromSide: 'low', sign: -1 },
  above: { axis: 'y', ofSide: 'low', fromSide: 'high', sign: 1 },
  below: { axis: 'y', ofSide: 'high', fromSide: 'low', sign: -1 },
  'level with, x': { axis: 'x', ofSide: 'middle', fromSide: 'middle', sign: 1 },
  'level with, y': { axis: 'y', ofSide: 'middle', fromSide: 'middle', sign: 1 },
  'top over the top of': { axis: 'z', ofSide: 'high', fromSide: 'high', sign: 1 },
  'top under the top of': { axis: 'z', ofSide: 'high', fromSide: 'high', sign: -1 },
  'foot over the top of': { axis: 'z', ofSide: 'low', fromSide: 'high', sign: 1 },
  'foot over the foot of': { axis: 'z', ofSide: 'low', fromSide: 'low', sign: 1 },
};
/** A layer from the board: from its edges inwards, from its top downwards, from its underside upwards. */
const BOARD_SIDES: Record<string, Saying> = {
  'from the left edge': { axis: 'x', ofSide: 'low', fromSide: 'low', sign: 1 },
  'from the right edge': { axis: 'x', ofSide: 'high', fromSide: 'high', sign: -1 },
  'from the near edge': { axis: 'y', ofSide: 'low', fromSide: 'low', sign: 1 },
  'from the far edge': { axis: 'y', ofSide: 'high', fromSide: 'high', sign: -1 },
};
/** How high it lies in the board, where that is said of the board: in one that it is sunk into. */
const BOARD_HEIGHTS: Record<string, Saying> = {
  'with board left beneath': { axis: 'z', ofSide: 'low', fromSide: 'low', sign: 1 },
  "with its top below the board's top": { axis: 'z', ofSide: 'high', fromSide: 'high', sign: -1 },
};

function tableFor(from: string, seat: Seat): Record<string, Saying> {
  if (from !== THE_BOARD) return SIDES;
  return seat.mode === 'sunk' ? { ...BOARD_SIDES, ...BOARD_HEIGHTS } : BOARD_SIDES;
}

function saidOf(g: Gap): { text: string; sign: 1 | -1 } {
  const table = g.from === THE_BOARD ? { ...BOARD_SIDES, ...BOARD_HEIGHTS } : SIDES;
  const fits = Object.entries(table).filter(
    ([, s]) => s.axis === g.axis && s.ofSide === g.ofSide && s.fromSide === g.fromSide,
  );
  const found = fits.find(([, s]) => s.sign * g.distance >= 0) ?? fits[0];
  return found ? { text: found[0], sign: found[1].sign } : { text: 'beside', sign: 1 };
}

/** Distances that are kept between this layer and others, or the board. */
export function GapFields({ job, layer, change }: Pick<FieldsProps, 'job' | 'layer' | 'change'>) {
  const others = job.layers.filter((l) => l.id !== layer.id);
  const [from, setFrom] = useState<string>(THE_BOARD);
  const [where, setWhere] = useState<string>('below');
  const table = tableFor(from, job.seat);
  const chosen = where in table ? where : Object.keys(table)[0];
  const mine = job.gaps.filter((g) => g.of === layer.id || g.from === layer.id);
  const nameOf = (id: string) => (id === THE_BOARD ? 'the board' : (job.layers.find((l) => l.id === id)?.name ?? id));
  const add = () => {
    const { sign, ...sides } = table[chosen];
    const between = { of: layer.id, from, ...sides };
    const now = distanceNow(between, job);
    if (now !== null) change((j) => j.gaps.push({ id: newId(), ...between, distance: clean(now) }));
  };
  const set = (id: string, distance: number) =>
    change((j) => {
      const g = j.gaps.find((e) => e.id === id);
      if (!g) return;
      g.distance = distance;
      keepGaps(j, g.from === THE_BOARD ? [] : [g.from]);
    });
  return (
    <Folded title={mine.length > 0 ? `Distances kept, ${mine.length}` : 'Distances kept'}>
      {mine.map((g) => {
        const { text, sign } = saidOf(g);
        return (
          <div key={g.id} className="flex items-start gap-1">
            <div className="min-w-0 flex-1">
              <LengthField
                label={`${nameOf(g.of)} ${text}${g.from === THE_BOARD ? '' : ` ${nameOf(g.from)}`}`}
                value={sign * g.distance}
                onChange={(v) => set(g.id, sign * v)}
              />
            </div>
            <button
              type="button"
              className="btn btn-ghost btn-square btn-sm mt-1"
              aria-label="Release this distance"
              onClick={() => change((j) => (j.gaps = j.gaps.filter((e) => e.id !== g.id)))}
            >
              <X size={14} />
            </button>
          </div>
        );
      })}
      <Choice
        label="Keep it"
        value={chosen}
        options={Object.keys(table).map((k) => [k, k] as const)}
        onChange={setWhere}
      />
      <Choice
        label="of"
        value={from}
        options={[[THE_BOARD, 'the board'] as const, ...others.map((l) => [l.id, l.name] as const)]}
        onChange={setFrom}
      />
      <button type="button" className="btn btn-sm my-1 w-full" onClick={add}>
        Keep this distance
      </button>
      <p className="soft text-[13px] leading-snug">
        It starts from where they are, {sayLength(0)} touches; type the number wanted. When one moves the other follows.
        {table[chosen].axis === 'z' &&
          (from === THE_BOARD
            ? ' Its lift follows the thickness, the skin and how deep the base is sunk.'
            : ` Its lift follows ${nameOf(from)}. Each counts by its own rise and lift, without what it is stacked on.`)}
      </p>
    </Folded>
  );
}
