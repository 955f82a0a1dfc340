'use client';
import { freshEdge } from '@/core/arrange/fresh';
import type { Edge } from '@/core/outline/shapes';
import { Choice, LengthField, NumberField } from '../../controls/fields';

const EDGES: [Edge['kind'], string][] = [
  ['plain', 'plain'],
  ['waney', 'waney'],
  ['notched', 'notched'],
];

/** How a shape's edge is worked. */
export function EdgeFields({ edge: e, put }: { edge: Edge; put(edge: Edge): void }) {
  return (
    <>
      <Choice label="Edge" value={e.kind} options={EDGES} onChange={(kind) => put(freshEdge(kind))} />
      {e.kind === 'waney' && (
        <>
          <LengthField
            label="Wave depth"
            value={e.depth}
            min={0}
            open
            max={200}
            onChange={(v) => put({ ...e, depth: v })}
          />
          <LengthField
            label="Wave length"
            value={e.length}
            min={0}
            open
            max={1000}
            onChange={(v) => put({ ...e, length: v })}
          />
          <NumberField
            whole
            label="Variation"
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
            label="Notch width"
            value={e.width}
            min={0}
            open
            max={500}
            onChange={(v) => put({ ...e, width: v })}
          />
          <LengthField
            label="Notch depth"
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
