'use client';
import { useState } from 'react';
import { ask } from '@/contract/ask';
import { ASSETS } from '@/contract/assets';
import { layOtherwise, takeUnit, turnedOnce } from '@/core/arrange/kinds/mesh/orient';
import type { MeshSource } from '@/core/arrange/kinds/mesh/schema';
import type { LayerOf } from '@/core/doc/layer';
import { Choice, Folded, NumberField } from '../../controls/fields';
import { saidBy } from '../../editor/ports';
import { editKind } from '../actions';
import type { FieldsProps, KindFields } from './kind-fields';

/** A mesh: its unit, which way up it lies, and its base plane. */
function MeshMore({ layer, change }: FieldsProps<'mesh'>) {
  const s = layer.source;
  const [error, setError] = useState<string | null>(null);
  const set = (edit: (l: LayerOf<'mesh'>) => void) => change((j) => editKind(j, layer.id, 'mesh', edit));
  const orient = async (turns: MeshSource['turns'], flip: boolean) => {
    try {
      const [was, now] = await Promise.all([
        ask(ASSETS.orient, { hash: s.hash }, { turns: s.turns, mirror: s.flip }),
        ask(ASSETS.orient, { hash: s.hash }, { turns, mirror: flip }),
      ]);
      setError(null);
      set((l) => layOtherwise(l, { turns, flip }, was, now));
    } catch (e) {
      setError(saidBy(e));
    }
  };
  const turn = (axis: 0 | 1 | 2) => void orient(turnedOnce(s.turns, axis), s.flip);
  return (
    <Folded title="Model: unit, way up and base">
      <p className="soft truncate text-[13px]">{s.file}</p>
      <Choice
        label="Unit of the file"
        value={s.unit}
        options={[
          ['mm', 'millimetres'],
          ['in', 'inches'],
        ]}
        onChange={(unit) => set((l) => takeUnit(l, unit))}
        note="guessed from its size; the size follows"
      />
      <div className="grid grid-cols-2 gap-2 py-1">
        <button type="button" className="btn btn-sm" onClick={() => turn(0)}>
          Tip over (x)
        </button>
        <button type="button" className="btn btn-sm" onClick={() => turn(1)}>
          Roll over (y)
        </button>
        <button type="button" className="btn btn-sm" onClick={() => turn(2)}>
          Turn round (z)
        </button>
        <button
          type="button"
          className={`btn btn-sm ${s.flip ? 'btn-primary' : ''}`}
          aria-pressed={s.flip}
          onClick={() => void orient(s.turns, !s.flip)}
        >
          Mirror left to right
        </button>
      </div>
      {error && (
        <p role="alert" className="text-sm text-accent">
          {error}
        </p>
      )}
      <NumberField
        label="Base plane"
        value={Number((s.base * 100).toFixed(2))}
        min={0}
        max={99}
        suffix="% up"
        onChange={(v) => set((l) => (l.source.base = v / 100))}
        note="what lies below it is lost"
      />
    </Folded>
  );
}

export const meshFields: KindFields<'mesh'> = { More: MeshMore };
