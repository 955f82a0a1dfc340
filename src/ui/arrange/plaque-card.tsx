'use client';
import { addressOf } from '@/contract/endpoint';
import { JOBS } from '@/contract/jobs';
import type { SurfaceFacts } from '@/core/arrange/compose';
import { seatedDepth } from '@/core/arrange/ledger';
import type { Library } from '@/core/doc/library';
import type { Grid } from '@/core/field/height-field';
import type { SetupView } from '@/core/setup/view';
import { sayLength, sayNumber } from '@/core/units/say';
import { Card, Sentence } from '../cards/card';
import { Folded } from '../controls/fields';
import { Detail } from './detail';
import { FitToDepth } from './fit-to-depth';
import { LedgerLines } from './ledger';
import { Versions } from './versions';
import { WholePiece } from './whole-piece';

interface Props {
  id: string;
  job: SetupView;
  revision: string | null;
  facts: SurfaceFacts | null;
  library: Library | undefined;
  change(edit: (j: SetupView) => void): void;
  onMissed(map: { grid: Grid; mask: Uint8Array } | null): void;
}

/** What is said while nothing is known of the surface. */
function saysNothingYet(layers: number, shown: number): string {
  if (layers === 0) return 'An empty board. Add something, and it is joined here.';
  return shown === 0 ? 'All layers are hidden.' : 'The layers are being joined.';
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
            It stands <b>{sayLength(seatedDepth(job.seat, facts))}</b>{' '}
            {job.seat.mode === 'sunk' ? "deep in the board's own top" : 'over its base plane'}.
          </>
        ) : (
          saysNothingYet(job.layers.length, shown.length)
        )}
        {facts && facts.clipped.area > 0 && (
          <span className="text-accent">
            {' '}
            Up to {sayLength(facts.clipped.most)} is clipped near {sayNumber(facts.clipped.x, 0)},{' '}
            {sayLength(facts.clipped.y, 0)}; it is marked on the board.
          </span>
        )}
      </Sentence>
      <LedgerLines job={job} facts={facts} />
      <WholePiece job={job} change={change} />
      {facts && shown.length > 0 && <FitToDepth job={job} facts={facts} change={change} />}
      <Detail job={job} library={library} onMissed={onMissed} />
      <Folded title="Versions side by side">
        <Versions id={id} revision={revision} change={change} />
      </Folded>
      <Folded title="Export: models, heights, picture, whole job">
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
              href={addressOf(JOBS.export, { id, kind, setup: job.setup.id })}
              download
            >
              {name}
            </a>
          ))}
        </div>
        <a
          className={`btn btn-sm w-full ${revision === null ? 'btn-disabled' : ''}`}
          href={addressOf(JOBS.bundle, { id })}
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
