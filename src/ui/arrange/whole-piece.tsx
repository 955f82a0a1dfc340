'use client';
import { useState } from 'react';
import {
  boundsOfWhole,
  centreWhole,
  scaleInPlace,
  scaleLayers,
  scaleToMiddle,
  timesToFit,
} from '@/core/arrange/scale-whole';
import type { SetupView } from '@/core/setup/view';
import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';
import { Folded, LengthField, Tick } from '../controls/fields';
import { boundsAround } from './actions';
import { MISSED, type Reach, useReach } from './use-reach';

interface Props {
  job: SetupView;
  change(edit: (j: SetupView) => void): void;
}

/** Room that a piece keeps to the edges when it is fitted to its board: a roughing bit's trench and a little (common practice, no source), mm. */
const MARGIN = 10;

/** A share that was missed and is missed now counts as worse from so much on. */
const WORSE = 0.002;

/** What the last bit reaches of a piece that has just been made of another size. */
export function ReachLine({ reach }: { reach: Reach | 'looking' | null }) {
  if (!reach) return null;
  if (reach === 'looking')
    return (
      <p role="status" className="soft text-[13px]">
        Looking at what its bit still reaches.
      </p>
    );
  const percent = (share: number) => `${trimNumber(100 * share, 2)} %`;
  const worse = reach.after > reach.before + WORSE;
  return (
    <p role="status" className={`text-[13px] leading-snug ${worse ? 'text-accent' : 'soft'}`}>
      {reach.bit} now leaves more than {sayLength(MISSED)} on {percent(reach.after)} of the piece,{' '}
      {percent(reach.before)} before{worse ? ': hollows have become too narrow for it; take a finer bit.' : '.'}
    </p>
  );
}

/** Brings the whole piece to the middle of its board, or makes it fill the board. */
export function PlacePiece({
  job,
  change,
  margin = MARGIN,
  heights = false,
  resize = change,
}: Props & { margin?: number; heights?: boolean; resize?: Props['change'] }) {
  const times = timesToFit(job, margin);
  if (job.layers.length === 0) return null;
  return (
    <div className="grid grid-cols-2 gap-2 py-1">
      <button type="button" className="btn btn-sm" onClick={() => change(centreWhole)}>
        Centre piece
      </button>
      <button
        type="button"
        className="btn btn-sm"
        disabled={times === null}
        title={
          times === null
            ? 'there is no room between these margins'
            : `${trimNumber(100 * times, 1)} % of its size, ${sayLength(margin)} to the edges`
        }
        onClick={() => times !== null && resize((j) => scaleToMiddle(j, { times, heights }))}
      >
        Fit to board
      </button>
    </div>
  );
}

/** The whole piece as one: how large it is, larger or smaller with all that it has, and where it lies. */
export function WholePiece({ job, change }: Props) {
  const [heights, setHeights] = useState(true);
  const [margin, setMargin] = useState(MARGIN);
  const { reach, resize } = useReach(job, change);
  const box = boundsOfWhole(job);
  if (!box) return null;
  const [x, y] = [box.x1 - box.x0, box.y1 - box.y0];
  const by = (times: number) => resize((j) => scaleInPlace(j, { times, heights }));
  return (
    <Folded title="Size of the whole piece">
      <LengthField
        label="Whole length, x"
        value={Number(x.toFixed(3))}
        min={0}
        open
        max={10000}
        onChange={(v) => by(v / x)}
      />
      <LengthField
        label="Whole width, y"
        value={Number(y.toFixed(3))}
        min={0}
        open
        max={10000}
        onChange={(v) => by(v / y)}
        note="all setups of the board, in proportion: letters, borders, gaps, areas, holes and tabs follow; bits and diameters of holes stay"
      />
      <Tick label="Heights and depths too" value={heights} onChange={setHeights} />
      <LengthField label="Margin to the edges" value={margin} min={0} max={2000} onChange={setMargin} />
      <PlacePiece {...{ job, change, margin, heights, resize }} />
      <ReachLine reach={reach} />
    </Folded>
  );
}

/** Several layers as one: how large they are together. */
export function TogetherSize({ job, change, ids }: Props & { ids: string[] }) {
  const [heights, setHeights] = useState(false);
  const { reach, resize } = useReach(job, change);
  const box = boundsAround(job, ids);
  if (!box) return null;
  const [x, y] = [box.x1 - box.x0, box.y1 - box.y0];
  const middle = { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
  const by = (times: number) => resize((j) => scaleLayers(j, ids, { times, about: middle, to: middle, heights }));
  const field = { min: 0, open: true, max: 10000 };
  return (
    <>
      <LengthField label="Length together, x" value={Number(x.toFixed(3))} {...field} onChange={(v) => by(v / x)} />
      <LengthField
        label="Width together, y"
        value={Number(y.toFixed(3))}
        {...field}
        onChange={(v) => by(v / y)}
        note="in proportion, with the gaps between them, their letters and borders"
      />
      <Tick label="Heights too" value={heights} onChange={setHeights} />
      <ReachLine reach={reach} />
    </>
  );
}
