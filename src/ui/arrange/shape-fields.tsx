'use client';
import type { Layer, ShapeSource } from '@/core/doc/layer';
import type { Edge, Outline } from '@/core/outline/shapes';
import { Choice, LengthField, NumberField, TextField } from '../controls/fields';
import { editLayers } from './actions';
import type { FieldsProps } from './file-fields';
import { ReliefFields } from './relief-fields';
import { VeeButton } from './vee-button';

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
const EDGES: [Edge['kind'], string][] = [
  ['plain', 'plain'],
  ['waney', 'waney'],
  ['notched', 'notched'],
];

/** A line that new drawn lines begin with. */
export const LINE = 'M 0 12 C 15 -8 25 -8 40 12 S 65 32 80 12';

function freshOutline(kind: Outline['kind'], l: Layer): Outline {
  if (kind === 'rounded') return { kind, radius: Number((Math.min(l.size.x, l.size.y) * 0.12).toFixed(2)) };
  if (kind === 'scalloped') return { kind, lobes: 16 };
  if (kind === 'path') return { kind, d: 'M 0 40 C 0 0 100 0 100 40 L 50 100 Z' };
  if (kind === 'polygon') return { kind, sides: 6 };
  if (kind === 'strokes') return { kind, d: LINE, width: 3 };
  return { kind };
}

function freshEdge(kind: Edge['kind']): Edge {
  if (kind === 'waney') return { kind, depth: 6, length: 40, seed: 1 };
  if (kind === 'notched') return { kind, count: 24, width: 6, depth: 3 };
  return { kind };
}

/** How a shape's edge is worked. */
function EdgeFields({ edge: e, put }: { edge: ShapeSource['edge']; put(edge: ShapeSource['edge']): void }) {
  return (
    <>
      <Choice label="Edge" value={e.kind} options={EDGES} onChange={(kind) => put(freshEdge(kind))} />
      {e.kind === 'waney' && (
        <>
          <LengthField
            label="Waves, deep"
            value={e.depth}
            min={0}
            open
            max={200}
            onChange={(v) => put({ ...e, depth: v })}
          />
          <LengthField
            label="Waves, long"
            value={e.length}
            min={0}
            open
            max={1000}
            onChange={(v) => put({ ...e, length: v })}
          />
          <NumberField
            whole
            label="Chance"
            value={e.seed}
            min={0}
            max={9999}
            onChange={(v) => put({ ...e, seed: v })}
          />
        </>
      )}
      {e.kind === 'notched' && (
        <>
          <NumberField
            whole
            label="Notches"
            value={e.count}
            min={1}
            max={500}
            onChange={(v) => put({ ...e, count: v })}
          />
          <LengthField
            label="Notch, wide"
            value={e.width}
            min={0}
            open
            max={500}
            onChange={(v) => put({ ...e, width: v })}
          />
          <LengthField
            label="Notch, deep"
            value={e.depth}
            min={0}
            open
            max={200}
            onChange={(v) => put({ ...e, depth: v })}
          />
        </>
      )}
    </>
  );
}

/** A shape made here: its outline, what stands on it, and its edge, all as numbers. */
export function ShapeFields({ layer, change }: FieldsProps) {
  const s = layer.source as ShapeSource;
  const set = (edit: (s: ShapeSource, l: Layer) => void) =>
    change((j) => editLayers(j, [layer.id], (l) => edit(l.source as ShapeSource, l)));
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
            label="Lines, wide"
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
