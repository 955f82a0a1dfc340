'use client';
import { useQuery } from '@tanstack/react-query';
import { useId, useState } from 'react';
import type { Layer, ShapeSource, WordsSource } from '@/core/arrange/layer';
import type { ReliefOf } from '@/core/arrange/relief-of';
import type { Edge, Outline } from '@/core/outline/shapes';
import { FONTS } from '@/core/sources/fonts';
import type { Words } from '@/core/sources/words';
import { api } from '../api';
import { Choice, Field, Folded, LengthField, NumberField, TextField, Tick } from '../controls/fields';
import { editLayers } from './actions';
import type { FieldsProps } from './file-fields';
import { arranger } from './use-arrangement';

const OUTLINES: [Outline['kind'], string][] = [
  ['rectangle', 'rectangle'],
  ['rounded', 'rounded'],
  ['oval', 'oval'],
  ['circle', 'circle'],
  ['arch', 'arch'],
  ['scalloped', 'scalloped'],
  ['cartouche', 'cartouche'],
  ['path', 'drawn (SVG path)'],
];
const RELIEFS: [ReliefOf['kind'], string][] = [
  ['flat', 'flat'],
  ['dome', 'dome'],
  ['dish', 'dish'],
  ['bevel', 'bevelled edge'],
  ['cove', 'coved edge'],
  ['ogee', 'ogee edge'],
  ['bead', 'bead border'],
  ['rope', 'rope border'],
  ['pearls', 'pearl border'],
  ['shell', 'shell ribs'],
  ['flutes', 'flutes'],
  ['weave', 'basket weave'],
  ['gouge', 'gouge marks'],
  ['ripples', 'ripples'],
];
const EDGES: [Edge['kind'], string][] = [
  ['plain', 'plain'],
  ['waney', 'waney'],
  ['notched', 'notched'],
];

function freshOutline(kind: Outline['kind'], l: Layer): Outline {
  if (kind === 'rounded') return { kind, radius: Number((Math.min(l.size.x, l.size.y) * 0.12).toFixed(2)) };
  if (kind === 'scalloped') return { kind, lobes: 16 };
  if (kind === 'path') return { kind, d: 'M 0 40 C 0 0 100 0 100 40 L 50 100 Z' };
  return { kind };
}

function freshRelief(kind: ReliefOf['kind'], l: Layer, was: ReliefOf): ReliefOf {
  const width =
    'width' in was && was.kind !== 'gouge' ? was.width : Number((Math.min(l.size.x, l.size.y) * 0.08).toFixed(2));
  const band = 'band' in was ? was.band : false;
  switch (kind) {
    case 'bevel':
    case 'cove':
    case 'ogee':
    case 'bead':
      return { kind, width, band };
    case 'rope':
    case 'pearls':
      return { kind, width, pitch: width, band: true };
    case 'shell':
      return { kind, ribs: 11 };
    case 'flutes':
    case 'weave':
    case 'ripples':
      return { kind, pitch: 9 };
    case 'gouge':
      return { kind, length: 14, width: 7, seed: 1 };
    default:
      return { kind };
  }
}

function freshEdge(kind: Edge['kind']): Edge {
  if (kind === 'waney') return { kind, depth: 6, length: 40, seed: 1 };
  if (kind === 'notched') return { kind, count: 24, width: 6, depth: 3 };
  return { kind };
}

/** What stands on an outline, with its numbers. */
function ReliefFields({ relief, layer, put }: { relief: ReliefOf; layer: Layer; put(r: ReliefOf): void }) {
  const r = relief;
  return (
    <>
      <Choice label="Form" value={r.kind} options={RELIEFS} onChange={(kind) => put(freshRelief(kind, layer, r))} />
      {'width' in r && (
        <LengthField
          label={r.kind === 'gouge' ? 'Cut width' : 'Width'}
          value={r.width}
          min={0}
          open
          max={1000}
          onChange={(width) => put({ ...r, width })}
        />
      )}
      {r.kind === 'gouge' && (
        <LengthField
          label="Cut length"
          value={r.length}
          min={0}
          open
          max={500}
          onChange={(length) => put({ ...r, length })}
        />
      )}
      {'pitch' in r && (
        <LengthField label="Pitch" value={r.pitch} min={0} open max={500} onChange={(p) => put({ ...r, pitch: p })} />
      )}
      {r.kind === 'shell' && (
        <NumberField
          label="Ribs"
          value={r.ribs}
          min={2}
          max={200}
          onChange={(v) => put({ ...r, ribs: Math.round(v) })}
        />
      )}
      {r.kind === 'gouge' && (
        <NumberField
          label="Chance"
          value={r.seed}
          min={0}
          max={9999}
          onChange={(v) => put({ ...r, seed: Math.round(v) })}
        />
      )}
      {'band' in r && (
        <Tick label="Border only, nothing inside" value={r.band} onChange={(v) => put({ ...r, band: v })} />
      )}
    </>
  );
}

