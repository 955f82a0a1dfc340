'use client';
import { useState } from 'react';
import type { SurfaceFacts } from '@/core/arrange/compose';
import { fitUniformly, ledgerOf, pressTo, seatedDepth } from '@/core/arrange/ledger';
import type { Grid } from '@/core/field/height-field';
import type { SetupView } from '@/core/setup/view';
import { formatLength, trimNumber } from '@/core/units/length';
import type { LibraryInfo } from '../api';
import { Card, Sentence } from '../cards/card';
import { Choice, Folded, LengthField } from '../controls/fields';
import { LedgerLines } from './ledger';
import { arrangeInput, arranger } from './use-arrangement';
import { Versions } from './versions';

interface Props {
  id: string;
  job: SetupView;
  revision: string | null;
  facts: SurfaceFacts | null;
  library: LibraryInfo | undefined;
  change(edit: (j: SetupView) => void): void;
  onMissed(map: { grid: Grid; mask: Uint8Array } | null): void;
}

/** The whole plaque: its depth budget, the detail that a bit can reach, what goes out, and its versions. */
export function PlaqueCard({ id, job, revision, facts, library, change, onMissed }: Props) {
  const shown = job.layers.filter((l) => !l.hidden);
  return (
    <Card
      title="Plaque"
      subtitle={`${job.layers.length} ${job.layers.length === 1 ? 'layer' : 'layers'}, joined from the lowest up`}
    >
      <Sentence>
        {facts && shown.length > 0 ? (
          <>
            It stands <b>{formatLength(seatedDepth(job.seat, facts), 'mm', 2)}</b>{' '}
            {job.seat.mode === 'sunk' ? "deep in the board's own top" : 'over its base plane'}.
          </>
        ) : (
          'An empty board. Add something, and it is joined here.'
        )}
        {facts && facts.clipped.cells > 0 && (
          <span className="text-accent">
            {' '}
            Up to {formatLength(facts.clipped.most, 'mm', 2)} is clipped near {trimNumber(facts.clipped.x, 0)},{' '}
            {trimNumber(facts.clipped.y, 0)} mm; it is marked on the board.
          </span>
        )}
      </Sentence>
      <LedgerLines job={job} facts={facts} />
      {facts && shown.length > 0 && <FitToDepth job={job} facts={facts} change={change} />}
      <Detail job={job} library={library} onMissed={onMissed} />
      <Folded title="Versions side by side">
        <Versions id={id} revision={revision} change={change} />
      </Folded>
      <Folded title="Out: models, heights, picture, whole job">
        <div className="grid grid-cols-2 gap-2 py-1">
          {(
            [
              ['stl', 'Model, STL'],
              ['heights-png', 'Heights, PNG'],
              ['heights-tiff', 'Heights, TIFF'],
              ['picture', 'Picture, PNG'],
              ['outline-svg', 'Outlines, SVG'],
              ['outline-dxf', 'Outlines, DXF'],
            ] as const
          ).map(([kind, name]) => (
            <a
              key={kind}
              className={`btn btn-sm ${revision === null || shown.length === 0 ? 'btn-disabled' : ''}`}
              aria-disabled={revision === null || shown.length === 0}
              href={`/api/jobs/${id}/export/${kind}?setup=${encodeURIComponent(job.setup.id)}`}
              download
            >
              {name}
            </a>
          ))}
        </div>
        <a
          className={`btn btn-sm w-full ${revision === null ? 'btn-disabled' : ''}`}
          href={`/api/jobs/${id}/bundle`}
          download
        >
          Whole job with its files, zip
        </a>
        <p className="soft mt-1 text-[13px] leading-snug">
          16 bit, black lowest and white highest; the file's name says which heights these are. The model is closed,
          with a flat back.
        </p>
      </Folded>
    </Card>
  );
}

function FitToDepth({ job, facts, change }: { job: SetupView; facts: SurfaceFacts; change: Props['change'] }) {
  const l = ledgerOf(job.layers, job.seat, job.board.thickness, facts);
  const [how, setHow] = useState<'all' | 'high'>('all');
  const [wanted, setWanted] = useState<number | null>(null);
  const [above, setAbove] = useState<number | null>(null);
  const [error, setError] = useState<string | null>(null);
  const goal =
    wanted ?? Number(Math.max(0.5, Math.min(l.depth, job.board.thickness - job.seat.skin - 3.175)).toFixed(2));
  const knee = above ?? Number((l.depth / 2).toFixed(2));
  const high = job.seat.mode === 'sunk' ? 'deep' : 'high';
  const fit = () => {
    try {
      setError(null);
      if (how === 'all')
        change((j) => {
          fitUniformly(j.layers, l.depth, goal);
          j.seat.drop = Number(((j.seat.drop * goal) / l.depth).toFixed(4));
        });
      else {
        const press = pressTo(l.depth, goal, knee);
        change((j) => (j.seat.press = press));
      }
    } catch (e) {
      setError((e as Error).message);
    }
  };
  return (
    <Folded title="Fit to depth">
      <LengthField label="Depth wanted" value={goal} min={0} open max={500} onChange={setWanted} />
      <Choice<'all' | 'high'>
        label="How"
        value={how}
        options={[
          ['all', 'scale everything'],
          ['high', `press only the ${high} part`],
        ]}
        onChange={setHow}
      />
      {how === 'high' && <LengthField label="Stays up to" value={knee} min={0} max={500} onChange={setAbove} />}
      <button type="button" className="btn btn-sm my-1 w-full" disabled={l.depth <= 0} onClick={fit}>
        Fit {formatLength(l.depth, 'mm', 2)} to {formatLength(goal, 'mm', 2)}
      </button>
      {job.seat.press && (
        <button type="button" className="btn btn-sm my-1 w-full" onClick={() => change((j) => (j.seat.press = null))}>
          Let the pressed part out again
        </button>
      )}
      {error && (
        <p role="alert" className="text-[13px] text-accent">
          {error}
        </p>
      )}
    </Folded>
  );
}

/** What the finishing bits at hand would leave of this surface at this size. */
function Detail({
  job,
  library,
  onMissed,
}: {
  job: SetupView;
  library: LibraryInfo | undefined;
  onMissed: Props['onMissed'];
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
  const tip = bit.shape === 'tapered-ball' ? bit.tipDiameter : bit.diameter;
  const of = JSON.stringify([job.layers, job.seat, job.board.x, job.board.y, bit.id, tolerance]);
  const look = async () => {
    setBusy(true);
    setError(null);
    try {
      const { shares, map, larger } = await arranger('thorough').detail(
        arrangeInput(job, null),
        bits,
        tolerance,
        bit.id,
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
            {bit.name} leaves more than {formatLength(tolerance)} on <b>{trimNumber(100 * now.shares[bit.id], 2)} %</b>{' '}
            of the piece, marked on the board. Hollows narrower than {formatLength(tip, 'mm', 3)} fill up; rounded ones
            survive from a radius of {formatLength(tip / 2, 'mm', 3)}.
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
            Take the marks off
          </button>
        </div>
      )}
    </Folded>
  );
}
