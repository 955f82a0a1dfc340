'use client';
import { Plus, Trash2 } from 'lucide-react';
import { contourAt } from '@/core/arrange/kinds/turned/forms';
import type { TurnedForm } from '@/core/arrange/kinds/turned/schema';
import type { LayerOf } from '@/core/doc/layer';
import { clean } from '@/core/units/round';
import { LengthCell, Tick } from '../../controls/fields';

type Contour = Extract<TurnedForm, { kind: 'contour' }>;

interface Props {
  form: Contour;
  layer: LayerOf<'turned'>;
  /** Of the blank, mm. */
  radius: number;
  put(f: Contour): void;
}

const WIDE = 240;
const HIGH = 76;
const STEPS = 80;

/** The contour from the side, both halves about the axis, in its own proportions as far as they fit. */
function ContourDrawing({ form, layer, radius }: Omit<Props, 'put'>) {
  const down = contourAt(form);
  const scale = Math.min(WIDE / layer.size.x, HIGH / (2 * radius));
  const x = (u: number) => WIDE / 2 + (u - 0.5) * layer.size.x * scale;
  const half = (u: number) => (radius - layer.rise * down(u)) * scale;
  const at = Array.from({ length: STEPS + 1 }, (_, i) => i / STEPS);
  const top = at.map((u) => `${x(u).toFixed(1)} ${(HIGH / 2 - half(u)).toFixed(1)}`);
  const bottom = at.reverse().map((u) => `${x(u).toFixed(1)} ${(HIGH / 2 + half(u)).toFixed(1)}`);
  return (
    <svg
      width={WIDE}
      height={HIGH}
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      role="img"
      aria-label="The contour from the side"
      className="my-1 block"
    >
      <path d={`M${[...top, ...bottom].join('L')}Z`} fill="var(--wood)" stroke="var(--wood-line)" />
      <path d={`M0 ${HIGH / 2}H${WIDE}`} stroke="currentColor" strokeDasharray="8 3 2 3" strokeWidth="0.8" />
    </svg>
  );
}

/** The points of a contour: where each lies along it, and how wide the work is across there. */
export function ContourFields({ form, layer, radius, put }: Props) {
  const { points } = form;
  const set = (i: number, p: Contour['points'][number]) =>
    put({ ...form, points: points.map((q, k) => (k === i ? p : q)).sort((a, b) => a.along - b.along) });
  const share = (v: number) => Math.min(1, Math.max(0, v));
  const add = () => {
    // Halfway in the longest stretch, on the contour.
    const gaps = points.slice(1).map((p, i) => p.along - points[i].along);
    const i = gaps.indexOf(Math.max(...gaps));
    const along = (points[i].along + points[i + 1].along) / 2;
    put({ ...form, points: points.toSpliced(i + 1, 0, { along, down: share(contourAt(form)(along)) }) });
  };
  return (
    <>
      <ContourDrawing {...{ form, layer, radius }} />
      <table className="w-full text-sm">
        <thead>
          <tr className="soft text-left">
            <th className="font-normal">Along it</th>
            <th className="font-normal">Across</th>
            <th className="w-8">
              <span className="sr-only">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {points.map((p, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: points have no name but their place in the order
            <tr key={i}>
              <td className="pr-1">
                <LengthCell
                  label={`Point ${i + 1}, along`}
                  value={clean(p.along * layer.size.x)}
                  min={0}
                  max={layer.size.x}
                  onChange={(v) => set(i, { ...p, along: share(v / layer.size.x) })}
                />
              </td>
              <td className="pr-1">
                <LengthCell
                  label={`Point ${i + 1}, across`}
                  value={clean(2 * (radius - layer.rise * p.down))}
                  min={clean(2 * (radius - layer.rise))}
                  max={2 * radius}
                  onChange={(v) => set(i, { ...p, down: share((radius - v / 2) / layer.rise) })}
                />
              </td>
              <td>
                <button
                  type="button"
                  className="btn btn-ghost btn-xs btn-square"
                  aria-label={`Remove point ${i + 1}`}
                  disabled={points.length <= 2}
                  onClick={() => put({ ...form, points: points.filter((_, k) => k !== i) })}
                >
                  <Trash2 size={13} aria-hidden />
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <button type="button" className="btn btn-sm my-1 w-full" disabled={points.length >= 60} onClick={add}>
        <Plus size={14} aria-hidden /> Add a point
      </button>
      <Tick
        label="Curved through its points"
        value={form.curved}
        onChange={(curved) => put({ ...form, curved })}
        note="else straight between them"
      />
    </>
  );
}
