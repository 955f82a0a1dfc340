'use client';
import type { Layer, Mask } from '@/core/doc/layer';
import type { Outline } from '@/core/outline/shapes';
import { clean } from '@/core/units/round';
import { Choice, Folded, LengthField, Tick } from '../controls/fields';
import { editLayers } from './actions';
import type { FieldsProps } from './kinds/kind-fields';

const OUTLINES: [string, string][] = [
  ['rectangle', 'rectangle'],
  ['rounded', 'rounded'],
  ['oval', 'oval'],
  ['circle', 'circle'],
  ['arch', 'arch'],
  ['cartouche', 'cartouche'],
];

function fresh(kind: Mask['kind'], layer: Layer, others: Layer[]): Mask {
  if (kind === 'outline') {
    const { x, y } = layer.size;
    return {
      kind,
      outline: { kind: 'oval' },
      x: clean(x * 0.8),
      y: clean(y * 0.8),
      dx: 0,
      dy: 0,
      outside: false,
    };
  }
  if (kind === 'layer' && others[0]) return { kind, layer: others[0].id, grow: 0, outside: false };
  return { kind: 'none' };
}

/** Where of the layer counts: within an outline, or within another layer's silhouette. */
export function MaskFields({ job, layer, change }: Pick<FieldsProps, 'job' | 'layer' | 'change'>) {
  const m = layer.mask;
  const put = (mask: Mask) => change((j) => editLayers(j, [layer.id], (l) => (l.mask = mask)));
  const others = job.layers.filter((l) => l.id !== layer.id);
  return (
    <Folded title="Mask">
      <Choice
        label="Only within"
        value={m.kind}
        options={[
          ['none', 'no mask'],
          ['outline', 'an outline'],
          ...(others.length > 0 ? [['layer', "another layer's silhouette"] as const] : []),
        ]}
        onChange={(kind) => put(fresh(kind, layer, others))}
      />
      {m.kind === 'outline' && (
        <>
          <Choice
            label="Outline"
            value={m.outline.kind}
            options={OUTLINES}
            onChange={(kind) =>
              put({ ...m, outline: (kind === 'rounded' ? { kind, radius: 6 } : { kind }) as Outline })
            }
          />
          <LengthField label="Length, x" value={m.x} min={0} open max={10000} onChange={(x) => put({ ...m, x })} />
          <LengthField label="Width, y" value={m.y} min={0} open max={10000} onChange={(y) => put({ ...m, y })} />
          <LengthField
            label="Offset, x"
            value={m.dx}
            onChange={(dx) => put({ ...m, dx })}
            note="from the layer's middle"
          />
          <LengthField label="Offset, y" value={m.dy} onChange={(dy) => put({ ...m, dy })} />
        </>
      )}
      {m.kind === 'layer' && (
        <>
          <Choice
            label="Layer"
            value={m.layer}
            options={others.map((l) => [l.id, l.name] as const)}
            onChange={(id) => put({ ...m, layer: id })}
          />
          <LengthField label="Larger by" value={m.grow} min={-500} max={500} onChange={(grow) => put({ ...m, grow })} />
        </>
      )}
      {m.kind !== 'none' && (
        <Tick label="Outside instead" value={m.outside} onChange={(outside) => put({ ...m, outside })} />
      )}
    </Folded>
  );
}
