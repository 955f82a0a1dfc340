'use client';
import { alignLayers, distributeLayers, keepGaps } from '@/core/arrange/place';
import type { SetupView } from '@/core/setup/view';
import { sayLength } from '@/core/units/say';
import { Card, Sentence } from '../cards/card';
import { TextField } from '../controls/fields';
import { boundsAround, duplicateLayers, editLayers, mirrorLayers, moveLayers } from './actions';
import type { Shaping } from './layer-card-props';
import { LayerShape } from './layer-shape';
import { OutlineTools } from './outline-tools';
import { TogetherSize } from './whole-piece';

interface Props extends Shaping {
  job: SetupView;
  selected: string[];
  onSelect(ids: string[]): void;
  onRemove(ids: readonly string[]): void;
}

type Side = 'low' | 'middle' | 'high';
const ALIGN: { title: string; axis: 'x' | 'y'; sides: [string, Side][] }[] = [
  {
    title: 'Line up across',
    axis: 'x',
    sides: [
      ['Left edges', 'low'],
      ['Middles', 'middle'],
      ['Right edges', 'high'],
    ],
  },
  {
    title: 'Line up along',
    axis: 'y',
    sides: [
      ['Near edges', 'low'],
      ['Middles', 'middle'],
      ['Far edges', 'high'],
    ],
  },
];

/** Several layers at once: lined up, spread, grouped, copied. */
export function SeveralCard({ job, selected, onSelect, onRemove, ...shaping }: Props) {
  const { change } = shaping;
  const some = job.layers.filter((l) => selected.includes(l.id));
  const box = boundsAround(job, selected);
  const group = some.every((l) => l.group !== null && l.group === some[0].group) ? some[0].group : null;
  const arrange = (edit: (j: SetupView) => void) =>
    change((j) => {
      edit(j);
      keepGaps(j, selected);
    });
  const of = (j: SetupView) => j.layers.filter((l) => selected.includes(l.id));
  return (
    <Card title={`${some.length} layers`} subtitle={group ? `the group ${group}` : 'selected together'}>
      <LayerShape some={some} name={group ?? `${some.length} layers`} {...shaping} />
      <Sentence>
        {box && (
          <>
            Together{' '}
            <b>
              {sayLength(box.x1 - box.x0, 1)} by {sayLength(box.y1 - box.y0, 1)}
            </b>
            .
          </>
        )}{' '}
        Drag them on the board, or nudge them with the arrow keys.
      </Sentence>
      <TogetherSize job={job} change={change} ids={selected} />
      {ALIGN.map(({ title, axis, sides }) => (
        <fieldset key={axis}>
          <legend className="text-sm font-semibold">{title}</legend>
          <div className="grid grid-cols-3 gap-1.5 py-1">
            {sides.map(([name, side]) => (
              <button
                key={side}
                type="button"
                className="btn btn-sm px-1"
                onClick={() => arrange((j) => alignLayers(of(j), axis, side))}
              >
                {name}
              </button>
            ))}
          </div>
        </fieldset>
      ))}
      <h3 className="mt-2 text-sm font-semibold">Spread with equal spaces</h3>
      <div className="grid grid-cols-2 gap-2 py-1">
        <button
          type="button"
          className="btn btn-sm"
          disabled={some.length < 3}
          onClick={() => arrange((j) => distributeLayers(of(j), 'x'))}
        >
          Across
        </button>
        <button
          type="button"
          className="btn btn-sm"
          disabled={some.length < 3}
          onClick={() => arrange((j) => distributeLayers(of(j), 'y'))}
        >
          Along
        </button>
      </div>
      <h3 className="mt-2 text-sm font-semibold">Together</h3>
      <TextField
        label="Group"
        value={group ?? ''}
        max={64}
        onChange={(v) => change((j) => editLayers(j, selected, (l) => (l.group = v === '' ? null : v)))}
      />
      <div className="grid grid-cols-2 gap-2 py-1">
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => {
            let made: string[] = [];
            change((j) => (made = duplicateLayers(j, selected)));
            onSelect(made);
          }}
        >
          Duplicate
        </button>
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => {
            let made: string[] = [];
            change((j) => (made = mirrorLayers(j, selected, 'x')));
            onSelect(made);
          }}
        >
          Mirrored copy
        </button>
        <button
          type="button"
          className="btn btn-sm"
          onClick={() =>
            box &&
            change((j) => moveLayers(j, selected, (j.board.x - box.x0 - box.x1) / 2, (j.board.y - box.y0 - box.y1) / 2))
          }
        >
          Centre on board
        </button>
        <button type="button" className="btn btn-sm" onClick={() => onSelect([])}>
          Deselect
        </button>
      </div>
      <OutlineTools job={job} selected={selected} change={change} onSelect={onSelect} />
      <button type="button" className="btn btn-ghost btn-sm mt-3 w-full text-accent" onClick={() => onRemove(selected)}>
        Remove all {some.length} from the board
      </button>
    </Card>
  );
}
