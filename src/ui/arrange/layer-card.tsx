'use client';
import { useRef, useState } from 'react';
import type { Copies, Layer } from '@/core/arrange/layer';
import { resizeLayer, splitLines } from '@/core/arrange/new-layer';
import type { Job } from '@/core/plan/job';
import { formatLength, trimNumber } from '@/core/units/length';
import { Card, Sentence } from '../cards/card';
import { Choice, Folded, LengthField, NumberField, TextField, Tick } from '../controls/fields';
import { duplicateLayers, editLayers, mirrorLayers, moveLayers, newId, removeLayers } from './actions';
import type { CloseLook } from './arrange.worker';
import { ImageFields, MeshFields } from './file-fields';
import { GapFields } from './gap-fields';
import { ShapeFields, WordsFields } from './made-fields';
import { MaskFields } from './mask-fields';
import { SectionDrawing } from './section-drawing';
import { arrangeInput, arranger } from './use-arrangement';
import { effectText, JOIN_NAMES } from './words-for';

export interface LayerCardProps {
  job: Job;
  layer: Layer;
  close: CloseLook | null;
  change(edit: (j: Job) => void): void;
  onSelect(ids: string[]): void;
}

const KIND = { mesh: 'relief from a model', image: 'relief from an image', shape: 'shape', words: 'words' } as const;

/** Whether a layer's source is itself a recess that is joined so that it makes a bump. */
function useRecess(layer: Layer, recess: boolean): boolean {
  const digs = (layer.join === 'carve' && layer.invert) || (layer.join === 'lowest' && !layer.invert);
  return recess && !digs;
}