export function ShapeFields({ layer, change }: FieldsProps) {
  const s = layer.source as ShapeSource;
  const set = (edit: (s: ShapeSource, l: Layer) => void) =>
    change((j) => editLayers(j, [layer.id], (l) => edit(l.source as ShapeSource, l)));
  const { outline: o, edge: e } = s;
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
          label="Lobes"
          value={o.lobes}
          min={3}
          max={200}
          onChange={(v) => set((x) => (x.outline = { kind: 'scalloped', lobes: Math.round(v) }))}
        />
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
      <ReliefFields relief={s.relief} layer={layer} put={(r) => set((x) => (x.relief = r))} />
      <Choice label="Edge" value={e.kind} options={EDGES} onChange={(kind) => set((x) => (x.edge = freshEdge(kind)))} />
      {e.kind === 'waney' && (
        <>
          <LengthField
            label="Waves, deep"
            value={e.depth}
            min={0}
            open
            max={200}
            onChange={(v) => set((x) => (x.edge = { ...e, depth: v }))}
          />
          <LengthField
            label="Waves, long"
            value={e.length}
            min={0}
            open
            max={1000}
            onChange={(v) => set((x) => (x.edge = { ...e, length: v }))}
          />
          <NumberField
            label="Chance"
            value={e.seed}
            min={0}
            max={9999}
            onChange={(v) => set((x) => (x.edge = { ...e, seed: Math.round(v) }))}
          />
        </>
      )}
      {e.kind === 'notched' && (
        <>
          <NumberField
            label="Notches"
            value={e.count}
            min={1}
            max={500}
            onChange={(v) => set((x) => (x.edge = { ...e, count: Math.round(v) }))}
          />
          <LengthField
            label="Notch, wide"
            value={e.width}
            min={0}
            open
            max={500}
            onChange={(v) => set((x) => (x.edge = { ...e, width: v }))}
          />
          <LengthField
            label="Notch, deep"
            value={e.depth}
            min={0}
            open
            max={200}
            onChange={(v) => set((x) => (x.edge = { ...e, depth: v }))}
          />
        </>
      )}
    </>
  );
}

const LINES: [Words['line']['kind'], string][] = [
  ['straight', 'straight'],
  ['arc', 'an arc'],
  ['curve', 'a free curve'],
];

