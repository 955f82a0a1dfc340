'use client';
import { useState } from 'react';
import { tipRadius } from '@/core/cutter/cutter';
import type { Library } from '@/core/doc/library';
import type { Grid } from '@/core/field/height-field';
import type { SetupView } from '@/core/setup/view';
import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';
import { Choice, Folded, LengthField } from '../controls/fields';
import { arranged, arrangeInput } from './use-arrangement';

/** What the finishing bits at hand would leave of this surface at this size. */
export function Detail({
  job,
  library,
  onMissed,
}: {
  job: SetupView;
  library: Library | undefined;
  onMissed(map: { grid: Grid; mask: Uint8Array } | null): void;
}) {
  const bits = (library?.cutters ?? job.cutters).filter((c) => c.shape === 'ball' || c.shape === 'tapered-ball');
  const own = job.passes.findLast((p) => p.kind === 'finish')?.cutter;
  const [chosen, setChosen] = useState<string | null>(null);
  const [tolerance, setTolerance] = useState(0.05);
  const [found, setFound] = useState<{ shares: Record<string, number>; larger: number | null; of: string } | null>(
    null,
  );
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string | null>(null);
  const bit = bits.find((c) => c.id === (chosen ?? own)) ?? bits[0];
  if (!bit) return null;
  const tip = 2 * tipRadius(bit);
  const of = JSON.stringify([job.layers, job.seat, job.board.x, job.board.y, bit.id, tolerance]);
  const look = async () => {
    setBusy(true);
    setError(null);
    try {
      const { shares, map, larger } = await arranged('thorough', (a) =>
        a.detail(arrangeInput(job), bits, tolerance, bit.id),
      );
      setFound({ shares, larger, of });
      onMissed(map);
    } catch (e) {
      setError((e as Error).message);
    } finally {
      setBusy(false);
    }
  };
  const now = found?.of === of ? found : null;
  return (
    <Folded title="Detail against bit">
      <Choice
        label="Finishing bit"
        value={bit.id}
        options={bits.map((c) => [c.id, c.name] as const)}
        onChange={setChosen}
      />
      <LengthField label="Tolerance" value={tolerance} min={0} open max={5} onChange={setTolerance} />
      <button
        type="button"
        className="btn btn-sm my-1 w-full"
        disabled={busy || job.layers.length === 0}
        onClick={() => void look()}
      >
        {busy ? 'Looking' : 'See what it misses'}
      </button>
      {error && (
        <p role="alert" className="text-[13px] text-accent">
          {error}
        </p>
      )}
      {now && (
        <div className="text-sm leading-snug" data-testid="detail">
          <p>
            {bit.name} leaves more than {sayLength(tolerance)} on <b>{trimNumber(100 * now.shares[bit.id], 2)} %</b> of
            the piece, marked on the board. Hollows narrower than {sayLength(tip, 3)} fill up; rounded ones survive from
            a radius of {sayLength(tip / 2, 3)}.
          </p>
          <p className="mt-1">
            {now.larger === null
              ? 'Even four times as large it would miss more than 1 %: take a finer bit.'
              : now.larger <= 1.001
                ? 'The piece is large enough for this bit.'
                : `It would have to be ${trimNumber(now.larger, 2)} times as large to miss no more than 1 %.`}
          </p>
          <ul className="soft mt-1 text-[13px]">
            {bits.map((c) => (
              <li key={c.id} className="flex justify-between">
                <span>{c.name}</span>
                <span>{trimNumber(100 * (now.shares[c.id] ?? 0), 2)} % missed</span>
              </li>
            ))}
          </ul>
          <button type="button" className="btn btn-ghost btn-sm mt-1 w-full" onClick={() => onMissed(null)}>
            Hide the marks
          </button>
        </div>
      )}
    </Folded>
  );
}
