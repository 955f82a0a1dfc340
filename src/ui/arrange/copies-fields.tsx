'use client';
import { freshCopies } from '@/core/arrange/fresh';
import type { Copies, Layer } from '@/core/doc/layer';
import { Choice, LengthField, NumberField, TextField, Tick } from '../controls/fields';

const COPIES: [Copies['kind'], string][] = [
  ['one', 'only one'],
  ['rows', 'rows and columns'],
  ['ring', 'a ring'],
  ['path', 'along a stroke'],
];

/** One, rows and columns, a ring, or along a stroke. */
export function CopiesFields({ layer, set }: { layer: Layer; set(edit: (l: Layer) => void): void }) {
  const c = layer.copies;
  const put = (next: Copies) => set((l) => (l.copies = next));
  return (
    <>
      <Choice label="Copies" value={c.kind} options={COPIES} onChange={(kind) => put(freshCopies(kind, layer))} />
      {c.kind === 'rows' && (
        <>
          <NumberField
            whole
            label="Columns"
            value={c.columns}
            min={1}
            max={60}
            onChange={(v) => put({ ...c, columns: v })}
          />
          <NumberField whole label="Rows" value={c.rows} min={1} max={60} onChange={(v) => put({ ...c, rows: v })} />
          <LengthField
            label="Spacing, x"
            value={c.dx}
            onChange={(v) => put({ ...c, dx: v })}
            note="from middle to middle"
          />
          <LengthField label="Spacing, y" value={c.dy} onChange={(v) => put({ ...c, dy: v })} />
        </>
      )}
      {c.kind === 'ring' && (
        <>
          <NumberField
            whole
            label="Count"
            value={c.count}
            min={1}
            max={200}
            onChange={(v) => put({ ...c, count: v })}
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
            whole
            label="Count"
            value={c.count}
            min={1}
            max={200}
            onChange={(v) => put({ ...c, count: v })}
          />
          <TextField label="Stroke" value={c.d} max={20000} required onChange={(d) => put({ ...c, d })} />
          <p className="soft text-[13px]">SVG path in mm from the layer's middle, y down</p>
          <Tick label="Turned with the stroke" value={c.turning} onChange={(v) => put({ ...c, turning: v })} />
        </>
      )}
    </>
  );
}
