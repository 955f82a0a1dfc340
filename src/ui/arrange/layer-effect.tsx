'use client';
import { isBump } from '@/core/arrange/bump';
import type { Layer } from '@/core/doc/layer';
import type { SetupView } from '@/core/setup/view';
import type { SourceInfo } from '@/core/sources/inspect';
import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';
import { Sentence } from '../cards/card';
import type { CloseLook } from './looks';
import { effectText } from './words-for';

interface Props {
  job: SetupView;
  layer: Layer;
  /** Null, or of another layer, until the worker has looked at this one. */
  close: CloseLook | null;
  info: SourceInfo | null;
  set(edit: (l: Layer) => unknown): void;
}

/** What a layer's join does here, in words, and what is wrong with it. */
export function LayerEffect({ job, layer, close, info, set }: Props) {
  const index = job.layers.findIndex((l) => l.id === layer.id);
  const under = job.layers
    .slice(0, index)
    .reverse()
    .find((l) => !l.hidden);
  const beneath = under ? (index === 1 ? under.name.toLowerCase() : 'what lies beneath') : 'the base plane';
  const look = close?.id === layer.id ? close : null;
  const { source } = layer;
  const effect = look?.effect ?? null;
  return (
    <>
      <Sentence>
        {layer.hidden ? (
          'It is hidden and does nothing.'
        ) : look === null ? (
          <span className="soft">Looking at what it does here.</span>
        ) : (
          effectText(layer, effect, beneath)
        )}
        {look && !layer.hidden && effect && effect.changed > 0 && look.visible < 0.995 && (
          <>
            {' '}
            {look.visible < 0.005 ? (
              <span className="text-accent">It is wholly hidden by what lies above it.</span>
            ) : (
              `${trimNumber(100 * look.visible, 0)} % of it shows in the end.`
            )}
          </>
        )}
        {effect && effect.lost > 0 && !layer.hidden && (
          <span className="text-accent">
            {' '}
            It goes {sayLength(effect.lostMost)} below the base there, and that is lost.
          </span>
        )}
      </Sentence>
      {isBump(layer, info?.recess ?? false) && (
        <div role="alert" className="mb-2 rounded-lg border border-accent px-3 py-2 text-sm leading-snug">
          This model is itself a recess: joined this way its rim makes a bump.
          <button
            type="button"
            className="btn btn-sm mt-2 w-full"
            onClick={() => set((l) => Object.assign(l, { join: 'carve', invert: true, lift: Math.max(0, l.lift) }))}
          >
            Let it dig {sayLength(layer.rise, 1)}
          </button>
        </div>
      )}
      {info?.terraces && source.kind === 'image' && !source.tone.terraces && (
        <div role="alert" className="mb-2 rounded-lg border border-accent px-3 py-2 text-sm leading-snug">
          This image holds {info.terraces.levels} heights only: terraces of{' '}
          {sayLength(layer.rise * info.terraces.step, 3)} at this rise.
          <button
            type="button"
            className="btn btn-sm mt-2 w-full"
            onClick={() => set((l) => l.source.kind === 'image' && (l.source.tone.terraces = true))}
          >
            Smooth the terraces
          </button>
        </div>
      )}
    </>
  );
}
