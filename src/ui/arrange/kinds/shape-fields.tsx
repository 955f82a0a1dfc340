'use client';
import { freshOutline } from '@/core/arrange/fresh';
import type { ShapeSource } from '@/core/arrange/kinds/shape/schema';
import type { Outline } from '@/core/outline/shapes';
import { Choice, LengthField, NumberField, TextField } from '../../controls/fields';
import { editKind } from '../actions';
import { ReliefFields } from '../relief-fields';
import { VeeButton } from '../vee-button';
import { EdgeFields } from './edge-fields';
import type { FieldsProps, KindFields } from './kind-fields';
import { StrokeHandles } from './stroke-handles';

const OUTLINES: [Outline['kind'], string][] = [
  ['rectangle', 'rectangle'],
  ['rounded', 'rounded'],
  ['oval', 'oval'],
  ['circle', 'circle'],
  ['arch', 'arch'],
  ['scalloped', 'scalloped'],
  ['cartouche', 'cartouche'],
  ['polygon', 'polygon'],
  ['path', 'drawn (SVG path)'],
  ['strokes', 'drawn lines (SVG path)'],
];

/** A shape made here: its outline, what stands on it, and its edge, all as numbers. */
function ShapeFields({ layer, change }: FieldsProps<'shape'>) {
  const s = layer.source;
  const set = (edit: (s: ShapeSource) => void) => change((j) => editKind(j, layer.id, 'shape', (l) => edit(l.source)));
  const o = s.outline;
  return (
    <>
      <Choice
        label="Outline"
        value={o.kind}
        options={OUTLINES}
        onChange={(kind) => set((x) => (x.outline = freshOutline(kind, layer)))}
      />
      {o.kind === 'rounded' && (
        <LengthField
          label="Corner radius"
          value={o.radius}
          min={0}
          open
          max={2000}
          onChange={(radius) => set((x) => (x.outline = { kind: 'rounded', radius }))}
        />
      )}
      {o.kind === 'scalloped' && (
        <NumberField
          whole
          label="Lobes"
          value={o.lobes}
          min={3}
          max={200}
          onChange={(v) => set((x) => (x.outline = { kind: 'scalloped', lobes: v }))}
        />
      )}
      {o.kind === 'polygon' && (
        <NumberField
          whole
          label="Sides"
          value={o.sides}
          min={3}
          max={60}
          onChange={(v) => set((x) => (x.outline = { kind: 'polygon', sides: v }))}
        />
      )}
      {o.kind === 'strokes' && (
        <>
          <LengthField
            label="Line width"
            value={o.width}
            min={0}
            open
            max={500}
            onChange={(width) => set((x) => (x.outline = { ...o, width }))}
          />
          <TextField
            label="SVG path"
            value={o.d}
            max={100000}
            required
            onChange={(d) => set((x) => (x.outline = { ...o, d }))}
          />
        </>
      )}
      {o.kind === 'path' && (
        <TextField
          label="SVG path"
          value={o.d}
          max={100000}
          required
          onChange={(d) => set((x) => (x.outline = { kind: 'path', d }))}
        />
      )}
      <VeeButton layer={layer} change={change} />
      <ReliefFields relief={s.relief} layer={layer} put={(r) => set((x) => (x.relief = r))} />
      <EdgeFields edge={s.edge} put={(edge) => set((x) => (x.edge = edge))} />
    </>
  );
}

export const shapeFields: KindFields<'shape'> = { Fields: ShapeFields, Handles: StrokeHandles };