/** One layer: what it does here in words and as a section, then its numbers. */
export function LayerCard({ job, layer, close, change, onSelect, recess }: LayerCardProps & { recess: boolean }) {
  const [locked, setLocked] = useState(true);
  const [said, setSaid] = useState<string | null>(null);
  const index = job.layers.findIndex((l) => l.id === layer.id);
  const under = job.layers
    .slice(0, index)
    .reverse()
    .find((l) => !l.hidden);
  const beneath = under ? (index === 1 ? under.name.toLowerCase() : 'what lies beneath') : 'the base plane';
  const look = close?.id === layer.id ? close : null;
  const section = useRef<CloseLook['section']>(null);
  // While it is dragged the last section stays.
  if (look?.section) section.current = look.section;
  const wrong = useRecess(layer, recess);
  const set = (edit: (l: Layer) => void) => change((j) => editLayers(j, [layer.id], edit));
  const size = (x: number, y: number) => set((l) => resizeLayer(l, x / l.size.x, y / l.size.y));
  const ratio = layer.size.y / layer.size.x;
  const keep = locked || layer.source.kind === 'words';

  const centreInField = async () => {
    const found = await arranger()
      .fieldUnder(arrangeInput(job, layer.id), layer.id)
      .catch(() => null);
    if (!found) {
      setSaid('nothing level lies under its middle; move it over a flat field first');
      return;
    }
    const { field, standing } = found;
    const dx = (field.bounds.x0 + field.bounds.x1 - standing.x0 - standing.x1) / 2;
    const dy = (field.bounds.y0 + field.bounds.y1 - standing.y0 - standing.y1) / 2;
    change((j) => moveLayers(j, [layer.id], dx, dy));
    const mx = (field.bounds.x1 - field.bounds.x0 - standing.x1 + standing.x0) / 2;
    const my = (field.bounds.y1 - field.bounds.y0 - standing.y1 + standing.y0) / 2;
    setSaid(
      `centred in the field: ${formatLength(mx, 'mm', 1)} left and right, ${formatLength(my, 'mm', 1)} near and far`,
    );
  };

  return (
    <Card title={layer.name} subtitle={KIND[layer.source.kind]}>
      <Sentence>
        {layer.hidden ? 'It is hidden and does nothing.' : effectText(layer, look?.effect ?? null, beneath)}
        {look && !layer.hidden && look.effect && look.effect.changed > 0 && look.visible < 0.995 && (
          <>
            {' '}
            {look.visible < 0.005 ? (
              <span className="text-accent">It is wholly hidden by what lies above it.</span>
            ) : (
              `${trimNumber(100 * look.visible, 0)} % of it shows in the end.`
            )}
          </>
        )}
        {look?.effect && look.effect.lost > 0 && !layer.hidden && (
          <span className="text-accent">
            {' '}
            It goes {formatLength(look.effect.lostMost, 'mm', 2)} below the base there, and that is lost.
          </span>
        )}
      </Sentence>
      {wrong && (
        <div role="alert" className="mb-2 rounded-lg border border-accent px-3 py-2 text-sm leading-snug">
          This model is itself a recess: joined this way its rim makes a bump.
          <button
            type="button"
            className="btn btn-sm mt-2 w-full"
            onClick={() => set((l) => Object.assign(l, { join: 'carve', invert: true, lift: Math.max(0, l.lift) }))}
          >
            Let it dig {formatLength(layer.rise, 'mm', 1)}
          </button>
        </div>
      )}
      {section.current && !layer.hidden && <SectionDrawing section={section.current} />}
      <Choice
        label="Joins"
        value={layer.join}
        options={JOIN_NAMES}
        onChange={(join) => set((l) => (l.join = join))}
        note={
          layer.join === 'stack' || layer.join === 'carve'
            ? 'lift counts from what lies beneath'
            : 'lift counts from the base plane'
        }
      />
      {layer.join === 'fade' && (
        <NumberField
          label="Shows"
          value={Math.round(layer.amount * 100)}
          min={0}
          max={100}
          suffix="%"
          onChange={(v) => set((l) => (l.amount = v / 100))}
        />
      )}
      <LengthField label="Rise" value={layer.rise} min={0} open max={500} onChange={(v) => set((l) => (l.rise = v))} />
      <LengthField label="Lift" value={layer.lift} min={-500} max={500} onChange={(v) => set((l) => (l.lift = v))} />
      <LengthField
        label="Length, x"
        value={layer.size.x}
        min={0}
        open
        max={10000}
        onChange={(v) => size(v, keep ? v * ratio : layer.size.y)}
      />
      <LengthField
        label="Width, y"
        value={layer.size.y}
        min={0}
        open
        max={10000}
        onChange={(v) => size(keep ? v / ratio : layer.size.x, v)}
      />
      {layer.source.kind !== 'words' && <Tick label="Proportions locked" value={locked} onChange={setLocked} />}
      {layer.source.kind === 'words' && <WordsFields job={job} layer={layer} change={change} />}
      {layer.source.kind === 'shape' && <ShapeFields job={job} layer={layer} change={change} />}
      <LengthField label="Centre, x" value={layer.centre.x} onChange={(v) => set((l) => (l.centre.x = v))} />
      <LengthField label="Centre, y" value={layer.centre.y} onChange={(v) => set((l) => (l.centre.y = v))} />
      <NumberField
        label="Turn"
        value={layer.turn}
        min={-360}
        max={360}
        suffix="°"
        onChange={(v) => set((l) => (l.turn = v))}
      />
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
      {layer.source.kind === 'mesh' && <MeshFields job={job} layer={layer} change={change} />}
      {layer.source.kind === 'image' && <ImageFields job={job} layer={layer} change={change} />}
      {layer.source.kind === 'words' && layer.source.words.text.includes('\n') && (
        <button
          type="button"
          className="btn btn-sm my-1 w-full"
          onClick={() => void splitInto(layer, change, onSelect)}
        >
          Split into lines
        </button>
      )}
      <Folded title="Name and group">
        <TextField label="Name" value={layer.name} max={80} required onChange={(v) => set((l) => (l.name = v))} />
        <TextField
          label="Group"
          value={layer.group ?? ''}
          max={64}
          onChange={(v) => set((l) => (l.group = v === '' ? null : v))}
        />
      </Folded>
      <Folded title="Edge, tilt and heights">
        <LengthField
          label="Edge fade"
          value={layer.fade}
          min={0}
          max={1000}
          onChange={(v) => set((l) => (l.fade = v))}
          note="fades in from its edge over this width"
        />
        <NumberField
          label="Tilt along x"
          value={layer.tilt.x}
          min={-80}
          max={80}
          suffix="°"
          onChange={(v) => set((l) => (l.tilt.x = v))}
        />
        <NumberField
          label="Tilt along y"
          value={layer.tilt.y}
          min={-80}
          max={80}
          suffix="°"
          onChange={(v) => set((l) => (l.tilt.y = v))}
        />
        <Tick
          label="Heights turned over"
          value={layer.invert}
          onChange={(v) => set((l) => (l.invert = v))}
          note="what stood highest lies deepest"
        />
      </Folded>
      <Folded title="Copies">
        <CopiesFields layer={layer} set={set} />
      </Folded>
      <MaskFields job={job} layer={layer} change={change} />
      <GapFields job={job} layer={layer} change={change} />
      <button
        type="button"
        className="btn btn-ghost btn-sm mt-3 w-full text-accent"
        onClick={() => {
          change((j) => removeLayers(j, [layer.id]));
          onSelect([]);
        }}
      >
        Remove from the board
      </button>
    </Card>
  );
}

