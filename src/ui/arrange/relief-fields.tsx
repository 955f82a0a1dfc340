'use client';
import { freshRelief } from '@/core/arrange/fresh';
import type { Layer } from '@/core/doc/layer';
import type { ReliefOf } from '@/core/doc/relief-of';
import { Choice, LengthField, NumberField, Tick } from '../controls/fields';

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
  ['vee', 'V groove'],
];

/** What stands on an outline, with its numbers. */
export function ReliefFields({ relief, layer, put }: { relief: ReliefOf; layer: Layer; put(r: ReliefOf): void }) {
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
        <NumberField whole label="Ribs" value={r.ribs} min={2} max={200} onChange={(v) => put({ ...r, ribs: v })} />
      )}
      {r.kind === 'gouge' && (
        <NumberField
          whole
          label="Variation"
          value={r.seed}
          min={0}
          max={9999}
          onChange={(v) => put({ ...r, seed: v })}
        />
      )}
      {r.kind === 'vee' && (
        <NumberField
          label="Angle"
          value={r.angle}
          min={5}
          max={170}
          suffix="°"
          onChange={(angle) => put({ ...r, angle })}
          note="of the V bit; the rise is its deepest"
        />
      )}
      {'band' in r && (
        <Tick label="Border only, nothing inside" value={r.band} onChange={(v) => put({ ...r, band: v })} />
      )}
    </>
  );
}
