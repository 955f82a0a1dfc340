'use client';
import { type ComponentProps, useState } from 'react';
import { sourceKind } from '@/core/arrange/kinds/registry';
import { resizeLayer } from '@/core/arrange/new-layer';
import type { Layer } from '@/core/doc/layer';
import { Card } from '../cards/card';
import { Folded, LengthField, NumberField, TextField, Tick } from '../controls/fields';
import { editLayers } from './actions';
import { AroundFold } from './around-fold';
import { CopiesFields } from './copies-fields';
import { GapFields } from './gap-fields';
import { JoinPictures } from './join-pictures';
import { fieldsOf } from './kinds/registry';
import type { LayerCardProps } from './layer-card-props';
import { LayerCommands } from './layer-commands';
import { LayerEffect } from './layer-effect';
import { LayerShape } from './layer-shape';
import { MaskFields } from './mask-fields';
import { OutlineTools } from './outline-tools';
import { SharedLayer } from './shared-layer';

/** The ways to join, and what lift counts from in the one that is chosen. */
function HowItJoins(props: ComponentProps<typeof JoinPictures>) {
  const { join } = props.layer;
  return (
    <>
      <JoinPictures {...props} />
      <p className="soft mt-1 text-[12.5px] leading-tight">
        {join === 'stack' || join === 'carve'
          ? 'Lift counts from what lies beneath.'
          : 'Lift counts from the base plane.'}
      </p>
    </>
  );
}

/** One layer: its section with handles, the ways to join, what it does here in words, then its numbers. */
export function LayerCard(props: LayerCardProps) {
  const { job, layer, close, section, axis, onAxis, change, tryOut, onSelect, onRemove, info } = props;
  const [locked, setLocked] = useState(true);
  const set = (edit: (l: Layer) => void) => change((j) => editLayers(j, [layer.id], edit));
  const size = (x: number, y: number) => set((l) => resizeLayer(l, x / l.size.x, y / l.size.y));
  const ratio = layer.size.y / layer.size.x;
  const { described, scaled, alongAxis } = sourceKind(layer);
  const proportioned = scaled !== undefined;
  const keep = (locked || proportioned) && !alongAxis;
  const { Fields, More } = fieldsOf(layer);

  return (
    <Card title={layer.name} subtitle={described}>
      {!alongAxis && (
        <LayerShape
          some={[layer]}
          name={layer.name}
          section={section}
          axis={axis}
          onAxis={onAxis}
          change={change}
          tryOut={tryOut}
        />
      )}
      {!alongAxis && <HowItJoins layer={layer} section={section} onChange={(join) => set((l) => (l.join = join))} />}
      {layer.join === 'blend' && (
        <NumberField
          label="Shows"
          value={Math.round(layer.amount * 100)}
          min={0}
          max={100}
          suffix="%"
          onChange={(v) => set((l) => (l.amount = v / 100))}
        />
      )}
      <LayerEffect job={job} layer={layer} close={close} info={info} set={set} />
      <LengthField
        label="Length, x"
        value={layer.size.x}
        min={0}
        open
        max={10000}
        onChange={(v) => size(v, keep ? v * ratio : layer.size.y)}
      />
      {!alongAxis && (
        <LengthField
          label="Width, y"
          value={layer.size.y}
          min={0}
          open
          max={10000}
          onChange={(v) => size(keep ? v / ratio : layer.size.x, v)}
        />
      )}
      {!proportioned && !alongAxis && <Tick label="Proportions locked" value={locked} onChange={setLocked} />}
      {Fields && <Fields {...{ job, layer, change, onSelect }} />}
      <LengthField label="Centre, x" value={layer.centre.x} onChange={(v) => set((l) => (l.centre.x = v))} />
      <LengthField label="Centre, y" value={layer.centre.y} onChange={(v) => set((l) => (l.centre.y = v))} />
      {!alongAxis && (
        <>
          <NumberField
            label="Turn"
            value={layer.turn}
            min={-360}
            max={360}
            suffix="°"
            onChange={(v) => set((l) => (l.turn = v))}
          />
          <AroundFold job={job} layer={layer} set={set} />
        </>
      )}
      <SharedLayer job={job} layer={layer} change={change} />
      <LayerCommands job={job} layer={layer} change={change} onSelect={onSelect} />
      <OutlineTools job={job} selected={[layer.id]} change={change} onSelect={onSelect} />
      {More && <More {...{ job, layer, change, onSelect }} />}
      <Folded title="Name and group">
        <TextField label="Name" value={layer.name} max={80} required onChange={(v) => set((l) => (l.name = v))} />
        <TextField
          label="Group"
          value={layer.group ?? ''}
          max={64}
          onChange={(v) => set((l) => (l.group = v === '' ? null : v))}
        />
      </Folded>
      {!alongAxis && (
        <Tick
          label="Heights inverted"
          value={layer.invert}
          onChange={(v) => set((l) => (l.invert = v))}
          note="what stood highest lies deepest"
        />
      )}
      <Folded title="Copies">
        <CopiesFields layer={layer} set={set} />
      </Folded>
      <MaskFields job={job} layer={layer} change={change} />
      <GapFields job={job} layer={layer} change={change} />
      <button
        type="button"
        className="btn btn-ghost btn-sm mt-3 w-full text-accent"
        onClick={() => onRemove([layer.id])}
      >
        Remove from the board
      </button>
    </Card>
  );
}