async function splitInto(
  layer: Layer,
  change: LayerCardProps['change'],
  onSelect: (ids: string[]) => void,
): Promise<void> {
  if (layer.source.kind !== 'words') return;
  const { words } = layer.source;
  const lines = words.text.split('\n');
  const sizes = await Promise.all(
    lines.map((text) =>
      text.trim() === ''
        ? { x: 1, y: 1 }
        : arranger()
            .measure({ ...words, text, nudges: {} })
            .then((m) => m.size),
    ),
  );
  const ids = lines.map(() => newId());
  change((j) => {
    const at = j.layers.findIndex((l) => l.id === layer.id);
    if (at >= 0) j.layers.splice(at, 1, ...splitLines(j.layers[at], ids, sizes));
  });
  onSelect([ids[0]]);
}

const COPIES: [Copies['kind'], string][] = [
  ['one', 'only one'],
  ['rows', 'rows and columns'],
  ['ring', 'a ring'],
  ['path', 'along a stroke'],
];

function freshCopies(kind: Copies['kind'], l: Layer): Copies {
  switch (kind) {
    case 'one':
      return { kind };
    case 'rows':
      return {
        kind,
        columns: 3,
        rows: 1,
        dx: Number((l.size.x * 1.2).toFixed(2)),
        dy: Number((l.size.y * 1.2).toFixed(2)),
      };
    case 'ring':
      return { kind, count: 8, radius: Number((1.5 * Math.max(l.size.x, l.size.y)).toFixed(2)), turning: true };
    case 'path':
      return { kind, count: 5, d: `M ${-2 * l.size.x} 0 Q 0 ${-l.size.y} ${2 * l.size.x} 0`, turning: true };
  }
}

function CopiesFields({ layer, set }: { layer: Layer; set(edit: (l: Layer) => void): void }) {
  const c = layer.copies;
  const put = (next: Copies) => set((l) => (l.copies = next));
  return (
    <>
      <Choice label="Copies" value={c.kind} options={COPIES} onChange={(kind) => put(freshCopies(kind, layer))} />
      {c.kind === 'rows' && (
        <>
          <NumberField
            label="Columns"
            value={c.columns}
            min={1}
            max={60}
            onChange={(v) => put({ ...c, columns: Math.round(v) })}
          />
          <NumberField
            label="Rows"
            value={c.rows}
            min={1}
            max={60}
            onChange={(v) => put({ ...c, rows: Math.round(v) })}
          />
          <LengthField
            label="Apart, x"
            value={c.dx}
            onChange={(v) => put({ ...c, dx: v })}
            note="from middle to middle"
          />
          <LengthField label="Apart, y" value={c.dy} onChange={(v) => put({ ...c, dy: v })} />
        </>
      )}
      {c.kind === 'ring' && (
        <>
          <NumberField
            label="Count"
            value={c.count}
            min={1}
            max={200}
            onChange={(v) => put({ ...c, count: Math.round(v) })}
          />
          <LengthField
            label="Ring's radius"
            value={c.radius}
            min={0}
            max={5000}
            onChange={(v) => put({ ...c, radius: v })}
          />
          <Tick label="Turned with the ring" value={c.turning} onChange={(v) => put({ ...c, turning: v })} />
        </>
      )}
      {c.kind === 'path' && (
        <>
          <NumberField
            label="Count"
            value={c.count}
            min={1}
            max={200}
            onChange={(v) => put({ ...c, count: Math.round(v) })}
          />
          <TextField label="Stroke" value={c.d} max={20000} required onChange={(d) => put({ ...c, d })} />
          <p className="soft text-[13px]">SVG path in mm from the layer's middle, y down</p>
          <Tick label="Turned with the stroke" value={c.turning} onChange={(v) => put({ ...c, turning: v })} />
        </>
      )}
    </>
  );
}