export function WordsFields({ job, layer, change }: FieldsProps) {
  const s = layer.source as WordsSource;
  const w = s.words;
  const [error, setError] = useState<string | null>(null);
  const [missing, setMissing] = useState<string[]>([]);
  const [letter, setLetter] = useState(0);
  const id = useId();
  const patterns = useQuery({ queryKey: ['patterns'], queryFn: api.patterns });
  const own = (patterns.data ?? []).filter((p) => p.info.kind === 'font');
  /** The words are set first, so that their size is known when they change. */
  const put = async (next: Words) => {
    try {
      const { size, missing: gone } = await arranger().measure(next);
      setError(null);
      setMissing(gone);
      change((j) =>
        editLayers(j, [layer.id], (l) => {
          const was = (l.source as WordsSource).words.text.split('\n')[0].trim();
          if (l.name === was) l.name = next.text.split('\n')[0].trim().slice(0, 80) || l.name;
          (l.source as WordsSource).words = next;
          l.size = { x: Number(size.x.toFixed(4)), y: Number(size.y.toFixed(4)) };
        }),
      );
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const fonts = [...FONTS.map((f) => [f.id, f.name] as const), ...own.map((p) => [p.hash, p.name] as const)];
  return (
    <>
      <Field label="Words" id={id} error={error}>
        <textarea
          id={id}
          className="textarea textarea-sm w-full bg-(--paper)"
          rows={Math.min(5, w.text.split('\n').length + 1)}
          maxLength={500}
          defaultValue={w.text}
          key={w.text}
          onBlur={(e) => e.target.value !== w.text && void put({ ...w, text: e.target.value, nudges: {} })}
          onKeyDown={(e) => {
            if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) e.currentTarget.blur();
          }}
        />
      </Field>
      {missing.length > 0 && (
        <p role="alert" className="text-[13px] text-accent">
          The font has no {missing.map((c) => `"${c}"`).join(', ')}.
        </p>
      )}
      <Choice
        label="Font"
        value={w.font}
        options={fonts.some(([f]) => f === w.font) ? fonts : [...fonts, [w.font, w.fontName] as const]}
        onChange={(font) => void put({ ...w, font, fontName: fonts.find(([f]) => f === font)?.[1] ?? w.fontName })}
      />
      <LengthField
        label="Capitals"
        value={w.height}
        min={0}
        open
        max={2000}
        onChange={(height) => void put({ ...w, height })}
        note="height of a capital"
      />
      <Choice
        label="Runs on"
        value={w.line.kind}
        options={LINES}
        onChange={(kind) =>
          void put({
            ...w,
            line:
              kind === 'arc'
                ? { kind, radius: Number((Math.max(layer.size.x, job.board.x / 4) * 0.8).toFixed(1)), under: false }
                : kind === 'curve'
                  ? { kind, d: `M 0 0 C ${layer.size.x * 0.33} -20 ${layer.size.x * 0.66} 20 ${layer.size.x} 0` }
                  : { kind },
          })
        }
      />
      {w.line.kind === 'arc' && (
        <>
          <LengthField
            label="Arc's radius"
            value={w.line.radius}
            min={1}
            max={10000}
            onChange={(radius) =>
              void put({ ...w, line: { ...(w.line as Extract<Words['line'], { kind: 'arc' }>), radius } })
            }
          />
          <Tick
            label="Under the circle"
            value={w.line.under}
            onChange={(under) =>
              void put({ ...w, line: { ...(w.line as Extract<Words['line'], { kind: 'arc' }>), under } })
            }
          />
        </>
      )}
      {w.line.kind === 'curve' && (
        <>
          <TextField
            label="Curve"
            value={w.line.d}
            max={20000}
            required
            onChange={(d) => void put({ ...w, line: { kind: 'curve', d } })}
          />
          <p className="soft text-[13px]">SVG path in mm, y down; its points can be dragged on the board</p>
        </>
      )}
      <ReliefFields
        relief={s.relief}
        layer={layer}
        put={(r) => change((j) => editLayers(j, [layer.id], (l) => ((l.source as WordsSource).relief = r)))}
      />
      <Folded title="Letters and spaces">
        <LengthField
          label="Between all"
          value={w.spacing}
          min={-100}
          max={500}
          onChange={(spacing) => void put({ ...w, spacing })}
        />
        <Choice
          label="Before letter"
          value={String(Math.min(letter, w.text.length - 1))}
          options={[...w.text].map(
            (c, i) => [String(i), `${i + 1}. ${c === '\n' ? 'new line' : c === ' ' ? 'space' : c}`] as const,
          )}
          onChange={(v) => setLetter(Number(v))}
        />
        <LengthField
          label="Shift by hand"
          value={w.nudges[String(letter)] ?? 0}
          min={-500}
          max={500}
          onChange={(v) => {
            const { [String(letter)]: _, ...rest } = w.nudges;
            void put({ ...w, nudges: v === 0 ? rest : { ...rest, [String(letter)]: v } });
          }}
          note="this letter and those after it"
        />
        <Tick label="Kerning" value={w.kerning} onChange={(kerning) => void put({ ...w, kerning })} />
        <NumberField
          label="Stretch"
          value={Math.round(w.stretch * 100)}
          min={20}
          max={500}
          suffix="%"
          onChange={(v) => void put({ ...w, stretch: v / 100 })}
        />
        {w.text.includes('\n') && (
          <NumberField
            label="Line distance"
            value={w.lineGap}
            min={0.5}
            max={10}
            suffix="capitals"
            onChange={(lineGap) => void put({ ...w, lineGap })}
          />
        )}
        <Choice
          label="Lines"
          value={w.align}
          options={[
            ['left', 'from the left'],
            ['middle', 'middle'],
            ['right', 'to the right'],
          ]}
          onChange={(align) => void put({ ...w, align })}
        />
      </Folded>
    </>
  );
}
