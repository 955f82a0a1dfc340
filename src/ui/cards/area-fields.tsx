'use client';
import { WHOLE_PIECE } from '@/core/doc/outline-ref';
import type { AreaPass } from '@/core/doc/pass';
import { resolveTrenches } from '@/core/passes/trenches';
import { Choice, LengthField } from '../controls/fields';
import type { Edited } from './kind-card';
import { OutlineFields } from './outline-fields';

/** What the edge of an area counts to: finishing leads the bit's middle as far, all else leaves a wall there. */
export const countsTo = (kind: AreaPass['kind']): 'wall' | 'middle' => (kind === 'finish' ? 'middle' : 'wall');

const COUNTS = {
  wall: "counts to the wall that is left: the bit's middle stays its radius inside",
  middle: "counts to the bit's middle, which goes as far as this and no further",
} as const;

/** Where a pass works. */
export function AreaFields<P extends AreaPass>({ job, pass, set: edit }: Pick<Edited<P>, 'job' | 'pass' | 'set'>) {
  const trench = resolveTrenches(job)[job.passes.findIndex((p) => p.id === pass.id)];
  const { area } = pass;
  return (
    <>
      <Choice
        label="Works on"
        value={area.kind}
        options={[
          ['relief', job.seat.mode === 'sunk' || pass.kind === 'flat' ? 'the relief' : 'relief and trench'],
          ['face', 'the whole face'],
          ['frame', 'a frame'],
          ['outline', 'inside an outline'],
        ]}
        onChange={(kind) =>
          edit((p) => {
            p.area =
              kind === 'relief'
                ? { kind, trench: null }
                : kind === 'face'
                  ? { kind }
                  : kind === 'outline'
                    ? { kind, outline: { ...WHOLE_PIECE } }
                    : { kind, x0: 0, y0: 0, x1: job.board.x, y1: job.board.y };
          })
        }
      />
      {area.kind === 'relief' && job.seat.mode === 'raised' && pass.kind !== 'flat' && (
        <LengthField
          label="Trench"
          value={Number(trench.toFixed(3))}
          min={0}
          max={200}
          onChange={(v) => edit((p) => (p.area = { kind: 'relief', trench: v }))}
          note={
            <>
              {area.trench === null ? (
                'worked out from the bits'
              ) : (
                <button
                  type="button"
                  className="link"
                  onClick={() => edit((p) => (p.area = { kind: 'relief', trench: null }))}
                >
                  work it out from the bits
                </button>
              )}
              ; from the relief's outline to the trench's outer wall
            </>
          }
        />
      )}
      {area.kind === 'outline' && (
        <OutlineFields
          job={job}
          outline={area.outline}
          set={(f) => edit((p) => p.area.kind === 'outline' && f(p.area.outline))}
        />
      )}
      {area.kind === 'outline' && <p className="soft text-[13px] leading-snug">It {COUNTS[countsTo(pass.kind)]}.</p>}
      {area.kind === 'frame' &&
        (['x0', 'y0', 'x1', 'y1'] as const).map((k) => (
          <LengthField
            key={k}
            label={`Frame, ${k[1] === '0' ? 'from' : 'to'} ${k[0]}`}
            value={area[k]}
            onChange={(v) => edit((p) => p.area.kind === 'frame' && (p.area[k] = v))}
            note={k === 'y1' ? COUNTS[countsTo(pass.kind)] : undefined}
          />
        ))}
    </>
  );
}
