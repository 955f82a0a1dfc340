'use client';
import { useState } from 'react';
import type { MadeShape } from '@/core/arrange/made-shape';
import { newShape } from '@/core/arrange/new-layer';
import { type OutlineRef, WHOLE_PIECE } from '@/core/doc/outline-ref';
import type { Joining } from '@/core/outline/union';
import type { SetupView } from '@/core/setup/view';
import { Choice, Folded, LengthField, NumberField, Tick } from '../controls/fields';
import { newId } from './actions';
import { arranged, arrangeInput } from './use-arrangement';

interface Props {
  job: SetupView;
  selected: string[];
  change(edit: (j: SetupView) => void): void;
  onSelect(ids: string[]): void;
}

/** Outlines made of layers: their silhouettes joined, made larger and smoothed, or traced at a height; each becomes a shape of its own. */
export function OutlineTools({ job, selected, change, onSelect }: Props) {
  const some = job.layers.filter((l) => selected.includes(l.id));
  const [ref, setRef] = useState<OutlineRef>(WHOLE_PIECE);
  const [how, setHow] = useState<Joining>('union');
  const [share, setShare] = useState(50);
  const [pen, setPen] = useState(1);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const set = (change: Partial<OutlineRef>) => setRef((o) => ({ ...o, ...change }));
  const make = async (name: string, work: () => Promise<MadeShape | null>) => {
    setSaid(null);
    setBusy(true);
    try {
      const made = await work();
      if (!made) {
        setSaid('nothing is left of the outline; make it larger, or choose other layers');
        return;
      }
      const layer = {
        ...newShape({ id: newId(), name: name.slice(0, 80) }, made.outline, { kind: 'flat' }, job.board),
        size: made.size,
        centre: made.centre,
      };
      change((j) => j.layers.push(layer));
      onSelect([layer.id]);
    } catch (e) {
      setSaid((e as Error).message);
    } finally {
      setBusy(false);
    }
  };
  const one = some.length === 1 ? some[0] : null;
  const trace = (name: string, width: number | null) =>
    one &&
    void make(`${name} of ${one.name}`, () =>
      arranged('thorough', (a) => a.trace(arrangeInput(job), one.id, share / 100, width)),
    );
  return (
    <Folded title="Outline as a shape of its own">
      {some.length > 1 && (
        <Choice<Joining>
          label="Takes"
          value={how}
          options={[
            ['union', 'all of them'],
            ['difference', 'the lowest without the others'],
            ['intersection', 'what they share'],
          ]}
          onChange={setHow}
        />
      )}
      <LengthField
        label="Larger by"
        value={ref.grow}
        min={-500}
        max={500}
        onChange={(grow) => set({ grow })}
        note="smaller with a number below 0"
      />
      <LengthField label="Smoothed by" value={ref.smooth} min={0} max={100} onChange={(smooth) => set({ smooth })} />
      <Choice
        label="Corners"
        value={ref.corner}
        options={[
          ['round', 'round, when larger'],
          ['sharp', 'run out to a point'],
        ]}
        onChange={(corner) => set({ corner })}
      />
      {how === 'union' && <Tick label="Openings in it stay" value={ref.holes} onChange={(holes) => set({ holes })} />}
      <button
        type="button"
        className="btn btn-sm w-full"
        disabled={busy}
        onClick={() =>
          void make(`Outline of ${one?.name ?? `${some.length} layers`}`, () =>
            arranged('thorough', (a) => a.outline(arrangeInput(job), selected, ref, how)),
          )
        }
      >
        Make the outline
      </button>
      {one && (
        <>
          <NumberField
            label="Traced at"
            value={share}
            min={0}
            max={99}
            suffix="% of its rise"
            onChange={setShare}
            note="what stands higher counts"
          />
          <LengthField label="Line width" value={pen} min={0} open max={100} onChange={setPen} />
          <div className="grid grid-cols-2 gap-2 py-1">
            <button type="button" className="btn btn-sm" disabled={busy} onClick={() => trace('Trace', null)}>
              Trace outlines
            </button>
            <button type="button" className="btn btn-sm" disabled={busy} onClick={() => trace('Lines', pen)}>
              Middle lines
            </button>
          </div>
        </>
      )}
      {said && (
        <p role="alert" className="text-[13px] text-accent">
          {said}
        </p>
      )}
    </Folded>
  );
}
