'use client';
import { makeIndependent, oneWith, putOnToo } from '@/core/arrange/shared';
import type { Layer } from '@/core/doc/layer';
import type { SetupView } from '@/core/setup/view';
import { newId } from './actions';

interface Props {
  job: SetupView;
  layer: Layer;
  change(edit: (j: SetupView) => void): void;
}

/** With which layers of the board's other setups a layer is one, and on which it could be put too. */
export function SharedLayer({ job, layer, change }: Props) {
  const { board, setup } = job;
  const others = oneWith(board, layer);
  const free = board.setups.filter((s) => s !== setup && !others.some((o) => o.setup === s));
  if (board.setups.length < 2) return null;
  return (
    <div className="py-1 text-[13px]">
      {others.length > 0 && (
        <p className="soft flex items-center justify-between gap-2 leading-tight">
          <span>
            one with {others.map((o) => `${o.layer.name} of ${o.setup.name}`).join(', ')}: a change of one changes both
          </span>
          <button
            type="button"
            className="btn btn-xs shrink-0"
            onClick={() =>
              change((j) => {
                const own = j.layers.find((l) => l.id === layer.id);
                if (own) makeIndependent(j.board, own);
              })
            }
          >
            Make independent
          </button>
        </p>
      )}
      {free.map((s) => (
        <button
          key={s.id}
          type="button"
          className="btn btn-sm my-0.5 w-full"
          onClick={() =>
            change((j) => {
              const own = j.layers.find((l) => l.id === layer.id);
              const to = j.board.setups.find((t) => t.id === s.id);
              if (own && to) putOnToo(j.board, j.setup, own, to, newId());
            })
          }
        >
          Put it on {s.name} too
        </button>
      ))}
    </div>
  );
}
