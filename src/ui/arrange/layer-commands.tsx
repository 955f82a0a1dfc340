'use client';
import { useState } from 'react';
import { centring } from '@/core/arrange/flat-field';
import type { Layer } from '@/core/doc/layer';
import { sayLength } from '@/core/units/say';
import type { ArrangeApi } from '@/ui/arrange/arrange.worker';
import type { LayerCardProps } from '@/ui/arrange/layer-card-props';
import { duplicateLayers, editLayers, mirrorLayers, moveLayers } from './actions';
import { arranged, arrangeInput } from './use-arrangement';

/** What can be done with a layer at once: centred, turned to the person, mirrored, copied. */
export function LayerCommands({
  job,
  layer,
  change,
  onSelect,
}: Pick<LayerCardProps, 'job' | 'layer' | 'change' | 'onSelect'>) {
  const [said, setSaid] = useState<string | null>(null);
  const set = (edit: (l: Layer) => void) => change((j) => editLayers(j, [layer.id], edit));
  const centreInField = async () => {
    setSaid('looking for the flat field');
    let found: Awaited<ReturnType<ArrangeApi['fieldUnder']>>;
    try {
      found = await arranged('thorough', (a) => a.fieldUnder(arrangeInput(job), layer.id));
    } catch (e) {
      setSaid((e as Error).message);
      return;
    }
    if (!found) {
      setSaid('nothing level lies under its middle; move it over a flat field first');
      return;
    }
    const { dx, dy, mx, my } = centring(found.field.bounds, found.standing);
    change((j) => moveLayers(j, [layer.id], dx, dy));
    setSaid(`centred in the field: ${sayLength(mx, 1)} left and right, ${sayLength(my, 1)} near and far`);
  };

  return (
    <>
      <div className="grid grid-cols-2 gap-2 py-1">
        <button type="button" className="btn btn-sm" onClick={() => void centreInField()}>
          Centre in field
        </button>
        <button
          type="button"
          className="btn btn-sm"
          onClick={() =>
            change((j) => moveLayers(j, [layer.id], j.board.x / 2 - layer.centre.x, j.board.y / 2 - layer.centre.y))
          }
        >
          Centre on board
        </button>
        <button
          type="button"
          className="btn btn-sm"
          title="Its foot towards the near edge, where the person at the machine stands"
          disabled={layer.turn === 0}
          onClick={() => set((l) => (l.turn = 0))}
        >
          Face the near side
        </button>
        <button
          type="button"
          className={`btn btn-sm ${layer.mirror ? 'btn-primary' : ''}`}
          aria-pressed={layer.mirror}
          onClick={() => set((l) => (l.mirror = !l.mirror))}
        >
          Mirror
        </button>
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => {
            let made: string[] = [];
            change((j) => (made = duplicateLayers(j, [layer.id])));
            onSelect(made);
          }}
        >
          Duplicate
        </button>
        <button
          type="button"
          className="btn btn-sm"
          title="A mirrored copy on the other side of the board's middle"
          onClick={() => {
            let made: string[] = [];
            change((j) => (made = mirrorLayers(j, [layer.id], 'x')));
            onSelect(made);
          }}
        >
          Mirrored copy
        </button>
      </div>
      {said && (
        <p className="soft text-[13px] leading-snug" role="status">
          {said}
        </p>
      )}
    </>
  );
}
